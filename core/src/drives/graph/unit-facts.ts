import type { LeakPlan } from '../leak-plan.ts'
import { edgesOf } from './edges.ts'
import {
  CASE_SPACE,
  type Graph,
  type Group,
  type Interface,
  type Propeller,
  type Space,
  type Test,
  type Unit,
} from './rows.ts'

/** What plan and route read off the rows of a drive: of each kind the rows that have it, or what follows from one. */

/** Labour of a drive that nobody here has done yet, hours. */
const LABOUR = { openHours: 3, setHours: 3, closeHours: 3 }
const PINS: ReadonlySet<Propeller['held']> = new Set(['castle-pin', 'shear-pin'])

/** The space of the case itself. */
export const caseSpace = (graph: Graph): Space | undefined => graph.spaces?.find((s) => s.id === CASE_SPACE)
export const lubricantOf = (graph: Graph): 'oil' | 'grease' =>
  caseSpace(graph)?.holds === 'grease' ? 'grease' : 'oil'
export const labourOf = (graph: Graph): NonNullable<Unit['hours']> => graph.unit?.hours ?? LABOUR
/** How something is done on this drive, as its manual says it. */
export const wayOf = (graph: Graph, id: string): string | undefined =>
  graph.ways?.find((w) => w.id === id)?.text

/** Groups that hold a propeller. */
const propellerGroups = (graph: Graph) => new Set((graph.propellers ?? []).flatMap((p) => edgesOf(p.heldBy)))

/** The big nut or ring: the first group that is locked by tabs and holds no propeller. */
export function bigRing(graph: Graph): Group | undefined {
  const ofPropellers = propellerGroups(graph)
  return graph.groups?.find((g) => g.lock === 'tab-washer' && !ofPropellers.has(g.id))
}

/** The group that holds the first propeller. */
export function propellerGroup(graph: Graph): Group | undefined {
  const ofPropellers = propellerGroups(graph)
  return graph.groups?.find((g) => ofPropellers.has(g.id))
}

const groupsThat = (graph: Graph, are: (g: Group) => boolean): Group[] => (graph.groups ?? []).filter(are)
/** The screw that the oil leaves by. */
export const drainScrew = (graph: Graph): Group | undefined => graph.groups?.find((g) => g.port === 'drain')
/** Fasteners that loosen clockwise. */
export const leftHanded = (graph: Graph): Group[] => groupsThat(graph, (g) => g.hand === 'left')
/** Fasteners that can only go in while the halves are apart. */
export const captives = (graph: Graph): Group[] =>
  groupsThat(graph, (g) => edgesOf(g.captiveUntil).length > 0)
/** Screws that only pinch and stay in their holes. */
export const pinchScrews = (graph: Graph): Group[] => groupsThat(graph, (g) => g.pinches === true)

/** Fasteners that are easily forgotten, and where they are. */
export function hiddenOnes(graph: Graph): { count: number; where: string } | undefined {
  const hidden = groupsThat(graph, (g) => g.hidden === true && !!g.where)
  if (!hidden.length) return undefined
  return {
    count: hidden.reduce((n, g) => n + (g.count ?? 1), 0),
    where: hidden.map((g) => g.where!).join('; '),
  }
}

/** Locking of the big nut or ring: tabs that must be bent into slots. `reachedMounted`: it can still be reached once the drive is on the boat. */
export function ringLock(graph: Graph) {
  const ring = bigRing(graph)
  if (!ring?.torqueNm) return undefined
  return {
    what: ring.name,
    tabs: ring.tabs ?? 1,
    torqueNm: ring.torqueNm,
    reachedMounted: !edgesOf(ring.interfaces).length,
  }
}

/** How the first propeller is held. `afterRun`: it stays off until the drive has run on a hose. */
export function propellerHeld(graph: Graph) {
  const propeller = graph.propellers?.find((p) => p.held)
  if (!propeller) return undefined
  const afterRun = propeller.afterRun ?? true
  if (PINS.has(propeller.held)) return { kind: 'pin' as const, afterRun }
  const nut = propellerGroup(graph)
  if (!nut?.torqueNm) return undefined
  const { tabs = 1, threads = 1, torqueNm } = nut
  return { kind: 'tabs' as const, tabs, threads, torqueNm, afterRun }
}

/** The thrust hub or washer that belongs to the propellers fitted. */
export const thrustHubOf = (graph: Graph): string | undefined => graph.propellers?.find((p) => p.hub)?.hub

/** The anodes, as they are asked for. */
export const anodesSaid = (graph: Graph): string =>
  (graph.anodes ?? []).map((a) => a.said?.find((s) => s.of === 'anodes')?.text ?? a.place).join(', ')

/** What the unit is joined to; undefined where the sheet does not say. */
export function joinedTo(
  graph: Graph,
): { to: string; gear: 'neutral' | 'forward'; row: Interface } | undefined {
  const row = graph.interfaces?.find((i) => i.name !== undefined)
  return row && { to: row.name!, gear: row.gear ?? 'neutral', row }
}

const testOf = (graph: Graph, id: Test['id']) => graph.tests?.find((t) => t.id === id)

/** The test of this case by itself; null where none belongs, or its figures are not known. The volume of the oil where nobody has measured it. */
export function caseTest(graph: Graph): LeakPlan | null {
  const space = caseSpace(graph)
  return leakPlan(testOf(graph, 'case'), space?.volumeMl ?? space?.fillMl)
}

/** The test of both cases together; null where they share no oil, or its figures are not known. */
export function joinedTest(graph: Graph): LeakPlan | null {
  const joined = joinedTo(graph)
  if (!joined || joined.row.sharesOil === false) return null
  const test = testOf(graph, 'joined')
  return leakPlan(test, test?.volumeMl)
}

/** What air tests need: pressures that rise, a hold, a volume and what it may lose. */
function leakPlan(test: Test | undefined, volumeMl: number | undefined): LeakPlan | null {
  if (!test) return null
  const { workKpa, maxKpa, holdMin, allowedMlPerMin, allowedDrop } = test
  if (
    workKpa === undefined ||
    maxKpa === undefined ||
    holdMin === undefined ||
    (allowedMlPerMin === undefined && allowedDrop?.kpa === undefined) ||
    volumeMl === undefined
  )
    return null
  return {
    ports: test.ports ?? [],
    lowKpa: test.lowKpa ?? workKpa / 4,
    workKpa,
    maxKpa,
    holdMin,
    ...(allowedDrop?.kpa === undefined ? {} : { allowedDrop }),
    ...(allowedMlPerMin === undefined ? {} : { allowedMlPerMin }),
    volumeMl,
    turns: test.turns ?? 'Every shaft, both ways',
  }
}

/** Path of the big nut or ring of a sheet, and of the nut of its first propeller; a path that leads nowhere where it has none. */
export const ringPath = (graph: Graph): string => `groups.${bigRing(graph)?.id ?? '-'}`
export const propellerNutPath = (graph: Graph): string => `groups.${propellerGroup(graph)?.id ?? '-'}`
