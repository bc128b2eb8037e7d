<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import { isTorqueUnit, type ReadingUnit } from '@moray/contract/requests/setting'
import { doubtOf, doubtWords } from '@moray/core/measuring/doubt'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import { gaugesFor } from '@moray/core/measuring/suiting'
import { wayOf } from '@moray/core/setting/measured'
import { nearestMaster, OTHER_MASTER_MM } from '@moray/core/measuring/setting-master'
import { canDecide } from '@moray/core/measuring/can-decide'
import { coverTilt } from '@moray/core/setting/cover-tilt'
import { beforeOf } from '@moray/core/setting/float-recipe'
import { isNoPreload, isReadable, plausibleKind, valueOf } from '@moray/core/setting/assess'
import { isBearingMeasure, nutNext, unitOf, windowOf, type SetMeasure } from '@moray/core/setting/measures'
import { quantityOf } from '@moray/core/units/plausible'
import { useStorage } from '@vueuse/core'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import BearingHow from './reading/BearingHow.vue'
import BeforeIt from './reading/BeforeIt.vue'
import ClockPlaces from './reading/ClockPlaces.vue'
import { QUARTERS } from './reading/quarters.ts'
import NoGauge from './reading/NoGauge.vue'
import ReadingList from './reading/ReadingList.vue'
import RoundTheGear from './reading/RoundTheGear.vue'
import RideSearch from './reading/RideSearch.vue'
import OneOf from '../../ui/OneOf.vue'
import SeatHow from './reading/SeatHow.vue'
import SwingField from './reading/SwingField.vue'
import type { BearingDraft } from './reading/bearing-draft.ts'
import { EMPTY_SEAT, seatTexts, type SeatDraft } from './reading/seat-draft.ts'
import type { RideDraft } from './reading/ride-draft.ts'
import type { SwingDraft } from './reading/swing-draft.ts'
import MissingFigures from './MissingFigures.vue'
import SuspectList from './SuspectList.vue'
import { useSetAside } from './use-set-aside.ts'
import NotationField from '../../ui/NotationField.vue'
import VerdictMark from '../../ui/VerdictMark.vue'
import WindowRuler from '../../ui/WindowRuler.vue'
import { useLastBuilt } from '../../wire/queries.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt } from '../../wire/client.ts'
import { useJobWrite } from '../../writing/use-job-write.ts'
import { showDate } from '../../ui/times.ts'
import { useUnits } from '../../ui/units.ts'
import { clockHour, uncheckedText } from '../reading-words.ts'
import { decimalsOf } from '../setting-view.ts'

