import type { StepDraft } from '@moray/core/job/record'
import type { StepProgress } from '@moray/core/route/progress'
import { useNow } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { useGauges } from '../../wire/queries.ts'
import type { ShownJob } from '../shown-job.ts'
import { wrenchesFor, wrenchOffers } from './route-view.ts'

/** What a step can be answered with without being typed: by the clock of a test, or by a wrench of the shop. */
export function useStepOffers(
  props: { job: ShownJob; step: StepProgress },
  draft: Readonly<Ref<StepDraft | undefined>>,
) {
  const now = useNow({ interval: 10_000 })
  /** A pressure test runs from the moment its pressure was entered. */
  const running = computed(() => {
    const { timedFrom, holdMin = 0 } = props.step.step
    if (!timedFrom || draft.value?.answers[timedFrom] === undefined || props.step.state === 'done')
      return undefined
    const passed = now.value.getTime() - new Date(draft.value.begunAt).getTime()
    const minutes = Math.max(0, Math.floor(passed / 60_000))
    return { minutes, left: Math.max(0, holdMin - minutes) }
  })
  const gauges = useGauges()
  /** Wrenches of the shop that can be trusted over the torque of this step. */
  const wrenches = computed(() => wrenchesFor(props.job.sheet, props.step.step, gauges.gauges ?? []))
  const offers = computed((): Record<string, { label: string; value: string }> => {
    const lengths = wrenchOffers(props.step.step, wrenches.value)
    if (!running.value) return lengths
    const { minutes } = running.value
    const label = `By the clock: ${minutes} min. Take it over`
    return { ...lengths, [`${props.step.step.id}.minutes`]: { label, value: String(minutes) } }
  })
  return { running, wrenches, offers }
}
