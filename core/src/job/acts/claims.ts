import type { Deed } from '../../assembly/act.ts'
import type { AssemblyIndex } from '../../assembly/assembly-index.ts'
import type { Goal } from '../../assembly/goal.ts'
import { whatIsLeft } from '../../assembly/left.ts'
import type { AssemblyState } from '../../assembly/state.ts'
import { bigRing } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { struckBy } from '../../inspection/struck.ts'
import type { Closing } from '../record.ts'
import { honestOf } from '../../route/honest.ts'
import { deriveFacts } from '../../route/job-facts.ts'
import { baseOf } from '../../route/occurrence.ts'
import { oldRepairStep, repairPlan, type Repair } from '../../route/repair.ts'
import { routeOf } from '../../route/route-of.ts'
import { NOT_FOUND } from '../../route/stages/find-place.ts'
import { claimsOfStep, classesOn } from '../../route/step-acts.ts'
import { perSheet } from '../../drives/per-sheet.ts'
import type { DriveStepId, LeakTestId } from '../../route/step-ids.ts'

export interface Claiming {
  sheet: DriveSheet
  ix: AssemblyIndex
  state: AssemblyState
  goal: Goal
  repairs: readonly Repair[]
  closing: Closing
}

/**
 * What the closing of a step says was done: of everything that was left then, what the step is for, and what its answers say besides. Steps that only look,
 * think or wait claim nothing. Settings are proved by what is accepted, never by a closing.
 */
export function claimsOf(c: Claiming): Deed[] {
  const { sheet, ix, state, goal, closing } = c
  if (closing.undone) return []
  const old = oldRepairStep(closing.step)
  if (old) return oldRepairClaims(c, old.number, old.act)
  const base = baseOf(closing.step) as DriveStepId
  const own = new Set(claimsOfStep(base, stepsOf(sheet)))
  const classes = classesOn(sheet)
  const left = own.size
    ? whatIsLeft(ix, state, goal).deeds.filter(
        (d) => !ELSEWHERE.has(d.do) && classes(d).some((k) => own.has(k)),
      )
    : []
  const said = new Set(left.map((d) => `${d.do} ${d.on}`))
  return [...left, ...(BESIDES[base]?.(c) ?? []).filter((d) => !said.has(`${d.do} ${d.on}`))]
}

/** Steps of a drive's route; a step that it has not is done with another one. */
export const stepsOf = perSheet(
  (sheet): ReadonlySet<string> => new Set(routeOf(sheet).steps.map((s) => s.id)),
)

/** What readings, acceptances and answers say, and not that a step was closed. */
const ELSEWHERE: ReadonlySet<Deed['do']> = new Set(['accept', 'measure', 'prove', 'run'])

const know = (on: string): (() => Deed[]) => {
  const deeds: Deed[] = [{ do: 'know', on }]
  return () => deeds
}

const factsOf = ({ sheet, closing }: Claiming) => deriveFacts(sheet, closing.answers)

const proves =
  (test: 'case' | 'joined', step: LeakTestId) =>
  (c: Claiming): Deed[] => [
    { do: 'press', on: 'unit' },
    { do: 'prove', on: test, fig: { verdict: factsOf(c)[`${step}.proved`] === true ? 'good' : 'unclear' } },
    { do: 'let-out', on: 'unit' },
  ]

const drained = ({ ix, state }: Claiming): Deed[] => [
  ...[...ix.groups].flatMap(([on, g]): Deed[] => (g.row.port === 'drain' ? [{ do: 'take-out', on }] : [])),
  ...[...ix.spaces].flatMap(([on, s]): Deed[] =>
    s.holds === 'oil' && state.spaces.get(on)!.at !== 'out' ? [{ do: 'drain', on }] : [],
  ),
]

/** A shaft past its limit and a cracked case are unsafe, whoever says so and wherever it is read; gears that feel wrong are an open thing. */
function struck({ sheet, closing }: Claiming): Deed[] {
  const { parts, axes } = struckBy(sheet, closing.answers)
  return [
    ...parts.map((s): Deed => ({ do: 'grade', on: s.part.id, fig: { condition: 'unsafe', why: s.why } })),
    // a shaft that no part stands for is an open thing all the same
    ...axes.map((id): Deed => ({ do: 'find', on: `bent ${id}` })),
    ...(closing.answers['strike.gears'] === 'rough' ? [{ do: 'find' as const, on: 'rough gears' }] : []),
    ...(closing.answers['strike.flanges'] === 'marked' ? [{ do: 'find' as const, on: 'flanges' }] : []),
  ]
}

/** A leak that is found is one of its joint; one that nobody has found is an open thing. */
function placed({ ix, closing }: Claiming): Deed[] {
  const where = closing.answers['place.where']
  if (where === NOT_FOUND || typeof where !== 'string' || honestOf(where)) return [{ do: 'find', on: 'leak' }]
  return [
    { do: 'account', on: 'leak' },
    ...(ix.joints.has(where) ? [{ do: 'leak' as const, on: where }] : []),
  ]
}

/** Readings of the check at the end, and the word that the same parts were seated again. */
const checked = (c: Claiming): Deed[] =>
  [...c.ix.settings.keys()].flatMap((on): Deed[] => {
    const read = c.closing.answers[`check.${on}`]
    if (read === undefined || honestOf(read)) return []
    // against what was read as found; without it the same parts, seated and tightened, are the proof
    const good = c.closing.departedFrom.length === 0
    return [{ do: 'measure', on, fig: { check: true, verdict: good ? 'good' : 'bad' } }]
  })

/** The ring is home when the case is tightened; its torque may come once the unit hangs. */
const ringHome = ({ sheet, state }: Claiming): Deed[] => {
  const ring = bigRing(sheet.graph)
  const at = ring && state.groups.get(ring.id)?.at
  return ring && (at === 'loose' || at === 'out') ? [{ do: 'snug', on: ring.id }] : []
}

/** What a step's answers say besides what was left. */
const BESIDES: Partial<Record<DriveStepId, (c: Claiming) => Deed[]>> = {
  'find-place': placed,
  drain: drained,
  strike: struck,
  ratio: know('ratio'),
  'unit-ratio': know('ratio'),
  'unit-overall': know('ratio'),
  tighten: ringHome,
  'check-set': checked,
  'leak-case': proves('case', 'leak-case'),
  'leak-joined': proves('joined', 'leak-joined'),
  'shift-check': know('shift'),
  'first-run': ({ closing }) => [
    { do: 'run', on: 'unit', fig: { dry: closing.departedFrom.length === 0 } },
    { do: 'know', on: 'water' },
  ],
  propeller: know('propeller-turns'),
}

/** A repair of an older Moray took off, renewed and put back what its plan named; nothing else was ever asked of it. */
function oldRepairClaims(
  { sheet, state, repairs }: Claiming,
  number: number,
  act: 'open' | 'renew' | 'close',
): Deed[] {
  const repair = repairs.find((r) => r.number === number)
  if (!repair) return []
  const plan = repairPlan(sheet, repair)
  if (act === 'open')
    return plan.off.filter((p) => state.parts.get(p.id)?.at === 'in').map((p) => ({ do: 'remove', on: p.id }))
  if (act === 'renew') return plan.renew.map((r) => ({ do: 'renew', on: r.part }))
  return plan.off.map((p) => ({ do: 'fit', on: p.id }))
}
