<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import type { ReadingEntry } from '@moray/core/job/record'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import { endpoints } from '@moray/contract/endpoints'
import type { Measure } from '@moray/core/drives/sheet'
import { doubtOf, doubtWords } from '@moray/core/measuring/doubt'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import { nearestMaster, OTHER_MASTER_MM } from '@moray/core/measuring/setting-master'
import { isReadable, plausibleKind, valueOf } from '@moray/core/setting/assess'
import { useStorage } from '@vueuse/core'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import MissingFigures from './MissingFigures.vue'
import NotationField from '../../ui/NotationField.vue'
import ReasonDialog from '../../ui/ReasonDialog.vue'
import VerdictMark from '../../ui/VerdictMark.vue'
import WindowRuler from '../../ui/WindowRuler.vue'
import { useShop } from '../../stores/shop.ts'
import { problemAt } from '../../wire/client.ts'
import { useJobWrite } from '../../wire/use-job-write.ts'
import { showDate } from '../../ui/times.ts'
import { useUnits } from '../../ui/units.ts'
import { decimalsOf } from '../setting-view.ts'

/** Takes the readings of one measure: gauge, field, what they make together, and which do not count. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  measure: Measure
  gauges: Gauge[]
  writable: boolean
}>()
const emit = defineEmits<{ done: [] }>()

const shop = useShop()
const units = useUnits()
const take = useJobWrite()
const setAside = useJobWrite()
const text = useStorage(`moray.draft.${props.job.id}.${props.build.number}.${props.measure.id}`, '')
const turn = ref(0)

const masterDrop = computed(
  () => props.measure.kind === 'depth' && props.measure.how.method === 'master-drop',
)
const suitable = computed(() =>
  props.gauges.filter((g) => {
    const kind = kindOfGauge(g.kind)
    return !g.retired && (masterDrop.value ? kind.masters : kind.unit === 'mm' && !kind.masters)
  }),
)
const gaugeKey = computed(() =>
  props.measure.kind === 'depth' ? props.measure.how.method : props.measure.kind,
)
const gauge = computed(
  () =>
    suitable.value.find((g) => g.id === shop.gauges[gaugeKey.value]) ??
    suitable.value.find((g) => kindOfGauge(g.kind).suits.includes(gaugeKey.value)) ??
    suitable.value[0],
)
const gaugeOptions = computed(() =>
  suitable.value.map((g) => ({ id: g.id, label: `${g.name}${g.overdue ? ' · calibration overdue' : ''}` })),
)
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
const state = computed(() => props.build.assessment.measures[props.measure.id]!)
const readings = computed(() => props.build.readings.filter((r) => r.measure === props.measure.id))
const counting = computed(() => readings.value.filter((r) => !r.superseded))
const check = computed(() => props.build.check.find((c) => c.measure === props.measure.id))
const decimals = computed(() => decimalsOf(props.measure))

const FIELD: Record<string, string> = {
  'master-drop': 'Drop from the master',
  arbor: 'Reading to the arbor',
  'feeler-block': 'Feeler between block and pinion',
  backlash: 'Indicator at the arm',
  'end-play': 'Indicator, stop to stop',
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
  if (!gauge.value) return undefined
  const value = valueOf(props.measure, mm, master.value?.lengthMm)
  const doubt = doubtOf(
    value,
    counting.value.map((r) => r.valueMm),
    gauge.value,
    props.measure.window,
  )
  return doubt && `${doubtWords(doubt)}.`
}
async function enter(e: { text: string; confirmed: boolean }) {
  if (!gauge.value) return
  const before = state.value.missing
  const body = {
    build: props.build.number,
    measure: props.measure.id,
    text: e.text,
    unit: shop.unit,
    gaugeId: gauge.value.id,
    ...(master.value ? { masterId: master.value.id } : {}),
    ...(e.confirmed ? { confirmed: true } : {}),
  }
  const reply = await take.send(endpoints.takeReading, { id: props.job.id }, body)
  if (!reply) return
  text.value = ''
  turn.value++
  if (before === 1) emit('done')
}

const leaving = ref<ReadingEntry | null>(null)
const asking = computed({ get: () => leaving.value !== null, set: (open) => !open && (leaving.value = null) })
async function drop(reason: string) {
  const reply = await setAside.send(
    endpoints.supersedeReading,
    { id: props.job.id, reading: leaving.value!.id },
    { reason },
  )
  if (!reply) return
  leaving.value = null
  // the hand goes on measuring: back to the field
  turn.value++
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
  <ul class="before" aria-label="Before it counts">
    <li v-for="b in measure.before" :key="b">{{ b }}</li>
  </ul>
  <MissingFigures v-if="writable && wants.length" :key="wants.join()" :job="job" :paths="wants" />
  <template v-if="writable && isReadable(job.sheet, measure)">
    <label class="gauge">
      <span class="small soft">With</span>
      <Select
        :model-value="gauge?.id"
        :options="gaugeOptions"
        option-label="label"
        option-value="id"
        aria-label="Gauge"
        fluid
        @update:model-value="(id: string) => (shop.gauges[gaugeKey] = id)"
      />
    </label>
    <p v-if="gauge?.overdue" class="caution">
      Calibration of {{ gauge.name }} ran out on {{ showDate(gauge.dueOn) }}; its readings are marked.
    </p>
    <p v-if="masterDrop && gauge && !master" class="caution">{{ gauge.name }} has no setting master.</p>
    <p v-else-if="master" class="small soft">
      {{ master.label }}, measured <span class="mono">{{ units.both(master.lengthMm, 3) }}</span>
    </p>
    <NotationField
      v-model="text"
      v-model:unit="shop.unit"
      class="notation"
      :label="`${FIELD[gaugeKey]}, reading ${counting.length + 1}${state.missing ? ` of ${measure.readings}` : ''}`"
      :kind="plausibleKind(measure)"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="take.busy.value"
      :focus-on="`${measure.id}${turn}`"
      :hint="
        gauge?.perTurnMm ? '37h · 19t · 0,37 mm · 2r 35h (turns and pointer)' : '37h · 19t · .014in · 0,37 mm'
      "
      :error="problemAt(take.error.value, 'text') ?? take.error.value?.message"
      :question="question"
      @enter="enter"
      @blank="emit('done')"
    />
  </template>
  <div v-if="state.judgement" class="result">
    <p class="value">
      <span class="live">{{ units.digits(state.judgement.mean, decimals) }}</span>
      <span class="mono">
        ± {{ units.length(state.judgement.U, 3) }} · {{ units.other(state.judgement.mean, decimals) }}</span
      >
    </p>
    <VerdictMark :verdict="state.judgement.verdict" />
    <WindowRuler
      v-if="state.judgement.verdict !== 'no-window'"
      :label="measure.label"
      :window="measure.window"
      :target="measure.target"
      :decimals="decimals"
      :reading="{ value: state.judgement.mean, U: state.judgement.U, verdict: state.judgement.verdict }"
      :prediction="build.plan?.predicted[measure.id]"
      :dots="counting.map((r) => r.valueMm)"
    />
    <p class="small soft mono">
      {{ state.count }} {{ state.count === 1 ? 'reading' : 'readings'
      }}<template v-if="state.count > 1"
        >, {{ units.length(state.range, 3) }} between smallest and largest</template
      >
    </p>
    <p v-if="advice" class="caution">{{ advice }}</p>
    <p v-if="state.outlier >= 0" class="caution">
      Reading {{ state.outlier + 1 }} stands apart from the others. Look at the stand and the turn counter,
      then take one more.
    </p>
    <p v-if="check" class="small" :class="{ fault: check.disagrees }">
      Promised
      <span class="mono"
        >{{ units.digits(check.predicted, 3) }} ± {{ units.digits(check.predictedU, 3) }}</span
      >, off by <span class="mono">{{ units.length(check.off, 3) }}</span>.
      <template v-if="check.disagrees">
        That is more than shims explain: a reading in another unit, a stack miscounted, a shim stuck to the
        gear, or a part not seated.
      </template>
    </p>
  </div>
  <ol v-if="readings.length" class="readings" aria-label="Readings">
    <li v-for="r in readings" :key="r.id" :class="{ gone: r.superseded }">
      <span>
        <span class="mono">{{ units.both(r.valueMm, 3) }}</span>
        <span class="small soft">
          {{ r.text }} · {{ r.gaugeName }}<template v-if="r.gaugeOverdue"> (overdue)</template> ·
          {{ r.by }}</span
        >
        <span v-if="r.superseded" class="small"
          ><VerdictMark verdict="superseded" /> {{ r.superseded.reason }}</span
        >
      </span>
      <button v-if="writable && !r.superseded" type="button" class="texty small" @click="leaving = r">
        set aside
      </button>
    </li>
  </ol>
  <ReasonDialog
    v-model:open="asking"
    title="Set a reading aside"
    :explain="
      leaving
        ? `${measure.label}: ${units.both(leaving.valueMm, 3)}. It stays in the record, with your reason, and no longer counts.`
        : ''
    "
    action="Set aside"
    :busy="setAside.busy.value"
    :error="setAside.error.value?.message"
    @give="drop"
  />
</template>

<style scoped>
h2 {
  margin-bottom: 0.3rem;
}
.before {
  margin: 0.3rem 0 0.7rem;
  font-size: var(--t-small);
}
.before li {
  padding-left: 1.1rem;
  position: relative;
}
.before li::before {
  content: '';
  position: absolute;
  left: 0.1rem;
  top: 0.62em;
  width: 0.6rem;
  border-top: 2px solid var(--ink);
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
.readings {
  margin-top: 0.6rem;
  border-top: 1px solid var(--line);
}
.readings li {
  display: flex;
  justify-content: space-between;
  gap: 0.5rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  min-height: 44px;
}
.readings li > span {
  display: grid;
}
.gone .mono {
  text-decoration: line-through;
}
.caution {
  margin: 0.4rem 0;
}
</style>
