import type { BenchFacts, LeakPlan } from '../bench-facts.ts'
import { edgesOf } from './edges.ts'
import { CASE_SPACE, type Graph, type Group, type Propeller, type Space, type Test } from './rows.ts'

/** Labour of a drive that nobody here has done yet, hours. */
const LABOUR = { openHours: 3, setHours: 3, closeHours: 3 }
const PINS: ReadonlySet<Propeller['held']> = new Set(['castle-pin', 'shear-pin'])

/** The space of the case itself. */
export const caseSpace = (graph: Graph): Space | undefined => graph.spaces?.find((s) => s.id === CASE_SPACE)

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

/** The screw that the oil leaves by. */
export const drainScrew = (graph: Graph): Group | undefined => graph.groups?.find((g) => g.port === 'drain')

/** What air tests need: pressures that rise, a hold, a volume and what it may lose; the volume of the oil where nobody has measured it. */
function leakOf(test: Test | undefined, volumeMl: number | undefined): LeakPlan | null {
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

const testOf = (graph: Graph, id: Test['id']) => graph.tests?.find((t) => t.id === id)

/**
 * The single facts that plan and route still ask for, out of the graph: of each kind the first row that has it, where a drive may have several. Read
 * only; nothing is kept of it.
 */
export function benchFactsOf(graph: Graph): BenchFacts {
  const { unit = {}, groups = [] } = graph
  const space = caseSpace(graph)
  const way = (id: string) => graph.ways?.find((w) => w.id === id)?.text ?? null
  const noTest = testOf(graph, 'case')?.noTest
  const left = groups.find((g) => g.hand === 'left')
  const captive = groups.find((g) => edgesOf(g.captiveUntil).length)
  const pinch = groups.find((g) => g.pinches)
  const pair = graph.sealPairs?.[0]
  const anodes = (graph.anodes ?? [])
    .map((a) => a.said?.find((s) => s.of === 'anodes')?.text ?? a.place)
    .join(', ')
  return {
    openGear: unit.openGear ?? null,
    shifts: unit.shifts ?? false,
    joins: joinsOf(graph),
    leftHand: left ? { what: left.name, place: left.place ?? '' } : null,
    captive: captive?.name ?? null,
    hidden: hiddenOf(groups),
    lockTabs: lockTabsOf(graph),
    pinchScrews: pinch ? { count: pinch.count ?? 1, where: pinch.where ?? '' } : null,
    sealSprings: pair?.springs ?? null,
    seals: { pair: pair?.sharedStep ?? false },
    raceLetters: way('race-letters'),
    oilFeed: way('oil-feed'),
    waterTube: way('water-tube'),
    shiftRod: way('shift-rod'),
    propeller: propellerOf(graph),
    telltale: unit.telltale ?? false,
    thrustHub: graph.propellers?.find((p) => p.hub)?.hub ?? null,
    leak: leakOf(testOf(graph, 'case'), space?.volumeMl ?? space?.fillMl),
    ...(noTest ? { noTest } : {}),
    lubricant: space?.holds === 'grease' ? 'grease' : 'oil',
    drainPlug: drainScrew(graph)?.plug ?? null,
    anodes: anodes || null,
    weightKg: unit.weightKg ?? null,
    labour: unit.hours ?? LABOUR,
    exchange: unit.exchange ?? null,
    used: unit.used ?? null,
  }
}

function joinsOf(graph: Graph): BenchFacts['joins'] {
  const joined = graph.interfaces?.find((i) => i.name !== undefined)
  if (!joined) return null
  const test = testOf(graph, 'joined')
  return {
    to: joined.name!,
    gear: joined.gear ?? 'neutral',
    oilJoint: joined.sharesOil === false ? null : leakOf(test, test?.volumeMl),
  }
}

function hiddenOf(groups: readonly Group[]): BenchFacts['hidden'] {
  const hidden = groups.filter((g) => g.hidden && g.where)
  if (!hidden.length) return null
  return {
    count: hidden.reduce((n, g) => n + (g.count ?? 1), 0),
    where: hidden.map((g) => g.where!).join('; '),
  }
}

function lockTabsOf(graph: Graph): BenchFacts['lockTabs'] {
  const ring = bigRing(graph)
  if (!ring?.torqueNm) return null
  return {
    what: ring.name,
    tabs: ring.tabs ?? 1,
    torqueNm: ring.torqueNm,
    reachedMounted: !edgesOf(ring.interfaces).length,
  }
}

function propellerOf(graph: Graph): BenchFacts['propeller'] {
  const propeller = graph.propellers?.find((p) => p.held)
  if (!propeller) return null
  const afterRun = propeller.afterRun ?? true
  if (PINS.has(propeller.held)) return { kind: 'pin', afterRun }
  const nut = propellerGroup(graph)
  if (!nut?.torqueNm) return null
  return { kind: 'tabs', tabs: nut.tabs ?? 1, threads: nut.threads ?? 1, torqueNm: nut.torqueNm, afterRun }
}

/** Path of the big nut or ring of a sheet, and of the nut of its first propeller; a path that leads nowhere where it has none. */
export const ringPath = (graph: Graph): string => `groups.${bigRing(graph)?.id ?? '-'}`
export const propellerNutPath = (graph: Graph): string => `groups.${propellerGroup(graph)?.id ?? '-'}`
