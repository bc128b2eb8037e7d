import { EDGE_FIELDS, lostEdges, rowsOf, withoutEdges } from '../graph/edge-fields.ts'
import type { Edges } from '../graph/edges.ts'
import { edgesOf } from '../graph/edges.ts'
import type { Graph, GraphList, Group, Piece } from '../graph/rows.ts'

/** What a bare row keeps of the family's sheet: what it is, and nothing that a manual says of one drive. */
const KEPT: Partial<Record<GraphList, readonly string[]>> = {
  parts: ['id', 'name', 'kind', 'place', 'count', 'set', 'kit', 'inside', 'role', 'pointedAtBy', 'keeps'],
  groups: ['id', 'name', 'place', 'tightenedBy', 'pinches', 'port'],
  joints: ['id', 'name', 'kind', 'level', 'provedBy', 'unproved'],
  interfaces: ['id', 'name', 'kind'],
  spaces: ['id', 'name', 'holds'],
  settings: ['id', 'readWhen'],
  sealPairs: ['id', 'sharedStep'],
  propellers: ['id', 'name', 'place', 'afterRun'],
}
const OF_A_PIECE = [
  'id',
  'name',
  'kind',
  'place',
  'count',
  'set',
  'kit',
  'inside',
  'role',
  'pointedAtBy',
] as const

/**
 * The graph of a family without a figure: its usual rows, and edges that nobody has confirmed yet.
 * @param joinedTo what its case is joined to; the family's sheet has another drive's name for it
 */
export function bareGraph(like: Graph, joinedTo: string | undefined): Graph {
  const lists = Object.keys(KEPT) as GraphList[]
  const rows = Object.fromEntries(
    lists.flatMap((list) => {
      const kept = rowsOf(like, list)
        .filter((row) => !(list === 'groups' && isOneDrives(row as unknown as Group)))
        .map((row) => bareRow(list, row))
      return kept.length ? [[list, kept]] : []
    }),
  ) as unknown as Graph
  const bare = withoutEdges(rows, lostEdges(rows))
  const noTest = like.tests?.find((t) => t.noTest)?.noTest
  const { shifts = false, telltale = false } = like.unit ?? {}
  return {
    ...bare,
    ...(bare.groups ? { groups: bare.groups.map((g) => withPieces(g, like)) } : {}),
    ...(bare.interfaces && joinedTo
      ? { interfaces: bare.interfaces.map((i) => ({ ...i, name: joinedTo })) }
      : {}),
    ...(noTest ? { tests: [{ id: 'case', noTest }] } : {}),
    unit: { shifts, telltale },
  }
}

/** What is hidden, or has to go in before, is where this one drive has it. */
const isOneDrives = (g: Group) => g.hidden === true || g.captiveUntil !== undefined

function bareRow(list: GraphList, row: Readonly<Record<string, unknown>>): object {
  const kept = KEPT[list]!.flatMap((k) => (row[k] === undefined ? [] : [[k, row[k]]]))
  const edges = Object.keys(EDGE_FIELDS[list] ?? {}).flatMap((field) => {
    const ids = edgesOf(row[field] as Edges | undefined)
    return ids.length ? [[field, Object.fromEntries(ids.map((id) => [id, 'assumed']))]] : []
  })
  return Object.fromEntries([...kept, ...edges])
}

function withPieces(group: Group, like: Graph): Group {
  const { pieces, count, lock } = like.groups!.find((g) => g.id === group.id)!
  const bare = pieces?.map((p) =>
    Object.fromEntries(OF_A_PIECE.flatMap((k) => (p[k] === undefined ? [] : [[k, p[k]]]))),
  ) as Piece[] | undefined
  // how many there are is a figure of the drive; one is one everywhere
  return {
    ...group,
    ...(count === 1 ? { count } : {}),
    // tabs and pins are seen; what goes on a thread is the manual's
    ...(lock === 'tab-washer' || lock === 'castle-pin' ? { lock } : {}),
    ...(bare ? { pieces: bare } : {}),
  }
}
