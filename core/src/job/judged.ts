import { withCarriers, type DriveSheet } from '../drives/sheet.ts'
import type { Facts } from '../route/facts.ts'
import { progressOf, type Progress } from '../route/progress.ts'
import { withLists } from '../route/lists.ts'
import { withLoops } from '../route/loops.ts'
import type { Plan } from '../route/plan.ts'
import type { Route } from '../route/route.ts'
import { routeOf } from '../route/route-of.ts'
import {
  assess,
  checkPrediction,
  type Assessment,
  type BuildState,
  type PredictionCheck,
} from '../setting/assess.ts'
import { buildState } from './build-state.ts'
import { doneSteps } from './closings.ts'
import { jobPlan, ordersOf } from './job-plan.ts'
import { knownFacts } from './known-facts.ts'
import type { BuildRecord, JobRecord, ShopWays } from './record.ts'
import { standingOf, type Standing } from './standing.ts'

export interface JudgedBuild extends BuildRecord {
  kind: 'found' | 'trial'
  /** What counts of it. */
  state: BuildState
  assessment: Assessment
  /** What was promised against what was read. */
  check: PredictionCheck[]
}

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
  const builds = record.builds.map((b): JudgedBuild => {
    const counted = buildState(b)
    const state = { ...counted, stacks: withCarriers(sheet, counted.stacks) }
    const assessment = assess(sheet, state)
    return {
      ...b,
      kind: b.number === 0 ? 'found' : 'trial',
      state,
      assessment,
      check: b.plan ? checkPrediction(b.plan.predicted, assessment) : [],
    }
  })
  const newest = builds.at(-1)!
  const plan = jobPlan(record, sheet, ways)
  const facts = knownFacts(record, sheet, ways, now, plan)
  const done = doneSteps(record.closings)
  const route = withLists(withLoops(routeOf(sheet), sheet, record.loops), facts, {
    orders: ordersOf(record).map((o) => o.name),
  })
  const progress = progressOf(route, facts, done)
  return {
    ...record,
    sheet,
    ways,
    builds,
    acceptance: newest.acceptance ? { build: newest.number, ...newest.acceptance } : null,
    newerSheetVersion: record.newestSheetVersion > record.sheetVersion ? record.newestSheetVersion : null,
    plan,
    route,
    facts,
    done,
    progress,
    standing: standingOf(record, sheet, progress, newest),
  }
}
