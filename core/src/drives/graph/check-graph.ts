import type { FieldProblem } from '../../checks/input-error.ts'
import { edgesOf } from './edges.ts'
import { EDGE_FIELDS, hasEdges, idsIn, lostEdges, rowsOf } from './edge-fields.ts'
import { GRAPH_LISTS, type Graph, type GraphList, type Group } from './rows.ts'

/** What a graph is checked against beside itself. */
export interface GraphSettings {
  /** Ids of everything that is set on the drive. */
  ids: ReadonlySet<string>
  /** Those that are a preload which no stack sets: a nut holds it. */
  preloads: readonly { id: string; label: string }[]
}

export interface GraphFindings {
  /** A job would be led astray by it. */
  wrong: FieldProblem[]
  /** It can be, and is worth a look. */
  doubtful: FieldProblem[]
}

/**
 * Whether a graph hangs together: edges that lead nowhere, ids used twice, rows that wait for one another, groups that cannot be; and what is worth a look:
 * a joint that nothing closes, a space that cannot be drained, a preload that nothing holds.
 */
export function checkGraph(graph: Graph, settings: GraphSettings): GraphFindings {
  const wrong: FieldProblem[] = []
  const doubtful: FieldProblem[] = []
  doubles(graph, wrong)
  for (const e of lostEdges(graph)) {
    const known = [...idsIn(graph, EDGE_FIELDS[e.list]![e.field]!)]
    wrong.push({
      path: `${e.list}[${e.index}].${e.field}`,
      message: `"${e.to}" does not exist; known are ${known.slice(0, 12).join(', ') || 'none'}. Name one of them, or take the edge out`,
    })
  }
  graph.parts.forEach((p, i) => {
    if (p.kind === 'nut')
      wrong.push({
        path: `parts[${i}].kind`,
        message: `${p.name}: nuts, bolts and locks are groups of fasteners with their pieces; add it there`,
      })
  })
  graph.groups?.forEach((g, i) => wrong.push(...groupProblems(g, `groups[${i}]`)))
  graph.settings?.forEach((s, i) => {
    if (!settings.ids.has(s.id))
      wrong.push({
        path: `settings[${i}].id`,
        message: `"${s.id}" is nothing that is set on this drive; known are ${[...settings.ids].slice(0, 12).join(', ') || 'none'}`,
      })
  })
  circles(graph, wrong)
  open(graph, settings, doubtful)
  return { wrong, doubtful }
}

/** Ids within a list; parts, pieces and groups share one set, where a group may be named like its own piece. */
function doubles(graph: Graph, wrong: FieldProblem[]) {
  for (const list of GRAPH_LISTS) {
    const seen = new Set<string>()
    rowsOf(graph, list).forEach((r, i) => {
      if (seen.has(r.id)) wrong.push({ path: `${list}[${i}].id`, message: `"${r.id}" is used twice` })
      seen.add(r.id)
    })
  }
  const taken = new Set(graph.parts.map((p) => p.id))
  graph.groups?.forEach((g, i) => {
    if (taken.has(g.id))
      wrong.push({
        path: `groups[${i}].id`,
        message: `"${g.id}" is the id of a part as well; edges could not tell them apart. Give the group another one`,
      })
  })
  graph.groups?.forEach((g, i) =>
    g.pieces?.forEach((p, k) => {
      if (taken.has(p.id))
        wrong.push({ path: `groups[${i}].pieces[${k}].id`, message: `"${p.id}" is used twice` })
      taken.add(p.id)
    }),
  )
}

/** What is wrong with one group of fasteners. */
export function groupProblems(g: Group, at: string): FieldProblem[] {
  const problems: FieldProblem[] = []
  const say = (field: string, message: string) => problems.push({ path: `${at}.${field}`, message })
  if (g.count !== undefined && !(Number.isInteger(g.count) && g.count >= 1))
    say('count', `is ${g.count}; a group has at least one fastener`)
  const { min, max } = g.torqueNm ?? {}
  if (min !== undefined && max !== undefined && min > max)
    say('torqueNm', `is upside down: smallest ${min} Nm, largest ${max} Nm; swap the two`)
  if (g.stages?.some((s, i) => !(s > 0 && s < 1) || s <= (g.stages![i - 1] ?? 0)))
    say('stages', 'rise from one to the next, each a part of the last torque: 0.5 is half')
  if (g.tabs !== undefined && g.lock !== undefined && g.lock !== 'tab-washer')
    say('tabs', 'belong to a tab washer')
  return problems
}

