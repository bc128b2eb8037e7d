<script setup lang="ts">
import type { Piece } from '@moray/core/drives/graph/rows'
import MultiSelect from 'primevue/multiselect'
import { computed } from 'vue'
import type { Column } from '../forms/column.ts'
import type { Typed } from '../own/typed-row.ts'
import EdgeCell from './EdgeCell.vue'
import type { Option } from './matching.ts'
import { namesOf, withNames } from './piece-names.ts'

/** One value of a row while it is typed, as its column takes it. */
const props = defineProps<{
  column: Column
  id: string
  label: string
  /** What an edge may lead to, or what a choice is out of rows of the sheet. */
  options: readonly Option[]
  example?: string
  disabled?: boolean
  invalid?: boolean
  /** Ids of pieces that are taken. */
  taken: ReadonlySet<string>
}>()
const model = defineModel<Typed>({ required: true })
const text = computed({ get: () => model.value as string, set: (v) => (model.value = v) })
const flag = computed({ get: () => model.value as boolean, set: (v) => (model.value = v) })
const list = computed({ get: () => model.value as string[], set: (v) => (model.value = v) })
const pieces = computed({
  get: () => namesOf(model.value as Piece[]),
  set: (names) => (model.value = withNames(model.value as Piece[], names, props.taken)),
})
const choices = computed((): Option[] =>
  props.column.choices
    ? Object.entries(props.column.choices).map(([id, label]) => ({ id, label }))
    : [...props.options],
)
</script>

<template>
  <EdgeCell
    v-if="column.is === 'edges'"
    :id="id"
    v-model="list"
    :label="label"
    :options="options"
    :one="column.one"
  />
  <MultiSelect
    v-else-if="column.is === 'choices'"
    v-model="list"
    :input-id="id"
    :options="choices"
    option-label="label"
    option-value="id"
    :aria-label="label"
    :show-toggle-all="false"
    :max-selected-labels="2"
    placeholder="not said"
  />
  <select
    v-else-if="['choice', 'seal', 'setting', 'place'].includes(column.is)"
    :id="id"
    v-model="text"
    :aria-label="label"
    :disabled="disabled"
    :aria-invalid="invalid"
  >
    <option value="">{{ column.needed ? 'choose' : '' }}</option>
    <option v-for="c in choices" :key="c.id" :value="c.id">{{ c.label }}</option>
  </select>
  <input v-else-if="column.is === 'flag'" :id="id" v-model="flag" type="checkbox" :aria-label="label" />
  <textarea
    v-else-if="column.is === 'lines'"
    :id="id"
    v-model="text"
    rows="2"
    maxlength="800"
    :aria-label="label"
  />
  <input
    v-else-if="column.is === 'pieces'"
    :id="id"
    v-model.lazy="pieces"
    :aria-label="label"
    placeholder="nut, washer, pin"
    maxlength="400"
    autocomplete="off"
  />
  <input
    v-else
    :id="id"
    v-model="text"
    :aria-label="label"
    :aria-invalid="invalid"
    :maxlength="column.is === 'text' ? column.most : 60"
    :placeholder="example ?? column.placeholder"
    :inputmode="column.is === 'count' ? 'numeric' : column.is === 'number' ? 'decimal' : 'text'"
    autocomplete="off"
  />
</template>

<style scoped>
input:not([type='checkbox']),
select,
textarea {
  width: 100%;
  min-width: 3.5rem;
  min-height: 40px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
input[type='checkbox'] {
  width: 22px;
  height: 22px;
}
[aria-invalid='true'] {
  border-color: var(--stop);
}
</style>
