<script setup lang="ts">
import type { Length } from './gauge-form.ts'

/** Named lengths of a gauge: setting masters, adapters of a wrench. */
const props = defineProps<{
  legend: string
  /** What one of them is called, and its length. */
  one: string
  length: string
  /** Where complaints about them stand: `masters`, `adapters`. */
  list: string
  /** So many there have to be. */
  least: number
  wrong: Record<string, string>
}>()
const rows = defineModel<Length[]>({ required: true })
const change = (i: number, what: Partial<Length>) =>
  (rows.value = rows.value.map((m, k) => (k === i ? { ...m, ...what } : m)))
const add = () => (rows.value = [...rows.value, { label: '', lengthMm: '' }])
const drop = (i: number) => (rows.value = rows.value.filter((_, k) => k !== i))
const textOf = (e: Event) => (e.target as HTMLInputElement).value
const wrongAt = (i: number, field: keyof Length) => props.wrong[`${props.list}.${i}.${field}`]
</script>

<template>
  <fieldset class="wide">
    <legend>{{ legend }}</legend>
    <div v-for="(m, i) in rows" :key="i" class="row">
      <label>
        Marked
        <input
          :value="m.label"
          maxlength="40"
          autocomplete="off"
          @input="change(i, { label: textOf($event) })"
        />
        <span v-if="wrongAt(i, 'label')" class="bad" role="alert">{{ wrongAt(i, 'label') }}</span>
      </label>
      <label>
        {{ length }}
        <input
          :value="m.lengthMm"
          maxlength="40"
          autocomplete="off"
          @input="change(i, { lengthMm: textOf($event) })"
        />
        <span v-if="wrongAt(i, 'lengthMm')" class="bad" role="alert">{{ wrongAt(i, 'lengthMm') }}</span>
      </label>
      <button
        v-if="rows.length > least"
        type="button"
        class="texty small"
        :aria-label="`Without ${m.label || `this ${one}`}`"
        @click="drop(i)"
      >
        Remove
      </button>
    </div>
    <button type="button" class="texty small" @click="add">
      {{ rows.length ? 'Another' : 'An' }} {{ one }}
    </button>
    <span v-if="wrong[list]" class="bad" role="alert">{{ wrong[list] }}</span>
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
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 0 0.8rem;
  align-items: end;
}
.row input {
  width: 100%;
}
@media (max-width: 500px) {
  .row {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    align-items: start;
  }
}
</style>
