import type { BenchFacts, LeakPlan } from './bench-facts.ts'
import { bodyOf, type SheetBody } from './own/body.ts'
import type { DriveSheet } from './sheet.ts'
import { withRoles } from './sheets/part-roles.ts'

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
export function asSheet(
  stored:
    | DriveSheet
    | (Omit<DriveSheet, 'parts' | 'bench'> &
        Partial<Omit<DriveSheet, 'bench'>> & { bench?: BenchFacts | OldBench }),
): DriveSheet {
  const { ratio } = stored
  return {
    ...stored,
    parts: (stored.parts ?? []).map(withRoles),
    bench: stored.bench ? benchOf(stored.bench) : PLAIN,
    ...(ratio ? { ratio: { ...ratio, stamps: ownStamps(stored.id, ratio.stamps) } } : {}),
  }
}

/** A stored sheet as a body of the present format, whichever Moray wrote it. No limit is invented. */
export function asBody(stored: SheetBody | Parameters<typeof asSheet>[0]): SheetBody {
  return 'format' in stored ? stored : bodyOf(asSheet(stored))
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

function benchOf(bench: BenchFacts | OldBench): BenchFacts {
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
