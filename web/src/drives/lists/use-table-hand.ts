import { nextTick, ref } from 'vue'
import type { Column } from '../forms/column.ts'
import { keyFor, type Way } from './table-keys.ts'
import type { Line, useRowEdits } from './use-row-edits.ts'

interface Around {
  edits: ReturnType<typeof useRowEdits>
  columns: () => readonly Column[]
  /** Id of the field of a cell. */
  cellId: (key: string, column: string) => string
  /** What still belongs to the line that is typed: the drawing and the buttons of the list. */
  around: () => Element | null | undefined
  /** Told where the hand is; nothing when it has left the table. */
  at: (key: string | null, column: Column | null) => void
  /** Told that a row goes before another one, or to the end. */
  order: (id: string, before: string) => void
}

/** Where the hand is in the table of a list, and where its keys take it. A line is sent as soon as the hand leaves it. */
export function useTableHand({ edits, columns, cellId, around, at: told, order }: Around) {
  const active = ref<{ key: string; column: string } | null>(null)
  /** The column in which the hand came into the line: Enter goes back to it, so that a table is typed line by line. */
  let came = ''
  const lines = edits.lines
  const columnOf = (key: string) => columns().find((c) => c.key === key) ?? columns()[0]!

  async function go(key: string, column: string, first = true) {
    const before = active.value?.key
    if (before !== undefined && before !== key) void edits.save(before)
    if (first) came = column
    active.value = { key, column }
    told(key, columnOf(column))
    await nextTick()
    const field = document.getElementById(cellId(key, column))
    field?.focus()
    if (field instanceof HTMLInputElement && field.type === 'text') field.select()
  }
  function leave() {
    const at = active.value
    active.value = null
    told(null, null)
    if (at) void edits.save(at.key)
  }
  function entered(column: string) {
    if (!active.value || active.value.column === column) return
    active.value = { ...active.value, column }
    told(active.value.key, columnOf(column))
  }
  /** The line above or below, in the same column or in the one in which this line was begun. */
  function move(way: Way) {
    const at = lines.value.findIndex((l) => l.key === active.value?.key)
    const next = lines.value[at + (way === 'up' ? -1 : 1)]
    if (at < 0 || !next) return
    void go(next.key, way === 'next' ? came : active.value!.column, way !== 'next')
  }
  function shift(way: 'earlier' | 'later') {
    const ids = edits.rows.value.map((r) => r.id)
    const at = ids.indexOf(active.value!.key)
    const to = at + (way === 'earlier' ? -1 : 2)
    if (at >= 0 && to >= 0 && to <= ids.length) order(ids[at]!, ids[to] ?? '')
  }
  function onKey(e: KeyboardEvent) {
    const act = keyFor(e)
    if (!act || e.defaultPrevented || !active.value) return
    const { key } = active.value
    if (act === 'leave') {
      // what was typed in this line is thrown away first, then the line is left
      if (edits.isAsBefore(key)) return (document.activeElement as HTMLElement | null)?.blur()
      e.preventDefault()
      edits.forget(key)
      // a new line goes with what was typed in it: the hand begins another one
      if (!lines.value.some((l) => l.key === key)) void go(edits.fresh.value.at(-1)!, came)
      return
    }
    e.preventDefault()
    if (act === 'earlier' || act === 'later') shift(act)
    else move(act)
  }
  /** Past its last column the hand goes on with the next line. */
  function onTab(e: KeyboardEvent, line: Line, column: Column) {
    if (e.shiftKey || column !== columns().at(-1)) return
    const next = lines.value[lines.value.indexOf(line) + 1]
    if (!next) return
    e.preventDefault()
    void go(next.key, columns()[0]!.key)
  }
  function onOut(e: FocusEvent) {
    const to = e.relatedTarget as Node | null
    if (to && !around()?.contains(to)) leave()
  }
  return { active, columnOf, go, leave, entered, onKey, onTab, onOut }
}
