import type { SheetDraft } from '@moray/contract/replies'
import type { PutRows } from '@moray/contract/requests/sheets'
import type { SourceKind } from '@moray/core/drives/own/source'
import { computed, reactive, ref, type ComputedRef } from 'vue'
import { useOwn } from '../../stores/own.ts'
import type { Column, RowForm } from '../forms/column.ts'
import { rowsOfForm, type ShownRow } from '../show-rows.ts'
import { asTyped, readRow, readTyped, type Hand, type ReadRow, type Typed } from '../own/typed-row.ts'
import { freeId, useDraftWrite } from '../own/use-draft-write.ts'

/** Where the figures of a list are typed from. */
export interface From {
  source: SourceKind
  where?: string
}

/** A line of a table: a row of the sheet, or one that is still being typed. */
export interface Line {
  key: string
  row?: ShownRow
}

type Entered = Record<string, Typed>
const isNew = (key: string) => key.startsWith('+')
const isEmpty = (v: Typed) => v === '' || v === false || (Array.isArray(v) && !v.length)

/**
 * What is typed in the table of a list, line by line. A line is sent as soon as the hand leaves it; what is refused stays as it was typed, with the reason,
 * and nothing waits for it.
 */
export function useRowEdits(
  draft: () => SheetDraft,
  form: () => RowForm,
  from: () => From,
  hand: () => Partial<Hand>,
  lying: ComputedRef<ReadonlySet<string>>,
) {
  const own = useOwn()
  const write = useDraftWrite()
  const typed = reactive(new Map<string, Entered>())
  const refused = reactive(new Map<string, Record<string, string>>())
  /** New lines that are not in the sheet yet; the last one is empty. */
  const fresh = ref(['+1'])
  let next = 2
  const rows = computed(() => rowsOfForm(draft().body, form()))
  const lines = computed((): Line[] => [
    ...rows.value.map((row) => ({ key: row.id, row })),
    ...fresh.value.map((key) => ({ key })),
  ])
  const rowOf = (key: string) => rows.value.find((r) => r.id === key)
  const handOf = (): Hand => ({ first: own.first, ...hand() })
  const read = (key: string): ReadRow => readRow(form(), rowOf(key), typed.get(key) ?? {}, handOf())

  const valueOf = (key: string, c: Column): Typed =>
    typed.get(key)?.[c.key] ?? asTyped(c, rowOf(key), own.first)
  function enter(key: string, c: Column, value: Typed) {
    typed.set(key, { ...typed.get(key), [c.key]: value })
    // an empty line always stands below what is typed
    if (key === fresh.value.at(-1)) fresh.value = [...fresh.value, `+${next++}`]
  }
  /** Nothing of it differs from what is there: it need not be sent. */
  function isAsBefore(key: string): boolean {
    const given = typed.get(key)
    if (!given) return true
    if (isNew(key)) return Object.values(given).every(isEmpty)
    const columns = form().columns.filter((c) => Object.hasOwn(given, c.key))
    return columns.every(
      (c) => JSON.stringify(given[c.key]) === JSON.stringify(asTyped(c, rowOf(key), own.first)),
    )
  }
  /** What is wrong with a line, by column; needed things are only missed once the hand has left it. */
  const problems = (key: string): Record<string, string> => {
    const local = typed.has(key) ? read(key).problems : {}
    const said = refused.get(key)
    return said
      ? { ...local, ...said }
      : Object.fromEntries(Object.entries(local).filter(([k]) => filled(key, k)))
  }
  /** A figure that is typed now, in canonical units. */
  const understoodOf = (key: string, c: Column): unknown => {
    const now = typed.get(key)?.[c.key]
    return now === undefined ? undefined : readTyped(c, now, handOf()).value
  }
  const filled = (key: string, column: string) => !isEmpty(typed.get(key)?.[column] ?? '')

  function forget(key: string) {
    typed.delete(key)
    refused.delete(key)
    if (isNew(key) && key !== fresh.value.at(-1)) fresh.value = fresh.value.filter((k) => k !== key)
  }

  /** Ids that were given out here and may not have come back from the server yet. */
  const given = new Set<string>()
  const takenIds = (): ReadonlySet<string> =>
    new Set([
      ...(['parts', 'groups'].includes(form().list) ? lying.value : rows.value.map((r) => r.id)),
      ...given,
    ])
  function idFor(row: Record<string, unknown>): string {
    const id = freeId(String(row.id ?? row[form().columns[0]!.key] ?? form().one), takenIds())
    given.add(id)
    return id
  }

  /** Sends a line that was left. @returns whether it is in the sheet now */
  async function save(key: string): Promise<boolean> {
    if (isAsBefore(key)) {
      forget(key)
      return true
    }
    const { row, problems: wrong, printed } = read(key)
    if (Object.keys(wrong).length) {
      refused.set(key, wrong)
      return false
    }
    const before = rowOf(key)
    const id = before ? key : form().list === 'settings' ? String(row.id) : idFor(row)
    const sent = typed.get(key)
    const done = await putRows([{ before, row: { ...row, id }, printed }])
    if (!done) {
      given.delete(id)
      refused.set(key, problemsByColumn(form(), write.error.value))
      return false
    }
    // what was typed on while it was under way is still to be sent
    if (typed.get(key) === sent) forget(key)
    return true
  }
  const putRows = (
    all: readonly {
      before?: ShownRow | undefined
      row: Record<string, unknown>
      printed: Record<string, string>
    }[],
  ) => write.putAll(draft().body.id, asRequest(form(), all, from()))

  return {
    write,
    rows,
    lines,
    fresh,
    valueOf,
    enter,
    problems,
    understoodOf,
    save,
    forget,
    isAsBefore,
    takenIds,
    putRows,
    handOf,
  }
}

function asRequest(
  form: RowForm,
  all: readonly {
    before?: ShownRow | undefined
    row: Record<string, unknown>
    printed: Record<string, string>
  }[],
  { source, where }: From,
): PutRows {
  const { list } = form
  const printed = all.flatMap(({ row, printed: p }) =>
    Object.entries(p).map(([column, text]) => ({ path: `${list}.${String(row.id)}.${column}`, text })),
  )
  return {
    list,
    now: { [list]: all.map(({ row }) => withoutMarks(row)) },
    seen: all.flatMap(({ before }) => (before ? [{ id: before.id, was: JSON.stringify(before) }] : [])),
    ...(printed.length ? { source, printed, ...(where ? { where } : {}) } : {}),
  }
}

/** A row that somebody types is there; and what an older sheet said in words has become what he typed. */
const withoutMarks = ({ assumed: _assumed, ...row }: Record<string, unknown>) => row

interface Refused {
  message: string
  fields: readonly { path: string; message: string }[]
}
/** What the server has against a line, by column; under the first one where it names none. */
function problemsByColumn(form: RowForm, error: Refused | null): Record<string, string> {
  const first = form.columns[0]!.key
  const found = (error?.fields ?? []).map(({ path, message }) => {
    const [, key = first] = /\]\.([A-Za-z]+)/.exec(path) ?? []
    return [form.columns.some((c) => c.key === key) ? key : first, message] as const
  })
  return found.length ? Object.fromEntries(found) : { [first]: error?.message ?? 'it was not taken' }
}