/** Takes the readings of one measure: gauge, field, what they make together, and which do not count. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  measure: SetMeasure
  gauges: Gauge[]
  writable: boolean
}>()
const emit = defineEmits<{ done: [] }>()

const shop = useShop()
const units = useUnits()
const take = useJobWrite()
const draftOf = (what: string) =>
  `moray.draft.${props.job.id}.${props.build.number}.${props.measure.id}${what}`
const text = useStorage(draftOf(''), '')
// how it is set up stays with the set-up, not with the single reading
const ticked = useStorage<string[]>(draftOf('.ticked'), [])
const how = useStorage<BearingDraft>(draftOf('.how'), {
  ...(props.measure.kind === 'crush' ? { as: 'gap' as const } : {}),
  drag: '',
  runIn: false,
})
const seat = useStorage<SeatDraft>(draftOf('.seat'), { ...EMPTY_SEAT })
const pair = useStorage<RideDraft>(draftOf('.pair'), { as: 'ride-height', points: [] })
const swung = useStorage(draftOf('.swung'), false)
const swingDraft = useStorage<SwingDraft>(draftOf('.swing'), { extreme: 'lowest', samples: [] })
const clock = useStorage<{ deg: number | null }>(draftOf('.clock'), { deg: null })
const turn = ref(0)
const aside = useSetAside(
  () => props.job.id,
  () => turn.value++,
)

const masterDrop = computed(
  () => props.measure.kind === 'depth' && props.measure.how.method === 'master-drop',
)
/** What is read next: a torque, or a length; a bearing without preload shows its play. */
const as = computed(() =>
  props.measure.kind === 'seat'
    ? seat.value.as
    : props.measure.kind === 'pair-depth'
      ? pair.value.as
      : how.value.as,
)
const built = computed(() =>
  props.measure.kind === 'seat' ? props.build.state.stacks[props.measure.by] : undefined,
)
const kind = computed(() => plausibleKind(props.measure, as.value))
const inTorque = computed(() => quantityOf(kind.value) === 'torque')
const show = computed(() => units.of(unitOf(props.measure)))
/** Backlash and the gap of a cover differ from place to place. */
const round = computed(() => props.measure.kind === 'backlash' || props.measure.kind === 'crush')
const canSwing = computed(() => props.measure.kind === 'depth')
const suitable = computed(() =>
  props.gauges.filter((g) => {
    const kind = kindOfGauge(g.kind)
    if (g.retired) return false
    if (inTorque.value) return kind.measures === 'torque' && kind.suits.includes('rolling-torque')
    return masterDrop.value ? kind.masters : kind.unit === 'mm' && !kind.masters
  }),
)
const gaugeKey = computed(() => wayOf(props.measure, as.value))
/** The one used last for this comes first; one that is not made for it is never taken by itself. */
const offered = computed(() => gaugesFor(suitable.value, gaugeKey.value, shop.gauges[gaugeKey.value]))
const gauge = computed(
  () => suitable.value.find((g) => g.id === shop.gauges[gaugeKey.value]) ?? offered.value.suiting[0],
)
const option = (g: Gauge) => ({
  id: g.id,
  label: `${g.name}${g.overdue ? ' · calibration overdue' : ''}`,
})
const gaugeOptions = computed(() =>
  [
    { label: 'Made for this', items: offered.value.suiting.map(option) },
    { label: 'Other', items: offered.value.others.map(option) },
  ].filter((group) => group.items.length),
)
const unsuited = computed(() => offered.value.others.some((g) => g.id === gauge.value?.id))
const unchecked = computed(() => uncheckedText(counting.value))
const master = computed(() => {
  if (props.measure.kind !== 'depth') return undefined
  const { how } = props.measure
  const own = gauge.value?.masters ?? []
  if (how.method === 'master-drop') return nearestMaster(own, how.masterMm)
  if (how.method !== 'arbor') return undefined
  const arbor = nearestMaster(own, how.arborDiameterMm)
  return arbor && Math.abs(arbor.lengthMm - how.arborDiameterMm) <= OTHER_MASTER_MM ? arbor : undefined
})

/** Figures of this measure that the sheet has not yet. */
const wants = computed(() =>
  (props.job.sheet.lacks ?? []).filter((l) => l.startsWith(`measures.${props.measure.id}.`)),
)
const last = useLastBuilt(() => props.job.id)
const leftHere = computed(() => last.lastBuilt?.reads[props.measure.id])
const state = computed(() => props.build.assessment.measures[props.measure.id]!)
const readings = computed(() => props.build.readings.filter((r) => r.measure === props.measure.id))
const counting = computed(() => readings.value.filter((r) => !r.superseded))
const check = computed(() => props.build.check.find((c) => c.measure === props.measure.id))
const decimals = computed(() => decimalsOf(props.measure))

/** Said before measuring: with this gauge the window is never met beyond doubt; and with which of the shop's it would be. */
const tooCoarse = computed(() => {
  const m = props.measure
  if (!gauge.value || how.value.as === 'play') return undefined
  const window = m.kind === 'depth' ? state.value.window : windowOf(m, how.value.runIn)
  const best = canDecide(gauge.value, window, m.readings)
  if (best.decides) return undefined
  const finer = suitable.value.filter((g) => canDecide(g, window, m.readings).decides).map((g) => g.name)
  return { U: best.U, finer }
})

