import { actsOf, type ActsOfRecord } from './acts/acts-of-record.ts'
import { stepsOf } from './acts/claims.ts'
import type { Deed } from '../assembly/act.ts'
import { invariants, isFirm, type Line } from '../assembly/invariants.ts'
import { afterDeeds, whatIsLeft, type Left } from '../assembly/left.ts'
import type { AssemblyState } from '../assembly/state.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { lineText } from './acts/line-text.ts'
import type { Condition, Facts } from '../route/facts.ts'
import { isNotHere } from '../route/honest.ts'
import { isWhole } from '../route/scope.ts'
import { baseOf, timeOf } from '../route/occurrence.ts'
import type { Plan } from '../route/plan.ts'
import { stepWithRole } from '../route/progress.ts'
import type { Gate, Route, Step } from '../route/route.ts'
import { routeOf } from '../route/route-of.ts'
import { actsOfStep, claimsOfStep, classesOn, type ActClass } from '../route/step-acts.ts'
import type { DriveStepId } from '../route/step-ids.ts'
import { timeOfRepair, withOccurrences } from '../route/with-occurrences.ts'
import { workFacts } from '../route/work-facts.ts'
import { counted, doneSteps } from './closings.ts'
import { isAfter, lastOf } from './entered.ts'
import type { Closing, JobRecord } from './record.ts'

/** What was done to the unit, what is left to do, and the route that leads through it. */
export interface JobWork extends ActsOfRecord {
  left: Left
  /** What is not as it must be when the unit leaves, as it stands now; of a case that waits for the other one, what is its own. */
  lines: Line[]
  route: Route
  facts: Facts
  /** Settings that are set anew. */
  sets: ReadonlySet<string>
}

export function workOf(record: JobRecord, sheet: DriveSheet, plan: Plan): JobWork {
  const read = actsOf({ record, sheet, plan })
  const { ix, acts, state, goal, inferred, rounds } = read
  const left = whatIsLeft(ix, state, goal)
  const classes = classesOn(sheet)
  const all = (deeds: readonly Deed[], found = new Set<ActClass>()) => {
    for (const d of deeds) for (const c of classes(d)) found.add(c)
    return found
  }
  // a reading by itself is no act of the work, and of a unit that was exchanged nothing counts that was done to the one before
  const came = acts.findLast((a) => a.do === 'came' || a.key === 'came')?.n ?? 0
  const own = acts.filter(
    (a) =>
      a.n > came &&
      (a.do !== 'measure' || a.fig?.check) &&
      // what was put back before it was stopped asks for nothing more
      (goal.closes || !CLOSING.has(a.do)),
  )
  const leftClasses = all(left.deeds)
  const done = all(
    inferred.filter((d) => d.before > came),
    all(own, new Set(leftClasses)),
  )
  const begun = rounds.at(-1)
  const touched =
    begun === undefined
      ? done
      : all(
          own.filter((a) => a.n >= begun),
          new Set(leftClasses),
        )
  const steps = stepsOf(sheet)
  const isFor = (base: string, of: ReadonlySet<ActClass>) => actsOfStep(base, steps).some((c) => of.has(c))
  const again = withOccurrences(routeOf(sheet), {
    repairs: record.loops,
    takenBack: takenBackIn(record),
    closed: counted(record.closings)
      .filter((c) => steps.has(baseOf(c.step)))
      .map((c) => ({
        id: c.id,
        step: c.step,
        undone: c.undone === true,
        round: record.loops.filter((l) => isAfter(c, l)).length,
        departed: c.departedFrom.length > 0 || Object.values(c.answers).some(isNotHere),
      })),
    isLeft: (base, last) => {
      if (last.undone) return false
      // what it claimed is done: whatever of it is left has come up since
      if (claimsOfStep(base, steps).some((c) => leftClasses.has(c))) return true
      const goesWith = actsOfStep(base, steps).filter((c) => leftClasses.has(c))
      if (last.departed || !goesWith.length) return false
      // what it only goes with was left then as well: it comes up again once that was done, and undone
      const from = read.begun.get(`closing ${last.id}`)!
      const since = all(own.filter((a) => a.n >= from))
      return goesWith.some((c) => since.has(c))
    },
    isTouched: (base) => isFor(base, touched),
  })
  const row = new Set(record.row.map((r) => r.part))
  const isInRow = plan.off.every((p) => row.has(p.id))
  const lines = record.partner?.follows
    ? ownLines(read, left, sheet)
    : invariants(ix, { ...state, end: goal.end })
  return {
    ...read,
    left,
    lines,
    route: withLines(withNames(again, sheet, left, isInRow), sheet, record, lines),
    facts: workFacts(plan, goal.end, done, {
      opens: isOpened(read, left.open),
      whole: isWhole(sheet, plan.scope),
    }),
    sets: new Set([...left.deeds, ...own].flatMap((d) => (d.do === 'accept' ? [d.on] : []))),
  }
}

/** Acts by which a unit is put back together. */
const CLOSING: ReadonlySet<Deed['do']> = new Set<Deed['do']>([
  'fit',
  'press-in',
  'renew',
  'snug',
  'tighten',
  'lock',
  'join',
  'fill',
  'settle',
  'prove',
  'accept',
  'measure',
  'run',
  'know',
])

