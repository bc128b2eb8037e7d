<script setup lang="ts">
import type { Gauge } from '@moray/contract/replies'
import { canDecide } from '@moray/core/measuring/can-decide'
import { masterFor, type offeredGauges } from '@moray/core/reading/gauges'
import { unitOf, type SetMeasure } from '@moray/core/setting/measures'
import type { Window } from '@moray/core/checks/window'
import Select from 'primevue/select'
import { computed } from 'vue'
import { showDate } from '../../../ui/times.ts'
import { useUnits } from '../../../ui/units.ts'
import NoGauge from './NoGauge.vue'

/** The gauge that is read with: what it can do, and what its readings will be worth, said before the first of them. */
const props = defineProps<{
  measure: SetMeasure
  offered: ReturnType<typeof offeredGauges<Gauge>>
  /** What the readings are held against; undefined where they mean something else, as a play does. */
  window: Window | undefined
}>()
const emit = defineEmits<{ choose: [id: string] }>()

const units = useUnits()
const gauge = computed(() => props.offered.taken)
const option = (g: Gauge) => ({
  id: g.id,
  label: `${g.name}${g.overdue ? ' · calibration overdue' : ''}`,
})
const options = computed(() =>
  [
    { label: 'Made for this', items: props.offered.suiting.map(option) },
    { label: 'Other', items: props.offered.others.map(option) },
  ].filter((group) => group.items.length),
)
const unsuited = computed(() => props.offered.others.some((g) => g.id === gauge.value?.id))
const masterDrop = computed(
  () => props.measure.kind === 'depth' && props.measure.how.method === 'master-drop',
)
const master = computed(() => gauge.value && masterFor(props.measure, gauge.value))
/** With this gauge the window is never met beyond doubt; and with which of the shop's it would be. */
const tooCoarse = computed(() => {
  const { window, measure, offered } = props
  if (!gauge.value || !window) return undefined
  const best = canDecide(gauge.value, window, measure.readings)
  if (best.decides) return undefined
  const decides = (g: Gauge) => canDecide(g, window, measure.readings).decides
  return { U: best.U, finer: [...offered.suiting, ...offered.others].filter(decides).map((g) => g.name) }
})
</script>

<template>
  <label class="gauge">
    <span class="small soft">With</span>
    <Select
      :model-value="gauge?.id"
      :options="options"
      option-label="label"
      option-value="id"
      option-group-label="label"
      option-group-children="items"
      placeholder="Choose a gauge"
      aria-label="Gauge"
      fluid
      @update:model-value="(id: string) => emit('choose', id)"
    />
  </label>
  <NoGauge v-if="!options.length" />
  <p v-if="unsuited" class="caution">
    {{ gauge!.name }} is not made for this. Its own uncertainty counts, and the record says so.
  </p>
  <p v-if="gauge?.overdue && gauge.dueOn" class="caution">
    Calibration of {{ gauge.name }} ran out on {{ showDate(gauge.dueOn) }}; its readings are marked.
  </p>
  <p v-if="masterDrop && gauge && !master" class="caution">
    {{ gauge.name }} has no setting master of that length.
  </p>
  <p v-else-if="master" class="small soft">
    {{ master.label }}, measured <span class="mono">{{ units.both(master.lengthMm, 3) }}</span>
  </p>
  <p v-if="tooCoarse" class="caution">
    {{ gauge!.name }} leaves ± {{ units.of(unitOf(measure)).say(tooCoarse.U, 3) }} at best: too coarse to tell
    that this window is met.
    {{ tooCoarse.finer.length ? `${tooCoarse.finer.join(', ')} would.` : "None of the shop's gauges would." }}
  </p>
</template>

<style scoped>
.gauge {
  display: grid;
  gap: 0.1rem;
}
.caution {
  margin: 0.4rem 0;
}
</style>
