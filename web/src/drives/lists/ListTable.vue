<script setup lang="ts">
import type { SheetDraft } from '@moray/contract/replies'
import { computed, onBeforeUnmount, useId, useTemplateRef, watch } from 'vue'
import { isFigure, type Column, type RowForm } from '../forms/column.ts'
import { useSortable } from '../../ui/use-sortable.ts'
import { shownName, useShownRows } from '../show-rows.ts'
import type { Hand, Typed } from '../own/typed-row.ts'
import { useOwn } from '../../stores/own.ts'
import CellInput from './CellInput.vue'
import CellText from './CellText.vue'
import type { useSheetOptions } from './sheet-options.ts'
import { useRowEdits, type From, type Line } from './use-row-edits.ts'
import { useTableHand } from './use-table-hand.ts'

/**
 * One list of a sheet as a table that is typed down: Tab goes right, Enter goes to the next line, and a line is kept as soon as the hand leaves it. One
 * line at a time has fields; the others are text.
 */
const props = defineProps<{
  draft: SheetDraft
  form: RowForm
  columns: readonly Column[]
  sheet: ReturnType<typeof useSheetOptions>
  from: From
  hand: Partial<Hand>
  /** Rows that hang in the air, by id. */
  loose: ReadonlySet<string>
}>()
const emit = defineEmits<{
  /** The line and the column that the hand is in; nothing when it has left the table. */
  at: [key: string | null, column: Column | null]
  paste: [text: string, from: readonly Column[]]
  order: [id: string, before: string]
}>()
const own = useOwn()
const base = useId()
const edits = useRowEdits(
  () => props.draft,
  () => props.form,
  () => props.from,
  () => props.hand,
  props.sheet.lying,
)
const { shown, edgesShown } = useShownRows(
  () => props.draft.body,
  (id) => props.sheet.settingName(id),
  (id) => props.sheet.placeName(id),
)
const cellId = (key: string, column: string) => `${base}-${key}-${column}`
const root = useTemplateRef<HTMLElement>('root')
const lines = computed(() => edits.lines.value)
const hand = useTableHand({
  edits,
  columns: () => props.columns,
  cellId,
  around: () => root.value?.closest('.lists'),
  at: (key, column) => emit('at', key, column),
  order: (id, before) => emit('order', id, before),
})
const { active, go, leave, entered, onKey, onTab, onOut } = hand
function onPaste(e: ClipboardEvent) {
  const text = e.clipboardData?.getData('text/plain') ?? ''
  if (!/[\t\n]/.test(text.trim())) return
  e.preventDefault()
  const from = props.columns.findIndex((c) => c.key === active.value?.column)
  emit('paste', text, props.columns.slice(Math.max(0, from)))
}
const body = useTemplateRef<HTMLElement>('body')
useSortable(body, (ids) => {
  const before = edits.rows.value.map((r) => r.id)
  const moved = ids.filter((id) => before.includes(id))
  const id =
    moved.find((x, i) => x !== before[i] && moved[i + 1] !== before[i]) ??
    moved.find((x, i) => x !== before[i])
  if (id) emit('order', id, moved[moved.indexOf(id) + 1] ?? '')
})
const textOf = (line: Line, c: Column) => {
  const typed = !edits.isAsBefore(line.key)
  if (typed && ['text', 'count', 'number', 'torque', 'length', 'window', 'volume'].includes(c.is))
    return edits.valueOf(line.key, c) as string
  return line.row ? shown(c, line.row[c.key]) : ''
}
const edgesOfLine = (line: Line, c: Column) =>
  c.is === 'edges' ? edgesShown(c, line.row?.[c.key] as never) : []
/** Said beside the name where its column is out of sight. */
const saysHand = computed(() => !props.columns.some((c) => c.key === 'hand'))
/** A cell says what it holds; the first of a line that one types in it, an empty one what belongs there. */
function nameOf(line: Line, c: Column, i: number): string | undefined {
  if (i === 0) return `${line.row ? shownName(line.row) : 'New line'}: type in this line`
  return textOf(line, c) ? undefined : labelOf(line, c)
}
const example = (c: Column) =>
  c.is === 'torque' ? (own.first === 'imperial' ? '30-35 ftlb' : '40-48 Nm') : undefined
/** Figures are read back in both units while they are typed. */
const understood = (line: Line, c: Column): string => {
  if (!isFigure(c)) return ''
  const value = edits.understoodOf(line.key, c)
  return value === undefined ? '' : shown(c, value)
}
const labelOf = (line: Line, c: Column) => `${c.label}, ${line.row ? shownName(line.row) : 'new line'}`
/** A row picked on the drawing, for the edges that the hand is typing. @returns whether it could be taken */
function pick(id: string): boolean {
  const at = active.value
  const c = at && hand.columnOf(at.column)
  if (!at || c?.is !== 'edges') return false
  const row = lines.value.find((l) => l.key === at.key)?.row
  if (!props.sheet.optionsFor(props.form, c, row).some((o) => o.id === id)) return false
  const had = edits.valueOf(at.key, c) as string[]
  edits.enter(at.key, c, c.one ? [id] : [...new Set([...had, id])])
  // the hand goes on typing where it was
  document.getElementById(cellId(at.key, c.key))?.focus()
  return true
}
/** Columns that are taken out of sight take the hand along. */
watch(
  () => props.columns,
  (now) => {
    if (active.value && !now.some((c) => c.key === active.value!.column)) active.value = null
  },
)
/** Another page is gone to by a key: the line that is typed is kept all the same. */
onBeforeUnmount(() => active.value && void edits.save(active.value.key))
defineExpose({ go, pick, leaveIfIn: () => active.value && leave(), edits })
</script>

