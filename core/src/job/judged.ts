import type { DriveSheet } from '../drives/sheet.ts'
import { holds, type Facts } from '../route/facts.ts'
import { applies, closesItself, progressOf, type Progress } from '../route/progress.ts'
import { withLists } from '../route/lists.ts'
import type { Plan } from '../route/plan.ts'
import type { Route } from '../route/route.ts'
import { counted, doneSteps } from './closings.ts'
import { isAfter } from './entered.ts'
import { baseOf } from '../route/occurrence.ts'
import { jobPlan, ordersOf } from './job-plan.ts'
import { workOf, type JobWork } from './job-work.ts'
import { judgeBuilds, type JudgedBuild } from './judge-builds.ts'
import { knownFacts } from './known-facts.ts'
import { isOver, type BuildRecord, type JobRecord, type ShopWays } from './record.ts'
import { standingOf, type Standing } from './standing.ts'

/** A job with all that is judged about it. Server and browser judge with this one function. */
export interface JudgedJob extends Omit<JobRecord, 'builds'> {
  sheet: DriveSheet
  ways: ShopWays
  builds: JudgedBuild[]
  /** Of the newest build, with its number. */
  acceptance: ({ build: number } & NonNullable<BuildRecord['acceptance']>) | null
  newerSheetVersion: number | null
  /** What its scope comes to. */
  plan: Plan
  /** What was done to the unit, and what is left. */
  work: JobWork
  route: Route
  facts: Facts
  done: ReadonlySet<string>
  progress: Progress
  standing: Standing
}

/**
 * Judges a record: readings against their windows, facts, gates, where the job stands. Pure; the same record, sheet, ways and
 * time give the same judgement.
 * @param sheet in the version that the record names
 * @param now for what waits
 * @throws Error when the sheet is another one: a mix-up of ours, not of the user's
 */
export function judged(record: JobRecord, sheet: DriveSheet, ways: ShopWays, now: Date): JudgedJob {
  if (sheet.id !== record.sheetId || sheet.version !== record.sheetVersion)
    throw new Error(
      `job ${record.id} needs sheet ${record.sheetId} ${record.sheetVersion}, not ${sheet.id} ${sheet.version}`,
    )
  const plan = jobPlan(record, sheet, ways)
  const work = workOf(record, sheet, plan)
  const builds = judgeBuilds(record, sheet, plan, work.sets)
  const newest = builds.at(-1)!
  const facts = knownFacts(record, sheet, ways, now, { plan, builds, work })
  const done = doneSteps(record.closings)
  const route = withLists(work.route, facts, { orders: ordersOf(record).map((o) => o.name) })
  const shown = hasEnded(record, route) ? asItEnded(route, facts, done) : route
  const progress = progressOf(shown, facts, done)
  return {
    ...record,
    sheet,
    ways,
    builds,
    acceptance: newest.acceptance ? { build: newest.number, ...newest.acceptance } : null,
    newerSheetVersion: record.newestSheetVersion > record.sheetVersion ? record.newestSheetVersion : null,
    plan,
    work,
    route: shown,
    facts,
    done,
    progress,
    standing: standingOf(record, sheet, progress, newest),
  }
}

/** It was closed without a rebuild, or handed over, and no repair was opened since. */
function hasEnded({ state, closings, loops }: JobRecord, route: Route): boolean {
  if (state === 'closed') return true
  const last = route.steps.find((s) => s.role === 'hands-over')
  if (!last || !isOver(state)) return false
  const handovers = closings.filter((c) => baseOf(c.step) === baseOf(last.id))
  // handed over before there was a step for it
  if (!handovers.length) return !loops.length
  const handed = counted(handovers).at(-1)
  return handed !== undefined && !loops.some((l) => isAfter(l, handed))
}

/** The route of a job that is over, as far as it was gone: a step that a newer Moray would ask for is nobody's any more. */
function asItEnded(route: Route, facts: Facts, done: ReadonlySet<string>): Route {
  const kept = route.steps.filter(
    (s) =>
      done.has(s.id) || (closesItself(s) && applies(s, facts) && s.gates.every((g) => holds(g.when, facts))),
  )
  const ids = new Set(kept.map((s) => s.id))
  return { ...route, steps: kept.map((s) => ({ ...s, needs: s.needs.filter((n) => ids.has(n)) })) }
}
