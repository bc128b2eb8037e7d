<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import type { TakeReading } from '@moray/contract/requests/reading'
import { isTorqueUnit, type ReadingUnit } from '@moray/contract/requests/reading-units'
import type { AddFigure } from '@moray/contract/requests/sheets'
import type { ReadingEntry } from '@moray/core/job/record'
import { masterFor, offeredGauges } from '@moray/core/reading/gauges'
import { figureKind, valueOf } from '@moray/core/reading/kinds'
import { questionOf } from '@moray/core/reading/take'
import { isReadable } from '@moray/core/setting/assess'
import { wayOf } from '@moray/core/setting/measured'
import { isBearingMeasure, unitOf, windowOf, type SetMeasure } from '@moray/core/setting/measures'
import { quantityOf } from '@moray/core/units/plausible'
import { computed, ref } from 'vue'
import NotationField from '../../ui/NotationField.vue'
import OneOf from '../../ui/OneOf.vue'
import { showDate } from '../../ui/times.ts'
import { useUnits } from '../../ui/units.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt } from '../../wire/client.ts'
import { useLastBuilt } from '../../wire/queries.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import { decimalsOf } from '../setting-view.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import MissingFigures from './MissingFigures.vue'
import BearingHow from './reading/BearingHow.vue'
import BeforeIt from './reading/BeforeIt.vue'
import ClockPlaces from './reading/ClockPlaces.vue'
import GaugeChoice from './reading/GaugeChoice.vue'
import ReadingList from './reading/ReadingList.vue'
import ReadingResult from './reading/ReadingResult.vue'
import RideSearch from './reading/RideSearch.vue'
import SeatHow from './reading/SeatHow.vue'
import SwingField from './reading/SwingField.vue'
import type { RideDraft, SwingDraft } from './reading/drafts.ts'
import { useReadingDraft } from './reading/use-reading-draft.ts'

/** Takes the readings of one measure: gauge, field, what they make together, and which do not count. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  measure: SetMeasure
  gauges: Gauge[]
  writable: boolean
  taking: WriteState
  aside: WriteState
  figures: WriteState
}>()
const emit = defineEmits<{
  take: [reading: TakeReading, answered: Answered]
  setAside: [reading: number, reason: string, answered: Answered]
  figure: [figure: AddFigure, answered: Answered]
  /** Every reading that is asked for is in. */
  done: []
}>()

const shop = useShop()
const units = useUnits()
const draft = useReadingDraft(props)
const { text, ticked, bearing, seat, pair, swung, swing, place, as, built, counting } = draft
/** Counts what was answered: the field takes the focus again after each. */
const turn = ref(0)
const next = (done: boolean) => done && turn.value++
const setAside = ({ id }: ReadingEntry, reason: string) => emit('setAside', id, reason, next)

const show = computed(() => units.of(unitOf(props.measure)))
const kind = computed(() => figureKind(props.measure, as.value))
const inTorque = computed(() => quantityOf(kind.value) === 'torque')
const canSwing = computed(() => props.measure.kind === 'depth')
const way = computed(() => wayOf(props.measure, as.value))
const offered = computed(() => offeredGauges(props.measure, as.value, props.gauges, shop.gauges[way.value]))
const gauge = computed(() => offered.value.taken)
const master = computed(() => gauge.value && masterFor(props.measure, gauge.value))
const state = computed(() => props.build.assessment.measures[props.measure.id]!)
const readings = computed(() => props.build.readings.filter((r) => r.measure === props.measure.id))
/** What a gauge is held against; a play is no torque yet. */
const window = computed(() => {
  if (as.value === 'play') return undefined
  return props.measure.kind === 'depth' ? state.value.window : windowOf(props.measure, bearing.value.runIn)
})
/** Figures of this measure that the sheet has not yet. */
const wants = computed(() =>
  (props.job.sheet.lacks ?? []).filter((l) => l.startsWith(`measures.${props.measure.id}.`)),
)
const last = useLastBuilt(() => props.job.id)
const leftHere = computed(() => last.lastBuilt?.reads[props.measure.id])

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
const fieldLabel = computed(() => {
  const what = props.measure.kind === 'seat' && as.value === 'float' ? 'Float' : FIELD[way.value]
  const of = state.value.missing ? ` of ${props.measure.readings}` : ''
  return `${what}, reading ${counting.value.length + 1}${of}`
})
const hint = computed(() => {
  if (inTorque.value) return undefined
  return gauge.value?.perTurnMm
    ? '37h · 19t · 0,37 mm · 2r 35h (turns and pointer)'
    : '37h · 19t · .014in · 0,37 mm'
})
const problem = (at: string) => problemAt(props.taking.error, at) ?? props.taking.error?.message

