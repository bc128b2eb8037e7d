<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { TORQUE_UNITS } from '@moray/core/units/torque-unit'
import { computed, ref, watch } from 'vue'
import FormDialog from '../../ui/FormDialog.vue'
import type { Column, RowForm } from '../forms/column.ts'
import { useShownRows } from '../show-rows.ts'
import type { Hand } from '../own/typed-row.ts'
import { readTable, splitTable, torqueUnitOfHeading } from './pasted.ts'
import type { useSheetOptions } from './sheet-options.ts'
import type { useRowEdits } from './use-row-edits.ts'

/** A manual's table, pasted: what each column is, what is understood, and everything that is not. All of its rows are taken in, or none. */
const props = defineProps<{
  draft: SheetDraft
  form: RowForm
  text: string
  /** The columns of the list from the one on that was pasted into. */
  columns: readonly Column[]
  sheet: ReturnType<typeof useSheetOptions>
  edits: ReturnType<typeof useRowEdits>
}>()
const emit = defineEmits<{ close: [] }>()
const text = ref(props.text)
const hand = props.edits.handOf()
const torqueUnit = ref<Hand['torqueUnit']>(torqueUnitOfHeading(props.text) ?? hand.torqueUnit)
watch(text, (now) => (torqueUnit.value = torqueUnitOfHeading(now) ?? torqueUnit.value))
const chosen = ref<string[]>([])
const split = computed(() => splitTable(text.value, props.form, props.columns))
watch(
  () => split.value.columns.join('|'),
  () => (chosen.value = [...split.value.columns]),
  { immediate: true },
)
const table = computed(() => ({ ...split.value, columns: chosen.value }))
const nameColumn = computed(() => props.form.columns[0]!)
const named = computed(() => chosen.value.includes(nameColumn.value.key))
const twice = computed(() => chosen.value.find((k, i) => k && chosen.value.indexOf(k) !== i))
const read = computed(() =>
  readTable(table.value, props.form, {
    draft: props.draft,
    hand: { ...hand, ...(torqueUnit.value ? { torqueUnit: torqueUnit.value } : {}) },
    optionsFor: props.sheet.optionsFor,
    taken: props.edits.takenIds(),
  }),
)
const known = computed(() => read.value.rows.filter((r) => r.before).length)
const hasTorque = computed(() => chosen.value.includes('torqueNm'))
const { shown } = useShownRows(
  () => props.draft.body,
  (id) => props.sheet.settingName(id),
  (id) => props.sheet.placeName(id),
)
const SHOWN = 6
const preview = computed(() => read.value.rows.slice(0, SHOWN))
const previewColumns = computed(() =>
  chosen.value.flatMap((k) => props.form.columns.find((c) => c.key === k) ?? []),
)
/** What the server has against a row, by the line that it stands on. */
const refused = computed(() =>
  (props.edits.write.error.value?.fields ?? []).map((f) => {
    const [, index] = /\[(\d+)\]/.exec(f.path) ?? []
    const line = index === undefined ? undefined : table.value.lines[Number(index)]
    return { line, message: f.message }
  }),
)
const unready = computed(
  () => !read.value.rows.length || !named.value || !!twice.value || read.value.problems.length > 0,
)
async function send() {
  if (unready.value) return
  if (await props.edits.putRows(read.value.rows)) emit('close')
}
const action = computed(() => {
  const { length } = read.value.rows
  return known.value === length && length ? `Change ${length} rows` : `Take in ${length} rows`
})
</script>

<template>
  <FormDialog
    :header="`${form.title}: paste a table`"
    :action="action"
    :busy="edits.write.busy.value"
    :unready="unready"
    :columns="1"
    @send="send"
    @close="emit('close')"
  >
    <label>
      The table, as it was copied
      <textarea v-model="text" autofocus rows="5" class="mono" spellcheck="false" wrap="off" />
    </label>
    <fieldset v-if="chosen.length" class="columns">
      <legend>What its columns are</legend>
      <label v-for="(key, i) in chosen" :key="i">
        <span class="small soft">{{ table.cells[0]?.[i] ?? '' }}</span>
        <select v-model="chosen[i]" :aria-label="`Column ${i + 1}`">
          <option value="">leave it out</option>
          <option v-for="c in form.columns" :key="c.key" :value="c.key">{{ c.label }}</option>
        </select>
      </label>
    </fieldset>
    <label v-if="hasTorque" class="unit">
      Torques without a unit are in
      <select v-model="torqueUnit">
        <option v-for="u in TORQUE_UNITS" :key="u" :value="u">
          {{ { Nm: 'Nm', ftlb: 'ft-lb', inlb: 'in-lb' }[u] }}
        </option>
      </select>
    </label>
    <p v-if="!named" class="caution">Say which column is: {{ nameColumn.label }}.</p>
    <p v-if="twice" class="caution">Two columns are taken for the same thing. Leave one of them out.</p>
    <div v-if="read.problems.length || refused.length" class="fault" role="alert">
      <p>
        Nothing is taken in until every row is right:
        {{ read.problems.length || refused.length }}
        {{ (read.problems.length || refused.length) === 1 ? 'cell is' : 'cells are' }} not understood.
      </p>
      <ul>
        <li v-for="p in read.problems.slice(0, 20)" :key="`${p.line} ${p.column}`">
          <strong>Line {{ p.line }}, {{ p.column }}</strong>: {{ p.message }}
        </li>
        <li v-if="read.problems.length > 20">and {{ read.problems.length - 20 }} more</li>
        <template v-if="!read.problems.length">
          <li v-for="(r, i) in refused.slice(0, 20)" :key="i">
            <strong v-if="r.line">Line {{ r.line }}</strong> {{ r.message }}
          </li>
        </template>
      </ul>
    </div>
    <p v-else-if="edits.write.error.value" class="fault" role="alert">
      {{ edits.write.error.value.message }}
    </p>
    <div v-if="preview.length" class="preview">
      <table class="small">
        <caption>
          {{ read.rows.length - known }}
          new{{ known ? `, ${known} already in the list by name` : '' }}
        </caption>
        <thead>
          <tr>
            <th v-for="c in previewColumns" :key="c.key" scope="col">{{ c.label }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(r, i) in preview" :key="i">
            <td v-for="c in previewColumns" :key="c.key">{{ shown(c, r.row[c.key]) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="read.rows.length > preview.length" class="small soft">
        and {{ read.rows.length - preview.length }} more rows
      </p>
    </div>
  </FormDialog>
</template>

<style scoped>
textarea {
  width: 100%;
  white-space: pre;
  overflow: auto;
}
.columns {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  border: 0;
  padding: 0;
  margin: 0;
}
.columns label {
  display: grid;
  min-width: 8rem;
  max-width: 12rem;
}
.columns label span {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.unit {
  display: flex !important;
  align-items: center;
  gap: 0.6rem;
}
.preview {
  overflow-x: auto;
}
th,
td {
  text-align: left;
  padding: 0.15rem 0.5rem 0.15rem 0;
  border-bottom: 1px solid var(--line);
}
caption {
  text-align: left;
  font-weight: 700;
}
</style>
