<script setup lang="ts">
import type { FieldDescription } from '@moray/contract/fields/describe'
import { computed, useId } from 'vue'
import { useUnits } from '../ui/units.ts'
import { wordOf } from './names.ts'
import { emptyRow, numberOf, type Problems, type Typed } from './sum-model.ts'

/** One field of a calculation, whatever its kind; nested fields are editors again. */
const props = defineProps<{ field: FieldDescription; path: string; problems: Problems }>()
const typed = defineModel<Typed>({ required: true })
const id = useId()
const units = useUnits()

type Row = { [field: string]: Typed }
const row = computed(() => typed.value as Row)
const rows = computed(() => typed.value as Row[])
const text = computed({ get: () => typed.value as string, set: (v) => (typed.value = v) })
const problem = computed(() => props.problems[props.path])
const hint = computed(() => {
  const parts = [
    props.field.unit,
    props.field.default !== undefined
      ? `else ${String(props.field.default)}`
      : props.field.optional
        ? 'may be left out'
        : '',
  ]
  return parts.filter(Boolean).join(', ')
})
/** What bench notation was understood as, where it is more than a bare number. */
const understood = computed(() => {
  if (props.field.unit !== 'mm' || typeof typed.value !== 'string' || !/[a-z"/]/i.test(typed.value)) return ''
  const mm = numberOf(typed.value, 'mm', 'x', {})
  return mm === undefined ? '' : units.both(mm, 3)
})
const setField = (name: string, value: Typed) => (typed.value = { ...row.value, [name]: value })
const setRow = (i: number, name: string, value: Typed) =>
  (typed.value = rows.value.map((r, k) => (k === i ? { ...r, [name]: value } : r)))
</script>

<template>
  <fieldset v-if="field.type === 'object'" class="group">
    <legend>{{ field.what }}<span v-if="field.optional" class="small soft"> (may be left out)</span></legend>
    <FieldEditor
      v-for="f in field.fields"
      :key="f.name"
      :field="f"
      :path="`${path}.${f.name}`"
      :problems="problems"
      :model-value="row[f.name]!"
      @update:model-value="(v) => setField(f.name, v)"
    />
    <p v-if="problem" class="bad small">{{ problem }}</p>
  </fieldset>
  <fieldset v-else-if="field.type === 'objects'" class="group">
    <legend>{{ field.what }}</legend>
    <div v-for="(r, i) in rows" :key="i" class="row">
      <FieldEditor
        v-for="f in field.fields"
        :key="f.name"
        :field="f"
        :path="`${path}[${i}].${f.name}`"
        :problems="problems"
        :model-value="r[f.name]!"
        @update:model-value="(v) => setRow(i, f.name, v)"
      />
      <button
        type="button"
        class="texty small"
        :aria-label="`Take out row ${i + 1} of ${field.what}`"
        @click="typed = rows.filter((_, k) => k !== i)"
      >
        take out
      </button>
    </div>
    <button type="button" class="texty small" @click="typed = [...rows, emptyRow(field)]">add a row</button>
    <p v-if="problem" class="bad small">{{ problem }}</p>
  </fieldset>
  <label v-else-if="field.type === 'flag'" class="flag">
    <input v-model="typed" type="checkbox" /> <span>{{ field.what }}</span>
  </label>
  <div
    v-else
    class="field"
    :class="{ wide: ['numbers', 'number-table', 'texts', 'text'].includes(field.type) }"
  >
    <label :for="id">{{ field.what }}</label>
    <select v-if="field.type === 'choice'" :id="id" v-model="text">
      <option v-if="field.optional" value="">—</option>
      <option v-for="v in field.values" :key="v" :value="String(v)">{{ wordOf(String(v)) }}</option>
    </select>
    <input
      v-else
      :id="id"
      v-model="text"
      type="text"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="!!problem"
      :aria-describedby="`${id}-hint`"
    />
    <span :id="`${id}-hint`" class="small" :class="problem ? 'bad' : 'soft'">{{
      problem ?? (understood || hint)
    }}</span>
  </div>
</template>

<style scoped>
.group {
  border: 0;
  border-left: 3px solid var(--line);
  padding: 0 0 0 0.8rem;
  margin: 0.6rem 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.9rem;
  align-items: start;
  width: 100%;
  min-width: 0;
}
legend {
  font-weight: 700;
  padding: 0;
}
.row :deep(.field:not(.wide)) {
  width: 8.2rem;
}
.row :deep(.field.wide) {
  width: 14rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.9rem;
  align-items: start;
  border-bottom: 1px solid var(--line);
  padding-bottom: 0.4rem;
  width: 100%;
}
.field {
  display: grid;
  width: 10.5rem;
  max-width: 100%;
  align-content: start;
}
.field.wide {
  width: 22rem;
}
.field label {
  font-size: var(--t-small);
}
input[type='text'],
select {
  font: inherit;
  min-height: 44px;
  width: 100%;
  padding: 0 0.6rem;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
}
.field label::first-letter,
legend::first-letter {
  text-transform: uppercase;
}
.flag {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
}
.flag input {
  width: 24px;
  height: 24px;
}
.bad {
  color: var(--out);
}
</style>
