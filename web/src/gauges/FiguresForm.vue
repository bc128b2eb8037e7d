<script setup lang="ts">
import { kindOfGauge, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import { computed } from 'vue'
import type { FigureField, Length, LengthList as ListName, TypedFigures } from './gauge-form.ts'
import LengthList from './LengthList.vue'

/** The figures of a gauge, typed in bench notation. Says what it is told, sends nothing. */
const props = defineProps<{
  kind: GaugeKindId
  /** By field: what is wrong with it. */
  wrong: Record<string, string>
}>()
const typed = defineModel<TypedFigures>({ required: true })
const kind = computed(() => kindOfGauge(props.kind))
const FIELDS: [FigureField, string][] = [
  ['resolution', 'Smallest step it shows'],
  ['mpe', 'Permissible error, ±'],
  ['repeatability', 'Scatter when repeated'],
  ['perTurnMm', 'Travel for one turn of the pointer'],
  ['fromNm', 'Range from'],
  ['toNm', 'Range to'],
  ['wrenchMm', 'Length, from its drive to the middle of the grip'],
  ['intervalMonths', 'Months between calibrations'],
]
const OF_WRENCH: readonly FigureField[] = ['fromNm', 'toNm', 'wrenchMm']
const wrench = computed(() => kind.value.measures === 'torque')
const fields = computed(() =>
  FIELDS.filter(([f]) => (f !== 'perTurnMm' || kind.value.dial) && (wrench.value || !OF_WRENCH.includes(f))),
)
const set = (field: FigureField, text: string) => (typed.value = { ...typed.value, [field]: text })
const setList = (list: ListName, rows: Length[]) => (typed.value = { ...typed.value, [list]: rows })
const textOf = (e: Event) => (e.target as HTMLInputElement).value
</script>

<template>
  <label v-for="[field, label] in fields" :key="field">
    {{ label }}{{ kind.quantity === 'temperature' && field !== 'intervalMonths' ? `, ${kind.unit}` : '' }}
    <input :value="typed[field]" maxlength="40" autocomplete="off" @input="set(field, textOf($event))" />
    <span v-if="wrong[field]" class="bad" role="alert">{{ wrong[field] }}</span>
  </label>
  <LengthList
    v-if="kind.masters"
    :model-value="typed.masters"
    legend="Setting masters, with the length that was measured"
    one="master"
    length="Measured length"
    list="masters"
    :least="1"
    :wrong="wrong"
    @update:model-value="setList('masters', $event)"
  />
  <LengthList
    v-if="kind.arbors"
    :model-value="typed.masters"
    legend="Arbors, with the diameter that was measured"
    one="arbor"
    length="Measured diameter"
    list="masters"
    :least="0"
    :wrong="wrong"
    @update:model-value="setList('masters', $event)"
  />
  <LengthList
    v-if="wrench"
    :model-value="typed.adapters"
    legend="Adapters, from its drive to the fastener"
    one="adapter"
    length="Length"
    list="adapters"
    :least="0"
    :wrong="wrong"
    @update:model-value="setList('adapters', $event)"
  />
</template>
