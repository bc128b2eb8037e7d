import { edgesOf, type Edges } from './edges.ts'
import { EDGE_FIELDS, rowsOf } from './edge-fields.ts'
import { GRAPH_LISTS, type Graph, type GraphList, type Group } from './rows.ts'

/** Where a row is on the section drawing. */
export interface RowPlace {
  list: GraphList
  id: string
  /** Place on the drawing; left out where nothing leads to one. */
  place?: string
  /** How many edges lie between the row and one that has this place itself: 0 for its own place. What is further away is a guess. */
  steps: number
}

const key = (list: GraphList, id: string) => `${list} ${id}`

/** The place that a row has of its own. */
function ownPlace(list: GraphList, row: Readonly<Record<string, unknown>>): string | undefined {
  if (typeof row.place === 'string' && (list === 'parts' || list === 'groups')) return row.place
  if (list === 'groups') return (row as unknown as Group).pieces?.find((p) => p.place)?.place
  if (list === 'sealFits' && typeof row.seal === 'string') return `seal:${row.seal}`
  if (list === 'propellers') return 'end:aft'
  if (list === 'settings') {
    const id = String(row.id)
    if (id.startsWith('seat:')) return `stack:${id.slice(5)}`
    return id.startsWith('bearing:') ? id : `measure:${id}`
  }
  return undefined
}

/**
 * A place for every row of a graph: its own, or that of the nearest row along the edges. A row that nothing leads to has none.
 * @param fixed places that the drawing really has; others count as none
 */
export function rowPlaces(graph: Graph, fixed: ReadonlySet<string>): RowPlace[] {
  const rows = GRAPH_LISTS.flatMap((list) => rowsOf(graph, list).map((row) => ({ list, row })))
  const near = neighbours(graph)
  const found = new Map<string, { place: string; steps: number }>()
  let edge: string[] = []
  for (const { list, row } of rows) {
    const place = ownPlace(list, row)
    if (place === undefined || !fixed.has(place)) continue
    found.set(key(list, row.id), { place, steps: 0 })
    edge.push(key(list, row.id))
  }
  for (let steps = 1; edge.length; steps++) {
    const next: string[] = []
    for (const at of edge)
      for (const to of near.get(at) ?? []) {
        if (found.has(to)) continue
        found.set(to, { place: found.get(at)!.place, steps })
        next.push(to)
      }
    edge = next
  }
  return rows.map(({ list, row }) => ({ list, id: row.id, steps: 0, ...found.get(key(list, row.id)) }))
}

/** Edges that say that two rows are at one spot; what merely covers something, or is parted before it, may be anywhere. */
const NOT_NEAR = new Set(['after', 'interfaces', 'behind', 'ports', 'connected', 'captiveUntil'])

function neighbours(graph: Graph): Map<string, string[]> {
  const near = new Map<string, string[]>()
  const add = (a: string, b: string) => near.set(a, [...(near.get(a) ?? []), b])
  const body = new Set(graph.parts.filter((p) => p.role === 'body').map((p) => p.id))
  for (const [list, fields] of Object.entries(EDGE_FIELDS) as [GraphList, Record<string, GraphList[]>][])
    for (const row of rowsOf(graph, list))
      for (const [field, to] of Object.entries(fields)) {
        if (NOT_NEAR.has(field)) continue
        for (const id of edgesOf(row[field] as Edges | undefined))
          for (const other of to) {
            // everything is in the case: that says nothing about where
            if (body.has(id) || !rowsOf(graph, other).some((r) => r.id === id)) continue
            add(key(list, row.id), key(other, id))
            add(key(other, id), key(list, row.id))
          }
      }
  return near
}