const FIELD: Record<string, string> = {
  'master-drop': 'Drop from the master',
  arbor: 'Reading to the arbor',
  'feeler-block': 'Feeler between block and pinion',
  backlash: 'Indicator at the arm',
  'end-play': 'Indicator, stop to stop',
  crush: 'Feeler between cover and case',
  'rolling-torque': 'Torque while it turns slowly',
  seat: 'Gear with its bearing, shim face to reference face',
  'pair-depth': 'Pinion from the middle, on the plate',
}
const tilt = computed(() =>
  props.measure.kind === 'crush' ? coverTilt(props.build.state.readings[props.measure.id] ?? []) : undefined,
)
/** A nut is turned on, never back. */
const nut = computed(() =>
  state.value.judgement ? nutNext(props.measure, state.value.judgement.mean, state.value.window) : undefined,
)
const NUT = {
  'turn-on': 'Turn the nut on a little, a few degrees at a time, and read again. Never back.',
  'new-sleeve':
    'Past its window: a crushed sleeve does not spring back. Take it apart and fit a new sleeve; the nut is not turned back.',
  'open-again':
    'Past its window: a nut is not turned back to hit a number. Open it and set it again from loose.',
}
const advice = computed(() => {
  const j = state.value.judgement
  if (!j || state.value.missing > 0 || j.verdict !== 'too-close') return ''
  if (j.readingsNeeded === null)
    return 'More readings will not decide it: take a finer gauge, or move nearer the middle of the window.'
  return `${j.readingsNeeded - state.value.count} more readings like these would decide it, or a finer gauge.`
})

/** A likely blunder is asked about before it is taken, with the very rule that the server takes it by. */
function question(mm: number): string | undefined {
  const { kind } = props.measure
  if (!gauge.value || unitOf(props.measure) !== 'mm' || kind === 'seat' || kind === 'pair-depth')
    return undefined
  const value = valueOf(props.measure, mm, master.value?.lengthMm, how.value.as ? { as: how.value.as } : {})
  const doubt = doubtOf(
    value,
    counting.value.map((r) => r.value),
    gauge.value,
    state.value.window,
  )
  return doubt && `${doubtWords(doubt, gauge.value.perTurnMm !== null, (by) => units.both(by, 2))}.`
}
const bareUnit = computed({
  get: () => (inTorque.value ? shop.torqueUnit : shop.unit),
  set: (u: ReadingUnit) => {
    if (isTorqueUnit(u)) shop.torqueUnit = u
    else shop.unit = u
  },
})
const placesRead = computed(() => counting.value.flatMap((r) => (r.clockDeg === null ? [] : [r.clockDeg])))
/** A place that was chosen by hand counts even where it has a reading already; otherwise the next one that has none. */
const byHand = ref(false)
const place = computed({
  get: () => {
    const { deg } = clock.value
    if (deg === null || byHand.value || !placesRead.value.includes(deg)) return deg
    return QUARTERS.find((d) => !placesRead.value.includes(d)) ?? deg
  },
  set: (deg) => {
    clock.value = { deg }
    byHand.value = true
  },
})
const before = computed(() => beforeOf(props.measure, as.value))
/** Everything that says how it was taken. */
const taken = computed(() => {
  const done = before.value.filter((b) => ticked.value.includes(b))
  const left = before.value.filter((b) => !ticked.value.includes(b))
  const torque = props.measure.kind === 'rolling-torque'
  return {
    ...(done.length ? { ticked: done } : {}),
    ...(left.length ? { unticked: left } : {}),
    ...(as.value ? { as: as.value } : {}),
    ...(props.measure.kind === 'seat' ? { seat: seatTexts(seat.value, built.value) } : {}),
    ...(torque && how.value.as === undefined && how.value.drag.trim() ? { drag: how.value.drag } : {}),
    ...(torque && how.value.runIn ? { runIn: true } : {}),
    ...(round.value && place.value !== null ? { clockDeg: place.value } : {}),
  }
})
async function enter(
  e: { text: string; confirmed: boolean },
  swing?: SwingDraft,
  rides?: RideDraft['points'],
) {
  // the panel says so
  if (!gauge.value) return
  const before = state.value.missing
  const body = {
    build: props.build.number,
    measure: props.measure.id,
    text: e.text,
    unit: bareUnit.value,
    ...taken.value,
    ...(swing ? { extreme: swing.extreme, swing: swing.samples.map((s, at) => ({ at, text: s })) } : {}),
    ...(rides ? { rides } : {}),
    gaugeId: gauge.value.id,
    ...(master.value ? { masterId: master.value.id } : {}),
    ...(e.confirmed ? { confirmed: true } : {}),
  }
  const reply = await take.send(endpoints.takeReading, { id: props.job.id }, body)
  if (!reply) return
  // only what was sent: somebody may have gone on typing meanwhile
  if (swing)
    swingDraft.value = {
      ...swingDraft.value,
      samples: swingDraft.value.samples.slice(swing.samples.length),
    }
  else if (rides) pair.value = { ...pair.value, points: pair.value.points.slice(rides.length) }
  else if (text.value === e.text) text.value = ''
  turn.value++
  byHand.value = false
  if (before === 1) emit('done')
}
</script>

