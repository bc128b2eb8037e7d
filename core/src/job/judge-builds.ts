import type { DriveSheet } from '../drives/sheet.ts'
import { perSheet } from '../drives/per-sheet.ts'
import { withCarriers } from '../drives/sheet.ts'
import { sensitivities } from '../setting/train.ts'
import type { Plan } from '../route/plan.ts'
import { assess, checkPrediction, type Assessment } from '../setting/assess.ts'
import type { BuildState } from '../setting/taken.ts'
import type { PredictionCheck } from '../setting/assess.ts'
import { derivedMeasures, settingMeasures, type SeatMeasure, type SetMeasure } from '../setting/measures.ts'
import { baseOf, timeOf } from '../route/occurrence.ts'
import { oldRepairStep, repairPlan } from '../route/repair.ts'
import { isWhole } from '../route/scope.ts'
import { routeOf } from '../route/route-of.ts'
import { buildState } from './build-state.ts'
import { counted } from './closings.ts'
import { isAfter, lastOf, type Entered } from './entered.ts'
import type { BuildRecord, JobRecord } from './record.ts'

export interface JudgedBuild extends BuildRecord {
  kind: 'found' | 'trial'
  /** What counts of it. */
  state: BuildState
  /** What has to be read before it can be decided; bearings that the job leaves alone are not. */
  asked: SetMeasure[]
  assessment: Assessment
  /** What was promised against what was read. */
  check: PredictionCheck[]
}

/** Readings of the builds against their windows, the oldest first. */
export function judgeBuilds(
  record: Pick<JobRecord, 'builds' | 'closings' | 'loops' | 'scopes' | 'openedAt'>,
  sheet: DriveSheet,
  plan: Pick<Plan, 'disturbed' | 'renew' | 'off'>,
  /** Settings that are set anew besides those of the plan. */
  sets: ReadonlySet<string> = new Set(),
): JudgedBuild[] {
  const result: JudgedBuild[] = []
  const bared = baredBy(record, sheet)
  for (const b of record.builds) {
    const entered = buildState(b)
    const own = { ...entered, stacks: withCarriers(sheet, entered.stacks) }
    const state = carriedOver(sheet, result.at(-1), own)
    const asked = b.number > 0 || isReadBare(b, bared) ? askedOf(b, sheet, plan, sets) : sheet.measures
    const assessment = assess(
      sheet,
      state,
      asked,
      b.number === 0 && !isReadBare(b, bared) ? true : takesStacks(plan),
    )
    result.push({
      ...b,
      kind: b.number === 0 ? 'found' : 'trial',
      state,
      asked,
      assessment,
      check: b.plan ? checkPrediction(b.plan.predicted, assessment) : [],
    })
  }
  return result
}

/**
 * A build of the bare case is asked for the bearings too that the job disturbs. As found they are not: gears are in mesh and covers closed. Of what
 * was accepted nothing more is asked.
 */
function askedOf(
  b: BuildRecord,
  sheet: DriveSheet,
  plan: Pick<Plan, 'disturbed' | 'renew' | 'off'>,
  sets: ReadonlySet<string>,
): SetMeasure[] {
  if (b.acceptance) return sheet.measures
  // a nut was loosened, and no stack is out: only what the nut sets is read
  if (!takesStacks(plan))
    return settingMeasures(sheet).filter((m) => plan.disturbed.includes(m.id) || sets.has(m.id))
  const derived = derivedMeasures(sheet).filter((m) =>
    m.kind === 'seat'
      ? isNewSeat(sheet, m, plan)
      : m.kind === 'pair-depth' || plan.disturbed.includes(m.id) || sets.has(m.id),
  )
  return settingMeasures(sheet).filter(
    (m) => sheet.measures.some((x) => x === m) || derived.some((x) => x === m),
  )
}

/** Shims come out, so that stacks are known and can be chosen. */
const takesStacks = ({ off, disturbed }: Pick<Plan, 'off' | 'disturbed'>): boolean =>
  disturbed.length === 0 || off.some((p) => p.kind === 'shim')

/** A gear set to the case goes back on its shims; only a new gear, or a new bearing on its shaft, asks for its stack anew. */
function isNewSeat(sheet: DriveSheet, { by }: SeatMeasure, { renew }: Pick<Plan, 'renew'>): boolean {
  const moves = sheet.adjusters.find((a) => a.id === by)?.moves
  const axis = sheet.gears.find((g) => g.id === moves)?.axis
  const places = new Set([
    `gear:${moves}`,
    ...sheet.bearings.flatMap((b) => (b.axis === axis ? [`bearing:${b.id}`] : [])),
  ])
  return renew.some((r) => places.has(sheet.parts.find((p) => p.id === r.part)?.place ?? ''))
}

const baringSteps = perSheet(
  (sheet): ReadonlySet<string> => new Set(routeOf(sheet).steps.flatMap((s) => (s.bares ? [s.id] : []))),
)

/**
 * The closing by which the case was bare, or the day on which it came so; undefined while it is not. Steps taken back do not count, nor does a repair that
 * leaves what sets the gears alone.
 */
export function baredBy(
  { closings, loops, scopes, openedAt }: Pick<JobRecord, 'closings' | 'loops' | 'scopes' | 'openedAt'>,
  sheet: DriveSheet,
): Entered | undefined {
  const bares = baringSteps(sheet)
  const disturbs = (repair: JobRecord['loops'][number] | undefined) =>
    repair !== undefined && repairPlan(sheet, repair).disturbed.length > 0
  const scope = scopes.at(-1)
  const came: Entered[] = scope && !isWhole(sheet, scope) ? [{ at: openedAt }] : []
  return lastOf<Entered>([
    ...came,
    ...counted(closings).filter((c) => {
      const old = oldRepairStep(c.step)
      if (old) return old.act === 'open' && disturbs(loops.find((l) => l.number === old.number))
      if (!bares.has(baseOf(c.step))) return false
      return timeOf(c.step) === 1 || disturbs(loops.findLast((l) => isAfter(c, l)))
    }),
  ])
}

/** Whether all that counts of a build was read on the bare case. */
const isReadBare = ({ readings }: BuildRecord, bared: Entered | undefined): boolean =>
  bared !== undefined && readings.every((r) => r.superseded !== null || !isAfter(bared, r))

/** A bearing that was read in the build before, on the bare case, keeps its reading while nothing that sets it is touched. */
function carriedOver(sheet: DriveSheet, before: JudgedBuild | undefined, own: BuildState): BuildState {
  if (!before) return own
  const table = sensitivities(sheet)
  const carried = derivedMeasures(sheet).filter(
    (m) =>
      before.asked.includes(m) &&
      !own.readings[m.id] &&
      before.state.readings[m.id] &&
      // what case and gear ask for stays what it is, whatever is built in
      (m.kind === 'seat' ||
        // and so does what the pair wants
        m.kind === 'pair-depth' ||
        Object.keys(table[m.id]!).every((stack) => before.state.stacks[stack] === own.stacks[stack])),
  )
  if (!carried.length) return own
  const readings = Object.fromEntries(carried.map((m) => [m.id, before.state.readings[m.id]!]))
  return { ...own, readings: { ...own.readings, ...readings }, carried: carried.map((m) => m.id) }
}