/** What each row of the teardown waits for, by id. */
function waits(graph: Graph): Map<string, string[]> {
  const all = new Map<string, string[]>()
  for (const p of graph.parts) all.set(p.id, [...edgesOf(p.after), ...edgesOf(p.in), ...edgesOf(p.on)])
  for (const g of graph.groups ?? []) all.set(g.id, edgesOf(g.after))
  for (const g of graph.groups ?? [])
    for (const id of edgesOf(g.holds)) all.set(id, [...(all.get(id) ?? []), g.id])
  // what lies in the case itself has not to wait until the case is off
  for (const p of graph.parts)
    if (p.role === 'body')
      for (const [id, after] of all)
        all.set(
          id,
          after.filter((a) => a !== p.id),
        )
  return all
}

/** Rows that wait for one another: none of them could ever come off. */
function circles(graph: Graph, wrong: FieldProblem[]) {
  const all = waits(graph)
  const nameOf = (id: string) =>
    graph.parts.find((p) => p.id === id)?.name ?? graph.groups?.find((g) => g.id === id)?.name ?? id
  const done = new Set<string>()
  const walk = (id: string, way: readonly string[]): string[] | undefined => {
    const at = way.indexOf(id)
    if (at >= 0) return way.slice(at)
    if (done.has(id)) return undefined
    for (const next of all.get(id) ?? []) {
      const circle = walk(next, [...way, id])
      if (circle) return circle
    }
    done.add(id)
    return undefined
  }
  for (const id of all.keys()) {
    const circle = walk(id, [])
    if (!circle) continue
    const list: GraphList = graph.parts.some((p) => p.id === circle[0]) ? 'parts' : 'groups'
    const index = rowsOf(graph, list).findIndex((r) => r.id === circle[0])
    wrong.push({
      path: `${list}[${index}].after`,
      message: `${circle.map(nameOf).join(' waits for ')} waits for ${nameOf(circle[0]!)}: none of them could come off. Take one of these out`,
    })
    return
  }
}

/** What is left open, and is worth a look. */
function open(graph: Graph, settings: GraphSettings, doubtful: FieldProblem[]) {
  graph.joints?.forEach((j, i) => {
    if (j.kind !== 'shaft' && !edgesOf(j.closedBy).length)
      doubtful.push({ path: `joints[${i}].closedBy`, message: `${j.name}: nothing says what closes it` })
    if (j.provedBy === 'none' && !j.unproved && !edgesOf(j.interfaces).length)
      doubtful.push({
        path: `joints[${i}].unproved`,
        message: `${j.name}: it is not proved tight, and nothing says why not`,
      })
  })
  const drained = graph.groups?.some((g) => g.port === 'drain')
  graph.spaces?.forEach((s, i) => {
    if (s.holds === 'oil' && !drained && graph.parts.length)
      doubtful.push({
        path: `spaces[${i}]`,
        message: `${s.name}: it holds oil, and no screw is the drain; nothing says how it is emptied`,
      })
  })
  const held = new Set((graph.settings ?? []).filter((s) => edgesOf(s.preloadedBy).length).map((s) => s.id))
  for (const p of settings.preloads)
    if (!held.has(p.id))
      doubtful.push({
        path: `settings.${p.id}.preloadedBy`,
        message: `${p.label}: nothing says which nut holds its preload`,
      })
}

/** Lists whose rows the work knows by their edges alone. */
const BY_EDGES = [
  'parts',
  'groups',
  'joints',
  'propellers',
  'sealFits',
  'anodes',
  'ways',
  'lubricants',
  'clearances',
] as const

/** Rows to and from which nothing leads: they are looked at, and nothing of the work knows them. The case itself leads nowhere. */
export function inTheAir(graph: Graph): { list: GraphList; id: string }[] {
  return BY_EDGES.flatMap((list) =>
    rowsOf(graph, list)
      .filter((r) => r.role !== 'body' && !hasEdges(graph, list, r.id))
      .map((r) => ({ list, id: r.id })),
  )
}