/** A likely blunder is asked about before it is taken, with the very rule that the server takes it by. */
function question(raw: number): string | undefined {
  // a seat is worked out, and is not asked about
  if (!gauge.value || unitOf(props.measure) !== 'mm' || props.measure.kind === 'seat') return undefined
  const value = valueOf(props.measure, raw, master.value?.lengthMm, as.value ? { as: as.value } : {})
  const stands = { window: state.value.window, counted: counting.value.map((r) => r.value) }
  const asked = questionOf(props.measure, value, gauge.value, stands, (by) => units.both(by, 2))
  return asked && `${asked}.`
}
const bareUnit = computed({
  get: () => (inTorque.value ? shop.torqueUnit : shop.unit),
  set: (u: ReadingUnit) => {
    if (isTorqueUnit(u)) shop.torqueUnit = u
    else shop.unit = u
  },
})
function enter(sent: { text: string; confirmed: boolean; swing?: SwingDraft; rides?: RideDraft['points'] }) {
  // the panel says so
  if (!gauge.value) return
  const missing = state.value.missing
  const reading: TakeReading = {
    build: props.build.number,
    measure: props.measure.id,
    text: sent.text,
    unit: bareUnit.value,
    ...draft.taken.value,
    ...(sent.swing
      ? { extreme: sent.swing.extreme, swing: sent.swing.samples.map((s, at) => ({ at, text: s })) }
      : {}),
    ...(sent.rides ? { rides: sent.rides } : {}),
    gaugeId: gauge.value.id,
    ...(master.value ? { masterId: master.value.id } : {}),
    ...(sent.confirmed ? { confirmed: true } : {}),
  }
  emit('take', reading, (done) => {
    if (!done) return
    draft.clear(sent)
    turn.value++
    if (missing === 1) emit('done')
  })
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
  <MissingFigures
    v-if="writable && wants.length"
    :job="job"
    :paths="wants"
    :write="figures"
    @figure="(f, answered) => emit('figure', f, answered)"
  />
  <template v-if="writable && isReadable(job.sheet, measure)">
    <BeforeIt v-if="draft.before.value.length" v-model="ticked" :before="draft.before.value" />
    <GaugeChoice
      :measure="measure"
      :offered="offered"
      :window="window"
      @choose="(id) => (shop.gauges[way] = id)"
    />
    <BearingHow
      v-if="isBearingMeasure(measure)"
      v-model="bearing"
      :measure="measure"
      :unit="shop.torqueUnit"
    />
    <SeatHow v-if="measure.kind === 'seat'" v-model="seat" :unit="shop.unit" :built-mm="built" />
    <ClockPlaces
      v-if="draft.round.value"
      v-model="place"
      :taken="draft.placesRead.value"
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
      v-model="swing"
      v-model:unit="shop.unit"
      :kind="kind"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="taking.busy"
      :error="problem('swing')"
      @take="(s: SwingDraft) => enter({ text: s.samples[0]!, confirmed: false, swing: s })"
    />
    <RideSearch
      v-else-if="measure.kind === 'pair-depth' && pair.as === 'ride-height'"
      v-model="pair"
      v-model:unit="shop.unit"
      :measure="measure"
      :busy="taking.busy"
      :error="problem('rides')"
      @take="(p: RideDraft) => enter({ text: p.points[0]!.ride, confirmed: true, rides: p.points })"
    />
    <NotationField
      v-else
      v-model="text"
      v-model:unit="bareUnit"
      class="notation"
      :label="fieldLabel"
      :kind="kind"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="taking.busy"
      :focus-on="`${measure.id}${turn}`"
      :hint="hint"
      :error="problemAt(taking.error, 'text') ?? taking.error?.fields[0]?.message ?? taking.error?.message"
      :question="question"
      @enter="enter"
      @blank="emit('done')"
    />
  </template>
  <p v-if="build.number === 0 && leftHere !== undefined" class="small">
    Left here on {{ showDate(last.lastBuilt!.at) }} ({{ last.lastBuilt!.number }}) with
    <span class="mono">{{ show.both(leftHere, decimalsOf(measure)) }}</span>.
  </p>
  <ReadingResult v-if="state.judgement" :job="job" :build="build" :measure="measure" :built="built" />
  <ReadingList
    :label="measure.label"
    :readings="readings"
    :unit="unitOf(measure)"
    :writable="writable"
    :busy="aside.busy"
    :error="aside.error?.message"
    @set-aside="setAside"
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
.notation {
  margin-top: 0.7rem;
}
</style>