/** Steps that were taken back and are done again; not those of a rebuild that the owner has decided against since. */
function takenBackIn({ closings, estimates }: JobRecord): ReadonlySet<string> {
  const decided = estimates.flatMap((e) =>
    e.approval && e.approval.choice !== 'rebuild' ? [e.approval] : [],
  )
  const since = lastOf(decided)
  return new Set(
    closings.flatMap((c) =>
      c.takenBack && !c.takenBack.replacedBy && (!since || isAfter(c, since)) ? [baseOf(c.step)] : [],
    ),
  )
}

/** Steps that are done once for a unit of two cases, on the route of the case that leads. */
const OF_THE_UNIT: readonly DriveStepId[] = [
  'join',
  'leak-joined',
  'fill-stand',
  'fill-mounted',
  'first-run',
  'shift-check',
  'propeller',
]

/** The lines of a case that waits for the other one: as they will be once all that is done for both is done there. */
function ownLines({ ix, state, goal }: ActsOfRecord, { deeds }: Left, sheet: DriveSheet): Line[] {
  const steps = stepsOf(sheet)
  const classes = classesOn(sheet)
  const shared = new Set(OF_THE_UNIT.flatMap((id) => actsOfStep(id, steps)))
  const then = afterDeeds(
    ix,
    state,
    deeds.filter((d) => classes(d).some((c) => shared.has(c))),
  )
  return invariants(ix, { ...then, end: goal.end })
}

/** What is opened once more: the step names what comes off, and what is new. */
function withNames(route: Route, sheet: DriveSheet, { deeds }: Left, isInRow: boolean): Route {
  const named = (wanted: (d: Deed) => boolean) =>
    deeds.filter(wanted).flatMap((d) => sheet.parts.find((p) => p.id === d.on)?.name ?? [])
  const kindOf = (d: Deed) => sheet.parts.find((p) => p.id === d.on)?.kind
  const list = (base: string): string | undefined => {
    if (base === 'apart') {
      const names = named((d) => d.do === 'remove')
      return names.length ? `Comes off, in this order: ${names.join(', ')}.` : undefined
    }
    const kind = base === 'seals' ? 'seal' : base === 'o-rings' ? 'ring' : undefined
    const names = kind ? named((d) => d.do === 'renew' && kindOf(d) === kind) : []
    return names.length ? `New: ${names.join(', ')}.` : undefined
  }
  return {
    ...route,
    steps: route.steps.map((s): Step => {
      const words = timeOf(s.id) > 1 ? list(baseOf(s.id)) : undefined
      if (words === undefined) return s
      const named = { ...s, instruct: [{ say: words }, ...(s.instruct ?? [])] }
      // what a repair takes off has been in the row already, unless the scope has grown with it
      if (timeOfRepair(s.stage) === undefined || !isInRow) return named
      const { page: _, ...rest } = named
      return rest
    }),
  }
}

/**
 * The drive is handed over when nothing is left to do, and what is still not as it must be was accepted by name: each line is a gate that is departed from
 * with a reason, and some by nobody. Until then the work itself is what comes first.
 */
function withLines(route: Route, sheet: DriveSheet, { closings }: JobRecord, lines: readonly Line[]): Route {
  const hands = stepWithRole(route, 'hands-over')
  if (!hands) return route
  const closed = doneSteps(closings)
  if (closed.has(hands.id)) return route
  const gates = lines
    .filter((l) => l.colour === 'red' && !(l.code === 'open-item' && l.on.startsWith('item ')))
    .map((l): Gate => ({
      when: NEVER,
      say: `${lineText(sheet, l)}.`,
      ...(isFirm(l.code) ? { firm: true } : {}),
    }))
  if (!gates.length) return route
  const others = route.steps.filter((s) => s !== hands && !closed.has(s.id)).map((s) => s.id)
  const last: Step = {
    ...hands,
    needs: [...new Set([...hands.needs, ...others])],
    gates: [...hands.gates, ...gates],
  }
  return { ...route, steps: route.steps.map((s) => (s === hands ? last : s)) }
}

/** Holds never. */
const NEVER: Condition = { any: [] }

/** A joint that keeps oil or grease in was opened, or will be; the screws of the ports are not meant. */
function isOpened({ ix, state }: ActsOfRecord, open: AssemblyState): boolean {
  const holds = (space: string) => ['oil', 'grease'].includes(ix.spaces.get(space)?.holds ?? '')
  return [...ix.joints].some(
    ([id, j]) =>
      j.row.kind !== 'plug' &&
      j.row.kind !== 'halves' &&
      j.behind.some(holds) &&
      (open.joints.get(id)!.partings > 0 || state.joints.get(id)!.partings > 0),
  )
}

/**
 * Something of the case is off, or has still to come off: what is wrong is mended in the order of work, and is no repair. Propeller and anodes go on last.
 */
export const isOpen = ({ work: { ix, left } }: { work: JobWork }): boolean =>
  left.deeds.some(({ do: verb, on }) => {
    if (verb === 'remove') return true
    const part = verb === 'fit' || verb === 'renew' ? ix.parts.get(on) : undefined
    return (
      part !== undefined &&
      part.kind !== 'hub' &&
      part.kind !== 'anode' &&
      !(part.group !== undefined && ix.propellers.has(part.group))
    )
  })

/** Answers that count no more: of a step that has come up once more and is not closed yet. */
export function outdated(route: Route, closings: readonly Closing[]): ReadonlySet<number> {
  const standing = counted(closings)
  const closed = new Set(standing.map((c) => c.step))
  const again = new Set(route.steps.filter((s) => !closed.has(s.id)).map((s) => baseOf(s.id)))
  return new Set(standing.filter((c) => again.has(baseOf(c.step))).map((c) => c.id))
}
