import type { Edges } from './edges.ts'
import type { Graph, GraphList } from './rows.ts'

/** Every edge that rows may have, and the lists in which they may end. */
export const EDGE_FIELDS: Partial<Record<GraphList, Readonly<Record<string, readonly GraphList[]>>>> = {
  parts: {
    after: ['parts', 'groups'],
    in: ['parts'],
    on: ['parts'],
    runsOn: ['parts'],
    interfaces: ['interfaces'],
  },
  groups: {
    holds: ['parts'],
    after: ['parts', 'groups'],
    interfaces: ['interfaces'],
    captiveUntil: ['joints', 'interfaces'],
  },
  joints: {
    between: ['parts'],
    sealedBy: ['parts'],
    closedBy: ['groups'],
    behind: ['spaces'],
    interfaces: ['interfaces'],
    ports: ['groups'],
  },
  interfaces: { closedBy: ['groups'] },
  spaces: { connected: ['interfaces'] },
  settings: { carriedBy: ['parts'], preloadedBy: ['groups'], through: ['parts', 'groups'] },
  sealFits: { part: ['parts'] },
  sealPairs: { part: ['parts'] },
  propellers: { part: ['parts'], heldBy: ['groups'] },
  anodes: { part: ['parts'] },
  tools: { for: ['groups', 'parts'] },
  ways: { at: ['parts', 'groups', 'joints'] },
  clearances: { between: ['parts'] },
  lubricants: { at: ['parts', 'groups', 'joints', 'sealFits'] },
}

export interface Edge {
  list: GraphList
  /** Place in its list. */
  index: number
  row: string
  field: string
  to: string
}

type Row = { id: string } & Record<string, unknown>
export const rowsOf = (graph: Graph, list: GraphList): readonly Row[] =>
  (graph[list] ?? []) as unknown as readonly Row[]

/** Ids by which the rows of a list are met; the loose pieces of a group lie among the parts, and are met by their group. */
export const idsIn = (graph: Graph, lists: readonly GraphList[]): Set<string> =>
  new Set(lists.flatMap((l) => rowsOf(graph, l).map((r) => r.id)))

/** Every edge of a graph, those that are not known included. */
export function allEdges(graph: Graph): Edge[] {
  return Object.entries(EDGE_FIELDS).flatMap(([list, fields]) =>
    rowsOf(graph, list as GraphList).flatMap((row, index) =>
      Object.keys(fields).flatMap((field) =>
        Object.keys((row[field] as Edges | undefined) ?? {}).map((to) => ({
          list: list as GraphList,
          index,
          row: row.id,
          field,
          to,
        })),
      ),
    ),
  )
}

/** Edges that lead to no row. */
export function lostEdges(graph: Graph): Edge[] {
  const known = new Map<string, Set<string>>()
  const idsOf = (lists: readonly GraphList[]) => {
    const key = lists.join()
    let ids = known.get(key)
    if (!ids) known.set(key, (ids = idsIn(graph, lists)))
    return ids
  }
  return allEdges(graph).filter((e) => !idsOf(EDGE_FIELDS[e.list]![e.field]!).has(e.to))
}

/** The graph without some of its edges; a row that loses none is the very same one. */
export function withoutEdges<T extends Graph>(graph: T, gone: readonly Edge[]): T {
  const next = { ...graph } as Record<string, unknown>
  for (const list of new Set(gone.map((e) => e.list))) {
    const mine = gone.filter((e) => e.list === list)
    next[list] = rowsOf(graph, list).map((row) => {
      const lost = mine.filter((e) => e.row === row.id)
      return lost.reduce((r: Row, e) => withoutEdge(r, e), row)
    })
  }
  return next as T
}

function withoutEdge(row: Row, { field, to }: Edge): Row {
  const { [to]: _gone, ...left } = row[field] as Edges
  const { [field]: _before, ...rest } = row
  return (Object.keys(left).length ? { ...rest, [field]: left } : rest) as Row
}

/** Whether an edge leads to a row of a list. */
export const leadsTo = (e: Edge, list: GraphList, id: string): boolean =>
  e.to === id && EDGE_FIELDS[e.list]![e.field]!.includes(list)

/** Whether anything of the graph leads to or from a row. */
export const hasEdges = (graph: Graph, list: GraphList, id: string): boolean =>
  allEdges(graph).some((e) => (e.list === list && e.row === id) || leadsTo(e, list, id))
