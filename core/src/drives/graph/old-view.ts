import type { Fastener } from '../fasteners.ts'
import type { Closure, Further } from '../further.ts'
import { INSIDE, type Part } from '../parts.ts'
import { edgesOf, type Edges } from './edges.ts'
import type { Graph, GraphPart, Group, Joint, Piece, Said } from './rows.ts'

/** The lists that plan and route still read, out of the graph. They fall once the route follows the state. */

/**
 * What lies in the row, in the order in which it comes off: parts, and the loose pieces of groups, each piece right before the first part that its group
 * holds.
 */
export function partsOf(graph: Graph): Part[] {
  const groups = new Map((graph.groups ?? []).map((g) => [g.id, g]))
  const waits = waitingFor(graph, groups)
  const rows = graph.parts.map((p) => ({ id: p.id, part: asPart(p, waits.ofPart(p)) }))
  for (const g of graph.groups ?? []) {
    if (!g.pieces?.length) continue
    const after = waits.ofGroup(g)
    const pieces = g.pieces.map((p) => ({ id: p.id, part: pieceAsPart(g, p, after) }))
    rows.splice(placeOf(rows, edgesOf(g.holds), after), 0, ...pieces)
  }
  return rows.map((r) => r.part)
}

/** Before the first part that is held; without any, behind the last one that it waits for. */
function placeOf(
  rows: readonly { id: string }[],
  holds: readonly string[],
  after: readonly string[],
): number {
  const held = rows.findIndex((r) => holds.includes(r.id))
  return held >= 0 ? held : rows.findLastIndex((r) => after.includes(r.id)) + 1
}

/** What has to be off before a row can leave, by ids of the row: a group stands for its pieces, or for what it waits for where it has none. */
function waitingFor(graph: Graph, groups: ReadonlyMap<string, Group>) {
  const body = new Set(graph.parts.filter((p) => p.role === 'body').map((p) => p.id))
  const expand = (ids: readonly string[], seen: ReadonlySet<string>): string[] =>
    ids.flatMap((id) => {
      const group = groups.get(id)
      if (!group) return body.has(id) ? [] : [id]
      if (group.pieces?.length) return group.pieces.map((p) => p.id)
      return seen.has(id) ? [] : expand(edgesOf(group.after), new Set([...seen, id]))
    })
  const holders = new Map<string, string[]>()
  for (const g of groups.values())
    for (const id of edgesOf(g.holds)) holders.set(id, [...(holders.get(id) ?? []), g.id])
  return {
    // what lies in a lot is bared by what covers it within the lot, where something does
    ofPart: (p: GraphPart) => [
      ...new Set(
        expand(
          [
            ...edgesOf(p.after),
            ...(p.after ? [] : edgesOf(p.in)),
            ...edgesOf(p.on),
            ...(holders.get(p.id) ?? []),
          ],
          new Set(),
        ),
      ),
    ],
    ofGroup: (g: Group) => [...new Set(expand(edgesOf(g.after), new Set([g.id])))],
  }
}

function asPart(p: GraphPart, after: string[]): Part {
  const {
    after: _after,
    in: _in,
    on: _on,
    runsOn: _runs,
    interfaces,
    way: _way,
    number: _number,
    ...rest
  } = p
  return {
    count: 1,
    inside: INSIDE.includes(p.kind),
    ...rest,
    after,
    ...(edgesOf(interfaces).length ? { apart: true as const } : {}),
  }
}

/** It was said that a fastener cannot be got at before an interface is parted; what is only assumed keeps nobody from trying. */
const isApart = (interfaces: Edges | undefined) => Object.values(interfaces ?? {}).includes(true)

function pieceAsPart(g: Group, p: Piece, after: string[]): Part {
  const { useOnce: _once, number: _number, ...rest } = p
  const kind = p.kind ?? 'nut'
  return {
    ...((p.place ?? g.place) ? { place: p.place ?? g.place! } : {}),
    count: 1,
    inside: INSIDE.includes(kind),
    ...rest,
    kind,
    after,
    ...(g.hand === 'left' ? { thread: 'left' as const } : {}),
    ...(isApart(g.interfaces) ? { apart: true as const } : {}),
  }
}

