<script setup lang="ts">
import { kindOfGauge, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import { computed } from 'vue'
import type { FigureField, TypedFigures } from './gauge-form.ts'

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
  ['intervalMonths', 'Months between calibrations'],
]
const fields = computed(() => FIELDS.filter(([f]) => f !== 'perTurnMm' || kind.value.dial))
const set = (field: FigureField, text: string) => (typed.value = { ...typed.value, [field]: text })
const setMaster = (i: number, change: Partial<TypedFigures['masters'][number]>) =>
  (typed.value = {
    ...typed.value,
    masters: typed.value.masters.map((m, k) => (k === i ? { ...m, ...change } : m)),
  })
const addMaster = () =>
  (typed.value = { ...typed.value, masters: [...typed.value.masters, { label: '', lengthMm: '' }] })
const dropMaster = (i: number) =>
  (typed.value = { ...typed.value, masters: typed.value.masters.filter((_, k) => k !== i) })
const textOf = (e: Event) => (e.target as HTMLInputElement).value
</script>

<template>
  <label v-for="[field, label] in fields" :key="field">
    {{ label }}{{ kind.quantity === 'temperature' && field !== 'intervalMonths' ? `, ${kind.unit}` : '' }}
    <input :value="typed[field]" maxlength="40" autocomplete="off" @input="set(field, textOf($event))" />
    <span v-if="wrong[field]" class="bad" role="alert">{{ wrong[field] }}</span>
  </label>
  <fieldset v-if="kind.masters" class="wide">
    <legend>Setting masters, with the length that was measured</legend>
    <div v-for="(m, i) in typed.masters" :key="i" class="master">
      <label>
        Marked
        <input
          :value="m.label"
          maxlength="40"
          autocomplete="off"
          @input="setMaster(i, { label: textOf($event) })"
        />
        <span v-if="wrong[`masters.${i}.label`]" class="bad" role="alert">{{
          wrong[`masters.${i}.label`]
        }}</span>
      </label>
      <label>
        Measured length
        <input
          :value="m.lengthMm"
          maxlength="40"
          autocomplete="off"
          @input="setMaster(i, { lengthMm: textOf($event) })"
        />
        <span v-if="wrong[`masters.${i}.lengthMm`]" class="bad" role="alert">{{
          wrong[`masters.${i}.lengthMm`]
        }}</span>
      </label>
      <button
        v-if="typed.masters.length > 1"
        type="button"
        class="texty small"
        :aria-label="`Without ${m.label || 'this master'}`"
        @click="dropMaster(i)"
      >
        Remove
      </button>
    </div>
    <button type="button" class="texty small" @click="addMaster">Another master</button>
    <span v-if="wrong['masters']" class="bad" role="alert">{{ wrong['masters'] }}</span>
  </fieldset>
</template>

<style scoped>
fieldset {
  min-width: 0;
  border: 0;
  margin: 0;
  padding: 0;
}
legend {
  font-weight: 700;
}
.master {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 0 0.8rem;
  align-items: end;
}
.master input {
  width: 100%;
}
@media (max-width: 500px) {
  .master {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    align-items: start;
  }
}
</style>
