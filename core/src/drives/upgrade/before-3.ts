import type { LeakPlan } from '../leak-plan.ts'
import type { BenchFacts } from './bench-3.ts'
import type { Fastener } from '../fasteners.ts'
import type { Further } from '../further.ts'
import type { Part } from '../parts.ts'
import type { DriveSheet } from '../sheet.ts'
import type { Body3 } from './body-3.ts'
import { withRoles } from './part-roles.ts'

/** A sheet as it stood before there was a format: whole, with null where it had nothing. */
interface OldSheet extends Omit<
  DriveSheet,
  'graph' | 'parts' | 'bench' | 'fasteners' | 'further' | 'runoutLimits'
> {
  runoutLimits?: DriveSheet['runoutLimits']
  parts: Part[]
  bench: BenchFacts
  fasteners?: Fastener[]
  further?: Further
}
/** As the very first ones were stored. */
export type StoredBefore3 = Omit<OldSheet, 'parts' | 'bench'> & {
  parts?: Part[]
  bench?: BenchFacts | OldBench
}

/** Bench facts of a sheet that was written before sheets had them: nothing special about the drive. */
const PLAIN: BenchFacts = {
  openGear: null,
  shifts: false,
  joins: null,
  leftHand: null,
  captive: null,
  hidden: null,
  lockTabs: null,
  pinchScrews: null,
  sealSprings: 'both inward',
  seals: { pair: false },
  raceLetters: null,
  oilFeed: null,
  waterTube: null,
  shiftRod: null,
  propeller: null,
  telltale: false,
  thrustHub: null,
  // a sheet that says nothing of a pressure test says no pressure either
  leak: null,
  lubricant: 'oil',
  drainPlug: null,
  anodes: null,
  weightKg: null,
  labour: { openHours: 3, setHours: 3, closeHours: 3 },
  exchange: null,
  used: null,
}

/**
 * A stored sheet as this Moray knows sheets. Sheets written by an older one lack parts, bench facts, or the roles of parts and stamps; all of
 * those are sheets of the demo, whose ids say what they are.
 */
function asSheet(stored: StoredBefore3): OldSheet {
  const { ratio } = stored
  return {
    ...stored,
    parts: (stored.parts ?? []).map(withRoles),
    bench: stored.bench ? knownBench(stored.bench) : PLAIN,
    ...(ratio ? { ratio: { ...ratio, stamps: ownStamps(stored.id, ratio.stamps) } } : {}),
  }
}

/** A stored sheet as a body of format 3. No limit is invented. */
export function asBody3(stored: Body3 | StoredBefore3): Body3 {
  return 'format' in stored ? stored : bodyOf(asSheet(stored))
}

/** A sheet that stands as the body that is kept of it: the same, less what is said by being absent. */
function bodyOf(sheet: OldSheet): Body3 {
  const { lacks: _lacks, edition: _edition, meshes, ...rest } = sheet
  return {
    format: 3,
    ...(withoutNulls(rest) as Omit<Body3, 'format' | 'meshes'>),
    meshes: meshes.map(({ basis: _basis, u: _u, ...m }) => m),
  }
}

/** What a file says by null, a body says by silence. */
function withoutNulls(v: unknown): unknown {
  if (Array.isArray(v)) return v.map(withoutNulls)
  if (typeof v !== 'object' || v === null) return v
  return Object.fromEntries(
    Object.entries(v).flatMap(([k, x]) => (x === null || x === undefined ? [] : [[k, withoutNulls(x)]])),
  )
}

/** Bench facts as an older Moray kept them: ports as a count, no joined test, nothing said of what is reached when. */
type OldBench = Omit<BenchFacts, 'leak' | 'joins' | 'lockTabs' | 'propeller' | 'telltale'> & {
  leak: (Omit<LeakPlan, 'ports'> & { ports?: string[]; blocks?: number }) | null
  joins: (Omit<NonNullable<BenchFacts['joins']>, 'oilJoint'> & { oilJoint?: LeakPlan | null }) | null
  lockTabs:
    | (Omit<NonNullable<BenchFacts['lockTabs']>, 'reachedMounted'> & { reachedMounted?: boolean })
    | null
  propeller: (Record<string, unknown> & { afterRun?: boolean }) | null
  telltale?: boolean
}

function knownBench(bench: BenchFacts | OldBench): BenchFacts {
  const { leak, joins, lockTabs, propeller } = bench as OldBench
  const ports = (p: NonNullable<OldBench['leak']>) =>
    p.ports ?? Array.from({ length: p.blocks ?? 0 }, (_, i) => `Port ${i + 1}`)
  return {
    ...bench,
    leak: leak && { ...leak, ports: ports(leak) },
    joins: joins && { ...joins, oilJoint: joins.oilJoint ?? null },
    lockTabs: lockTabs && { ...lockTabs, reachedMounted: lockTabs.reachedMounted ?? propeller !== null },
    propeller:
      propeller && ({ ...propeller, afterRun: propeller.afterRun ?? true } as BenchFacts['propeller']),
    telltale: bench.telltale ?? bench.waterTube !== null,
  }
}

/** Codes of the demo's own sheets, by sheet: stamps did not say it themselves once. */
const OWN_CODES: Record<string, string> = {
  'lomvi-90': 'L13',
  'alke-2-upper': 'A21/14',
  'alke-2-lower': 'A21/14',
  'havsule-duo-upper': 'H23/16',
  'havsule-duo-lower': 'H23/16',
  'rordrum-v': 'R18',
  'teist-6': 'T13',
  'sivkrok-b': 'SB34',
}

type Stamps = NonNullable<DriveSheet['ratio']>['stamps']

function ownStamps(sheetId: string, stamps: Stamps): Stamps {
  if (stamps.some((s) => s.own)) return stamps
  return stamps.map((s) => (s.code === OWN_CODES[sheetId] ? { ...s, own: true } : s))
}