const words = (of: Said['of'], said: readonly Said[] | undefined) => said?.find((s) => s.of === of)?.text

/** Groups as lines of a torque list. */
export function fastenersOf(graph: Graph): Fastener[] {
  const joints = graph.joints ?? []
  const named = [...joints, ...(graph.interfaces ?? [])]
  const nameOf = (id: string) => named.find((r) => r.id === id)?.name ?? id
  return (graph.groups ?? [])
    .filter((g) => !g.assumed)
    .map((g): Fastener => {
      const {
        pieces: _pieces,
        holds: _holds,
        after: _after,
        interfaces: _interfaces,
        captiveUntil,
        place: _place,
        tightenedBy: _by,
        pinches: _pinches,
        port: _port,
        plug: _plug,
        threads: _threads,
        assumed: _assumed,
        said,
        ...rest
      } = g
      const closes = words('closes', said) ?? closedBy(joints, g.id)
      const captive = words('captive-until', said) ?? edgesOf(captiveUntil).map(nameOf).join(', ')
      return {
        ...rest,
        count: g.count ?? 1,
        ...(closes ? { closes } : {}),
        ...(captive ? { captiveUntil: captive } : {}),
      }
    })
}

const closedBy = (joints: readonly Joint[], group: string) =>
  joints
    .filter((j) => edgesOf(j.closedBy).includes(group))
    .map((j) => j.name)
    .join(', ')

const IN_AIR = new Set(['air', 'vacuum', 'joined-air'])

function closuresOf(graph: Graph): Closure[] {
  const partName = (id: string) => graph.parts.find((p) => p.id === id)?.name ?? id
  return (graph.joints ?? []).flatMap((j): Closure[] => {
    if (j.assumed || j.kind === 'shaft') return []
    const sealedBy = words('sealed-by', j.said) ?? edgesOf(j.sealedBy).map(partName).join(', ')
    const fasteners = edgesOf(j.closedBy)
    return [
      {
        id: j.id,
        name: j.name,
        kind: j.kind,
        ...(fasteners.length ? { fasteners } : {}),
        ...(sealedBy ? { sealedBy } : {}),
        ...(j.provedBy === undefined ? {} : { tested: IN_AIR.has(j.provedBy) }),
      },
    ]
  })
}

/** What is read beside the figures, as the lists that it was kept in. Lists that hold nothing are left out. */
export function furtherOf(graph: Graph): Further | undefined {
  const { unit = {} } = graph
  const groups = new Map((graph.groups ?? []).map((g) => [g.id, g]))
  const further: Further = {
    closures: closuresOf(graph),
    sealDetails: (graph.sealFits ?? []).map(({ part: _part, ...s }) => s),
    shiftStates: unit.levers ?? [],
    tools: (graph.tools ?? []).map(({ for: _for, ...t }) => t),
    propellers: (graph.propellers ?? []).flatMap(
      ({ part: _part, heldBy, afterRun: _run, hub: _hub, held, ...p }) => {
        const torqueNm = edgesOf(heldBy).map((id) => groups.get(id)?.torqueNm)[0]
        return held ? [{ ...p, held, ...(torqueNm ? { torqueNm } : {}) }] : []
      },
    ),
    anodes: (graph.anodes ?? []).map(({ part: _part, said: _said, ...a }) => a),
    attitudes: unit.attitudes ?? [],
    cautions: unit.cautions ?? [],
    ...(unit.trimTab ? { trimTab: unit.trimTab } : {}),
    ...(unit.partner ? { partner: unit.partner } : {}),
    ...(unit.plateAt ? { plateAt: unit.plateAt } : {}),
    ...(unit.stampsAt ? { stampsAt: unit.stampsAt } : {}),
  }
  const kept = Object.entries(further).filter(([, v]) => !(Array.isArray(v) && v.length === 0))
  return kept.length ? (Object.fromEntries(kept) as Further) : undefined
}