<template>
  <h2>{{ measure.label }}</h2>
  <p v-if="measure.kind === 'backlash'" class="lead">
    {{ measure.hold }} Rock the {{ measure.member === 'pinion' ? 'driving shaft' : 'driven shaft'
    }}<template v-if="!wants.includes(`measures.${measure.id}.radiusMm`)"
      >, indicator at <span class="mono">{{ units.both(measure.radiusMm, 0) }}</span> radius</template
    >.
  </p>
  <MissingFigures v-if="writable && wants.length" :job="job" :paths="wants" />
  <template v-if="writable && isReadable(job.sheet, measure)">
    <BeforeIt v-if="before.length" v-model="ticked" :before="before" />
    <label class="gauge">
      <span class="small soft">With</span>
      <Select
        :model-value="gauge?.id"
        :options="gaugeOptions"
        option-label="label"
        option-value="id"
        option-group-label="label"
        option-group-children="items"
        placeholder="Choose a gauge"
        aria-label="Gauge"
        fluid
        @update:model-value="(id: string) => (shop.gauges[gaugeKey] = id)"
      />
    </label>
    <NoGauge v-if="!suitable.length" />
    <p v-if="unsuited" class="caution">
      {{ gauge!.name }} is not made for this. Its own uncertainty counts, and the record says so.
    </p>
    <p v-if="gauge?.overdue && gauge.dueOn" class="caution">
      Calibration of {{ gauge.name }} ran out on {{ showDate(gauge.dueOn) }}; its readings are marked.
    </p>
    <p v-if="masterDrop && gauge && !master" class="caution">{{ gauge.name }} has no setting master.</p>
    <p v-else-if="master" class="small soft">
      {{ master.label }}, measured <span class="mono">{{ units.both(master.lengthMm, 3) }}</span>
    </p>
    <p v-if="tooCoarse" class="caution">
      {{ gauge!.name }} leaves ± {{ show.say(tooCoarse.U, 3) }} at best: too coarse to tell that this window
      is met.
      {{
        tooCoarse.finer.length ? `${tooCoarse.finer.join(', ')} would.` : "None of the shop's gauges would."
      }}
    </p>
    <BearingHow v-if="isBearingMeasure(measure)" v-model="how" :measure="measure" :unit="shop.torqueUnit" />
    <SeatHow v-if="measure.kind === 'seat'" v-model="seat" :unit="shop.unit" :built-mm="built" />
    <ClockPlaces
      v-if="round"
      v-model="place"
      :taken="placesRead"
      :legend="
        measure.kind === 'backlash'
          ? 'Which place of the gear is in mesh, as on a clock'
          : 'Where round the cover, as on a clock'
      "
    />
    <OneOf
      v-if="measure.kind === 'pair-depth'"
      v-model="pair.as"
      legend="Found by"
      :options="[
        { value: 'ride-height' as const, label: 'ride-height search' },
        { value: 'loose-pair' as const, label: 'loose pair on a plate' },
      ]"
    />
    <label v-if="canSwing" class="swung small">
      <input v-model="swung" type="checkbox" /> Swung over it: the turning point counts, not the mean
    </label>
    <SwingField
      v-if="canSwing && swung"
      v-model="swingDraft"
      v-model:unit="shop.unit"
      :kind="kind"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="take.busy.value"
      :error="problemAt(take.error.value, 'swing') ?? take.error.value?.message"
      @take="(s: SwingDraft) => enter({ text: s.samples[0]!, confirmed: false }, s)"
    />
    <RideSearch
      v-else-if="measure.kind === 'pair-depth' && pair.as === 'ride-height'"
      v-model="pair"
      v-model:unit="shop.unit"
      :measure="measure"
      :busy="take.busy.value"
      :error="problemAt(take.error.value, 'rides') ?? take.error.value?.message"
      @take="(p: RideDraft) => enter({ text: p.points[0]!.ride, confirmed: true }, undefined, p.points)"
    />
    <NotationField
      v-else
      v-model="text"
      v-model:unit="bareUnit"
      class="notation"
      :label="`${measure.kind === 'seat' && as === 'float' ? 'Float' : FIELD[gaugeKey]}, reading ${counting.length + 1}${state.missing ? ` of ${measure.readings}` : ''}`"
      :kind="kind"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="take.busy.value"
      :focus-on="`${measure.id}${turn}`"
      :hint="
        inTorque
          ? undefined
          : gauge?.perTurnMm
            ? '37h · 19t · 0,37 mm · 2r 35h (turns and pointer)'
            : '37h · 19t · .014in · 0,37 mm'
      "
      :error="
        problemAt(take.error.value, 'text') ??
        take.error.value?.fields[0]?.message ??
        take.error.value?.message
      "
      :question="question"
      @enter="enter"
      @blank="emit('done')"
    />
  </template>
  <p v-if="build.number === 0 && leftHere !== undefined" class="small">
    Left here on {{ showDate(last.lastBuilt!.at) }} ({{ last.lastBuilt!.number }}) with
    <span class="mono">{{ show.both(leftHere, decimals) }}</span>.
  </p>
  <div v-if="state.judgement" class="result">
    <p class="value">
      <span class="live">{{ show.digits(state.judgement.mean, decimals) }}</span>
      <span class="mono">
        ± {{ show.say(state.judgement.U, 3) }} · {{ show.other(state.judgement.mean, decimals) }}</span
      >
    </p>
    <p v-if="measure.kind === 'seat' && built !== undefined" class="small">
      Asks for <strong class="mono">{{ units.both(built + state.judgement.mean, 3) }}</strong>; built in are
      <span class="mono">{{ units.both(built, 3) }}</span>.
    </p>
    <VerdictMark :verdict="state.judgement.verdict" />
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
      v-if="state.judgement.verdict !== 'no-window'"
      :label="measure.label"
      :window="state.window"
      :unit="unitOf(measure)"
      :target="state.window === measure.window ? measure.target : undefined"
      :decimals="decimals"
      :reading="{ value: state.judgement.mean, U: state.judgement.U, verdict: state.judgement.verdict }"
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
  <ReadingList
    :label="measure.label"
    :readings="readings"
    :unit="unitOf(measure)"
    :writable="writable"
    :busy="aside.busy.value"
    :error="aside.error.value?.message"
    @set-aside="aside.setAside"
  />
</template>

<style scoped>
h2 {
  margin-bottom: 0.3rem;
}
.swung {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.gauge {
  display: grid;
  gap: 0.1rem;
}
.notation {
  margin-top: 0.7rem;
}
.result {
  margin-top: 0.8rem;
  border-top: 1px solid var(--line);
  padding-top: 0.6rem;
}
.caution {
  margin: 0.4rem 0;
}
</style>
