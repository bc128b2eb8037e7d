import { edgesOf, type Edges, type Sure } from '../graph/edges.ts'
import { inTheAir } from '../graph/check-graph.ts'
import { EDGE_FIELDS, rowsOf } from '../graph/edge-fields.ts'
import { rowName } from '../graph/row-name.ts'
import { GRAPH_LISTS, type GraphList } from '../graph/rows.ts'
import type { SheetBody } from './body.ts'
import { settingsOf } from './settings-of.ts'

/** Why something of a sheet hangs in the air. */
export type Hangs =
  /** Nothing leads to the row, and the row leads nowhere: the work does not know it. */
  | 'alone'
  /** What the row leads to was taken over from the family, and nobody has confirmed it. */
  | 'assumed'
  /** Somebody was asked, and did not know. */
  | 'unknown'
  /** A joint that no test proves, and nothing says why not. */
  | 'no-test'
  /** A preload that no nut and no stack holds. */
  | 'no-holder'

export interface Hanging {
  why: Hangs
  list: GraphList
  /** Id of the row; of a preload that of its setting. */
  id: string
  name: string
  /** The field to look at. */
  field?: string
}

/**
 * Everything on a sheet that hangs in the air, list by list. It never stands in the way of anything: it says what is worth a look before the drive is
 * open.
 */
export function hanging(body: SheetBody): Hanging[] {
  const alone = new Set(inTheAir(body).map((r) => `${r.list} ${r.id}`))
  const found = GRAPH_LISTS.flatMap((list) =>
    rowsOf(body, list).flatMap((row) => ofRow(list, row, alone.has(`${list} ${row.id}`))),
  )
  const held = new Set((body.settings ?? []).filter((s) => edgesOf(s.preloadedBy).length).map((s) => s.id))
  return [
    ...found,
    ...settingsOf(body)
      .preloads.filter((p) => !held.has(p.id))
      .map((p): Hanging => ({
        why: 'no-holder',
        list: 'settings',
        id: p.id,
        name: p.label,
        field: 'preloadedBy',
      })),
  ]
}

function ofRow(
  list: GraphList,
  row: Readonly<Record<string, unknown>> & { id: string },
  alone: boolean,
): Hanging[] {
  const hang = (why: Hangs, field?: string): Hanging => ({
    why,
    list,
    id: row.id,
    name: rowName(row) ?? row.id,
    ...(field === undefined ? {} : { field }),
  })
  const fields = Object.keys(EDGE_FIELDS[list] ?? {})
  const sure = (field: string) => Object.values((row[field] as Edges | undefined) ?? {})
  const fieldWith = (what: Sure) => fields.find((f) => sure(f).includes(what))
  const [assumed, unknown] = [fieldWith('assumed'), fieldWith('unknown')]
  const untested =
    list === 'joints' &&
    !edgesOf(row.interfaces as Edges | undefined).length &&
    (row.provedBy === undefined || (row.provedBy === 'none' && !row.unproved))
      ? [hang('no-test', row.provedBy === undefined ? 'provedBy' : 'unproved')]
      : []
  return [
    ...(alone ? [hang('alone')] : []),
    ...(assumed || row.assumed ? [hang('assumed', assumed)] : []),
    ...(unknown ? [hang('unknown', unknown)] : []),
    ...untested,
  ]
}

/** Rows with everything that was only assumed of them said: the technician has looked at them. */
export function confirmed<T extends { id: string }>(list: GraphList, row: T): T {
  const { assumed: _assumed, ...rest } = row as T & { assumed?: boolean }
  const fields = Object.keys(EDGE_FIELDS[list] ?? {}).flatMap((field) => {
    const edges = (row as Record<string, unknown>)[field] as Edges | undefined
    if (!edges) return []
    return [
      [field, Object.fromEntries(Object.entries(edges).map(([to, s]) => [to, s === 'assumed' ? true : s]))],
    ]
  })
  return { ...rest, ...Object.fromEntries(fields) } as unknown as T
}