<template>
  <div ref="root" class="scroll" @focusout="onOut" @keydown="onKey" @paste="onPaste">
    <table :aria-label="form.title">
      <thead>
        <tr>
          <th v-if="form.list !== 'settings'" class="grip-head"><span class="sr-only">Order</span></th>
          <th v-for="(c, i) in columns" :key="c.key" scope="col" :class="{ first: i === 0 }">
            {{ c.label }}
          </th>
        </tr>
      </thead>
      <tbody ref="body">
        <tr
          v-for="(line, at) in lines"
          :key="line.key"
          :data-id="line.key"
          :class="{
            on: active?.key === line.key,
            bad: Object.keys(edits.problems(line.key)).length,
          }"
        >
          <td v-if="form.list !== 'settings'" class="grip-cell">
            <span v-if="line.row" class="grip" title="Drag to another place" aria-hidden="true">⠿</span>
          </td>
          <td v-for="(c, i) in columns" :key="c.key" :class="[c.is, { first: i === 0 }]">
            <template v-if="active?.key === line.key">
              <CellInput
                :id="cellId(line.key, c.key)"
                :column="c"
                :label="labelOf(line, c)"
                :model-value="edits.valueOf(line.key, c)"
                :options="sheet.optionsFor(form, c, line.row)"
                :taken="edits.takenIds()"
                :example="example(c)"
                :disabled="c.is === 'setting' && !!line.row"
                :invalid="!!edits.problems(line.key)[c.key]"
                @update:model-value="(v: Typed) => edits.enter(line.key, c, v)"
                @focusin="entered(c.key)"
                @keydown.tab="(e: KeyboardEvent) => onTab(e, line, c)"
              />
              <span v-if="understood(line, c)" class="mono small said">{{ understood(line, c) }}</span>
            </template>
            <button
              v-else
              type="button"
              class="cell"
              :tabindex="i === 0 && (at === 0 || at === lines.length - 1) ? 0 : -1"
              :aria-label="nameOf(line, c, i)"
              @click="go(line.key, c.key)"
            >
              <template v-if="i === 0 && !line.row && !textOf(line, c)">
                <span class="soft">{{ `Add ${form.one}` }}</span>
              </template>
              <CellText v-else :column="c" :text="textOf(line, c)" :edges="edgesOfLine(line, c)" />
              <span v-if="i === 0 && saysHand && line.row?.hand === 'left'" class="left small"
                >left-hand</span
              >
              <span v-if="i === 0 && line.row && loose.has(line.row.id)" class="small soft">loose end</span>
            </button>
            <span v-if="edits.problems(line.key)[c.key]" class="bad small" role="alert">{{
              edits.problems(line.key)[c.key]
            }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-size: var(--t-small);
  font-weight: 700;
  padding: 0.2rem 0.4rem;
  border-bottom: 1px solid var(--ink);
  vertical-align: bottom;
  background: var(--paper);
  position: sticky;
  top: 0;
  z-index: 1;
}
th.first {
  left: 0;
  z-index: 2;
}
td {
  border-bottom: 1px solid var(--line);
  padding: 0;
  vertical-align: top;
  min-width: 4.5rem;
}
td.edges,
td.pieces {
  min-width: 8.5rem;
}
td.first {
  min-width: 9.5rem;
  position: sticky;
  left: 0;
  background: var(--paper);
  z-index: 1;
}
td.flag,
td.count {
  min-width: 3rem;
}
td.torque,
td.window {
  min-width: 8.2rem;
}
tr.on td.choice {
  min-width: 6.5rem;
}
tr.on td.torque {
  min-width: 8rem;
}
tr.on td {
  background: var(--lamp-soft);
  padding: 2px;
}
tr.bad td.first {
  box-shadow: inset 4px 0 0 var(--stop);
}
.cell {
  display: block;
  width: 100%;
  min-height: 44px;
  padding: 0.3rem 0.4rem;
  text-align: left;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  cursor: text;
}
.cell:hover {
  background: var(--lamp-soft);
}
.cell .left {
  color: var(--stop);
  margin-left: 0.4rem;
}
.cell .soft.small {
  margin-left: 0.4rem;
}
.bad {
  display: block;
  color: var(--out);
  padding: 0 0.4rem 0.3rem;
}
.said {
  display: block;
  white-space: normal;
  padding: 0 0.4rem 0.2rem;
}
.grip {
  display: grid;
  place-items: center;
  width: 28px;
  min-height: 44px;
  cursor: grab;
}
.grip-cell,
.grip-head {
  min-width: 28px;
  width: 28px;
}
</style>
