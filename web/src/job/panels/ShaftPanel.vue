<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import type { TakeReading } from '@moray/contract/requests/reading'
import type { ReadingEntry } from '@moray/core/job/record'
import { offeredGauges } from '@moray/core/reading/gauges'
import { RUNOUT_PLACES, shaftsOf, type RunoutMeasure } from '@moray/core/setting/shaft-stations'
import { useStorage } from '@vueuse/core'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import OneOf from '../../ui/OneOf.vue'
import NotationField from '../../ui/NotationField.vue'
import { understand } from '../../ui/understand.ts'
import { useUnits } from '../../ui/units.ts'
import { useShop } from '../../stores/shop.ts'
import { problemAt } from '../../wire/client.ts'
import type { Answered, WriteState } from '../../writing/for-panels.ts'
import type { ShownBuild, ShownJob } from '../shown-job.ts'
import NoGauge from './reading/NoGauge.vue'
import BeforeIt from './reading/BeforeIt.vue'
import ReadingList from './reading/ReadingList.vue'

/** Reads one station of a shaft round the clock: eight places from a mark, each moves on to the next. */
const props = defineProps<{
  job: ShownJob
  build: ShownBuild
  station: RunoutMeasure
  gauges: Gauge[]
  writable: boolean
  taking: WriteState
  aside: WriteState
}>()
const emit = defineEmits<{
  take: [reading: TakeReading, answered: Answered]
  setAside: [reading: number, reason: string, answered: Answered]
  go: [id: string]
}>()

const shop = useShop()
const units = useUnits()
const KIND = 'round-a-shaft'
const draft = `moray.draft.${props.job.id}.${props.build.number}.${props.station.id}`
const text = useStorage(draft, '')
/** Set up once for a shaft, not once for a station. */
const ticked = useStorage<string[]>(`moray.draft.${props.job.id}.runout.${props.station.axis}.ticked`, [])
const along = useStorage(`${draft}.along`, '')
const turn = ref(0)
const setAside = ({ id }: ReadingEntry, reason: string) =>
  emit('setAside', id, reason, (done) => done && turn.value++)
const shaft = computed(() =>
  shaftsOf(props.job.sheet, props.build.state).find((s) => s.axis === props.station.axis)!,
)
const here = computed(() => shaft.value.stations.find((s) => s.measure.id === props.station.id)!)
const offered = computed(() => offeredGauges(props.station, undefined, props.gauges, shop.gauges[KIND]))
const suitable = computed(() => [...offered.value.suiting, ...offered.value.others])
const gauge = computed(() => offered.value.taken)
const nextPlace = computed(() => RUNOUT_PLACES.find((p) => here.value.read[p] === undefined))
const chosen = ref<number | null>(null)
const place = computed(() => chosen.value ?? nextPlace.value ?? 0)
const alongMm = computed(() => {
  const said = understand(along.value, shop.unit, 'depth')
  return said.state === 'value' || said.state === 'doubtful' ? said.value : undefined
})
function enter(e: { text: string; confirmed: boolean }) {
  // the panel says so
  if (!gauge.value) return
  const { before } = props.station
  emit(
    'take',
    {
      build: props.build.number,
      measure: props.station.id,
      text: e.text,
      unit: shop.unit,
      gaugeId: gauge.value.id,
      clockDeg: place.value,
      ticked: before.filter((b) => ticked.value.includes(b)),
      unticked: before.filter((b) => !ticked.value.includes(b)),
      ...(alongMm.value === undefined || props.station.gear ? {} : { alongMm: alongMm.value }),
      ...(e.confirmed ? { confirmed: true } : {}),
    },
    (done) => {
      if (!done) return
      // somebody may have gone on typing meanwhile
      if (text.value === e.text) text.value = ''
      chosen.value = null
      turn.value++
    },
  )
}
const eighth = (deg: number) => `${deg / 45 + 1}`
const stations = computed(() =>
  shaft.value.stations.map((s) => ({
    value: s.measure.id,
    label: s.measure.zone.toLowerCase(),
    done: s.result !== undefined,
  })),
)
const places = computed(() =>
  RUNOUT_PLACES.map((p): { value: number; label: string; done: boolean } => ({
    value: p,
    label: eighth(p),
    done: here.value.read[p] !== undefined,
  })),
)
</script>

<template>
  <h2>{{ station.label }}</h2>
  <OneOf
    legend="Station"
    :options="stations"
    :model-value="station.id"
    @update:model-value="(id) => emit('go', id)"
  />
  <template v-if="writable">
    <BeforeIt v-model="ticked" :before="station.before" />
    <Select
      :model-value="gauge?.id"
      :options="suitable.map((g) => ({ id: g.id, label: g.name }))"
      option-label="label"
      option-value="id"
      aria-label="Gauge"
      fluid
      @update:model-value="(id: string) => (shop.gauges[KIND] = id)"
    />
    <NoGauge v-if="!gauge" />
    <OneOf
      class="places"
      legend="Eighth of a turn from the mark, in the way it is turned"
      :options="places"
      :model-value="place"
      @update:model-value="(p) => (chosen = p)"
    />
    <NotationField
      v-model="text"
      v-model:unit="shop.unit"
      :label="`Indicator at ${eighth(place)} of 8`"
      :kind="KIND"
      :dial-per-turn-mm="gauge?.perTurnMm"
      :busy="taking.busy"
      :focus-on="turn"
      hint="3h · -1h · 0,02 mm; zero at the mark"
      :error="problemAt(taking.error, 'text') ?? taking.error?.message"
      @enter="enter"
    />
    <label v-if="!station.gear" class="along">
      <span class="small soft">How far along the shaft, for its shape (not needed)</span>
      <input
        v-model="along"
        class="plain-field"
        type="text"
        autocomplete="off"
        placeholder="from its forward end"
      />
      <span v-if="alongMm !== undefined" class="small mono">{{ units.both(alongMm, 0) }}</span>
    </label>
  </template>
  <ReadingList
    :label="station.label"
    :readings="build.readings.filter((r) => r.measure === station.id)"
    unit="mm"
    :writable="writable"
    :busy="aside.busy"
    :error="aside.error?.message"
    @set-aside="setAside"
  />
</template>

<style scoped>
h2 {
  margin-bottom: 0.4rem;
}
.places {
  margin: 0.5rem 0;
}
.places :deep(label) {
  padding: 0 0.45rem;
}
.along {
  display: grid;
  gap: 0.1rem;
  margin-top: 0.6rem;
}
</style>
