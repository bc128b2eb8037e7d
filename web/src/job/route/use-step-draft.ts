import type { StepDraft } from '@moray/core/job/record'
import type { StepProgress } from '@moray/core/route/progress'
import { useDebounceFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useShop } from '../../stores/shop.ts'
import { withUnit } from '../../ui/both-units.ts'
import type { WireError } from '../../wire/client.ts'
import type { ShownJob } from '../shown-job.ts'

export type Given = Record<string, boolean | number | string>
export type Raw = Record<string, boolean | number | string | undefined>

/**
 * What is typed at a step. It is kept on the server a moment later, so that an interruption, a reload or another screen finds it.
 * @param keep sends it
 * @param changed told of every change of a step that is not closed
 */
export function useStepDraft(
  props: { job: ShownJob; step: StepProgress },
  keep: (draft: StepDraft, failed: (error: WireError) => void) => void,
  changed: (given: Given) => void,
) {
  const shop = useShop()
  const draft = computed(() => props.job.drafts.find((d) => d.step === props.step.step.id))
  const answers = ref<Raw>({ ...draft.value?.answers })
  /** As it is sent: a bare number of somebody who reads inches first says its unit. */
  const given = computed((): Given =>
    Object.fromEntries(
      Object.entries(answers.value).flatMap(([fact, value]): [string, boolean | number | string][] => {
        if (value === undefined) return []
        const ask = props.step.step.asks.find((a) => a.fact === fact)
        const typed = ask?.kind === 'number' && typeof value === 'string'
        return [[fact, typed ? withUnit(value, ask.quantity, shop.first) : value]]
      }),
    ),
  )
  let kept = JSON.stringify(given.value)
  // a panel that is gone tries nothing again: by then another step, or another job, may stand in the store
  let gone = false
  function keepNow() {
    const now = JSON.stringify(given.value)
    if (now === kept || props.step.state === 'done' || !shop.somebody) return
    kept = now
    const at = new Date().toISOString()
    const { id: step, timedFrom: clock } = props.step.step
    const before = draft.value
    const begins =
      clock !== undefined && given.value[clock] !== undefined && before?.answers[clock] === undefined
    const begunAt = begins ? at : (before?.begunAt ?? at)
    const person = shop.personId
    keep({ step, answers: given.value, begunAt, by: '', at }, ({ code }) => {
      kept = ''
      // asked for now, and not when the step is closed: until then nothing of it would be kept
      if (code === 'code-needed' && !gone) shop.codeFor = person
    })
  }
  const keepSoon = useDebounceFn(() => {
    if (!gone) keepNow()
  }, 900)
  watch(given, (now) => {
    if (props.step.state !== 'done') changed(now)
    void keepSoon()
  })
  // the code was said: what is typed can be kept
  watch(
    () => shop.codeFor,
    (asked) => asked === '' && void keepSoon(),
  )
  onBeforeUnmount(() => {
    keepNow()
    gone = true
  })
  return {
    draft,
    answers,
    given,
    /** What is on its way as the step itself needs no draft. */
    sending: () => void (kept = JSON.stringify(given.value)),
    /** It did not get through: it is a draft again. */
    refused: () => void (kept = ''),
    /** The step begins anew, with nothing given. */
    empty() {
      answers.value = {}
      kept = '{}'
    },
  }
}
