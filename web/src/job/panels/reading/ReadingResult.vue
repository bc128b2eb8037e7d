<script setup lang="ts">
import { coverTilt } from '@moray/core/setting/cover-tilt'
import { isNoPreload } from '@moray/core/setting/assess'
import { nutNext, unitOf, type SetMeasure } from '@moray/core/setting/measures'
import { computed } from 'vue'
import VerdictMark from '../../../ui/VerdictMark.vue'
import WindowRuler from '../../../ui/WindowRuler.vue'
import { useUnits } from '../../../ui/units.ts'
import { clockHour, uncheckedText } from '../../reading-words.ts'
import { decimalsOf } from '../../setting-view.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'
import SuspectList from '../SuspectList.vue'
import RoundTheGear from './RoundTheGear.vue'

/** What the readings of a measure make together: value, uncertainty, verdict, and what they say besides. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  measure: SetMeasure
  /** Of a seat: the stack that is built in, mm. */
  built?: number | undefined
}>()

const units = useUnits()
const show = computed(() => units.of(unitOf(props.measure)))
const decimals = computed(() => decimalsOf(props.measure))
const state = computed(() => props.build.assessment.measures[props.measure.id]!)
const judgement = computed(() => state.value.judgement!)
const counting = computed(() =>
  props.build.readings.filter((r) => r.measure === props.measure.id && !r.superseded),
)
const unchecked = computed(() => uncheckedText(counting.value))
const check = computed(() => props.build.check.find((c) => c.measure === props.measure.id))
const tilt = computed(() =>
  props.measure.kind === 'crush' ? coverTilt(props.build.state.readings[props.measure.id] ?? []) : undefined,
)
/** A nut is turned on, never back. */
const nut = computed(() => nutNext(props.measure, judgement.value.mean, state.value.window))
const NUT = {
  'turn-on': 'Turn the nut on a little, a few degrees at a time, and read again. Never back.',
  'new-sleeve':
    'Past its window: a crushed sleeve does not spring back. Take it apart and fit a new sleeve; the nut is not turned back.',
  'open-again':
    'Past its window: a nut is not turned back to hit a number. Open it and set it again from loose.',
}
const advice = computed(() => {
  const { verdict, readingsNeeded } = judgement.value
  if (state.value.missing > 0 || verdict !== 'too-close') return ''
  if (readingsNeeded === null)
    return 'More readings will not decide it: take a finer gauge, or move nearer the middle of the window.'
  return `${readingsNeeded - state.value.count} more readings like these would decide it, or a finer gauge.`
})
</script>

<template>
  <div class="result">
    <p class="value">
      <span class="live">{{ show.digits(judgement.mean, decimals) }}</span>
      <span class="mono"> ± {{ show.say(judgement.U, 3) }} · {{ show.other(judgement.mean, decimals) }}</span>
    </p>
    <p v-if="built !== undefined" class="small">
      Asks for <strong class="mono">{{ units.both(built + judgement.mean, 3) }}</strong>; built in are
      <span class="mono">{{ units.both(built, 3) }}</span>.
    </p>
    <VerdictMark :verdict="judgement.verdict" />
    <p v-if="unchecked" class="caution">{{ unchecked }}.</p>
    <p v-if="nut" class="caution">{{ NUT[nut] }}</p>
    <p v-if="tilt" :class="tilt.leans ? 'caution' : 'small'">
      Tilt <span class="mono">{{ units.both(tilt.tiltMm, 2) }}</span
      >{{
        tilt.leans
          ? `, more than the gauge explains${tilt.widestDeg === undefined ? '' : `; widest at ${clockHour(tilt.widestDeg)}`}. Seat the cover square and read again.`
          : ', no more than the gauge explains.'
      }}
    </p>
    <WindowRuler
      v-if="judgement.verdict !== 'no-window'"
      :label="measure.label"
      :window="state.window"
      :unit="unitOf(measure)"
      :target="state.window === measure.window ? measure.target : undefined"
      :decimals="decimals"
      :reading="{ value: judgement.mean, U: judgement.U, verdict: judgement.verdict }"
      :prediction="build.plan?.predicted[measure.id]"
      :dots="counting.map((r) => r.value - (built ?? 0))"
    />
    <p class="small soft">
      {{ state.count }} {{ state.count === 1 ? 'reading' : 'readings'
      }}<template v-if="state.count > 1"
        >, {{ show.say(state.range, 3) }} between smallest and largest</template
      >
    </p>
    <RoundTheGear v-if="state.round" :round="state.round" :decimals="decimals" />
    <p v-if="state.carried" class="small soft">
      Read in an earlier trial; nothing that sets it was touched since.
    </p>
    <p v-if="counting.some(isNoPreload) && measure.kind === 'rolling-torque'" class="caution">
      No preload: a torque at or below that of the lips says nothing of how much play there is.
    </p>
    <p v-if="advice" class="caution">{{ advice }}</p>
    <p v-if="state.outlier >= 0" class="caution">
      Reading {{ state.outlier + 1 }} stands apart from the others. Look at the stand and the turn counter,
      then take one more.
    </p>
    <p v-if="check" class="small" :class="{ fault: check.disagrees }">
      Promised
      <span class="mono">{{ show.digits(check.predicted, 3) }} ± {{ show.digits(check.predictedU, 3) }}</span
      >, off by <span class="mono">{{ show.say(check.off, 3) }}</span>.
      <template v-if="check.disagrees">That is more than shims explain.</template>
    </p>
    <SuspectList v-if="check?.disagrees" :job="job" :build="build" />
  </div>
</template>

<style scoped>
.result {
  margin-top: 0.8rem;
  border-top: 1px solid var(--line);
  padding-top: 0.6rem;
}
.caution {
  margin: 0.4rem 0;
}
</style>
