import { counted } from './closings.ts'
import { isAfter } from './entered.ts'
import { needsGrade, type Part } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { condemned } from '../inspection/criteria.ts'
import type { OrderRow } from '../inspection/estimate.ts'
import { struckBy, type Struck } from '../inspection/struck.ts'
import { baseOf } from '../route/occurrence.ts'
import { planOf, type Plan, type PlanWays } from '../route/plan.ts'
import { fullScope, usualScopes, type Scope } from '../route/scope.ts'
import { chosenSchool, type SchoolId } from '../route/schools.ts'
import { gradeOf, isCondemned } from './bench-row.ts'
import type { ApprovalChoice, JobRecord, ShopWays } from './record.ts'

type Known = Pick<JobRecord, 'scopes' | 'schools' | 'estimates' | 'grades' | 'closings'>

const choiceOf = (record: Pick<JobRecord, 'estimates'>) =>
  record.estimates.flatMap((e) => e.approval ?? []).at(-1)

/**
 * What a job is to reach now: what was chosen last; everything where nothing was. A job that was only to look becomes a rebuild once the owner
 * wants one: of all that was taken apart, after a strike of what was condemned.
 */
export function jobScope(record: Known, sheet: DriveSheet): Scope {
  const chosen = onSheet(record.scopes.at(-1), sheet)
  const wants: ApprovalChoice | undefined = choiceOf(record)?.choice
  if (wants !== 'rebuild') return chosen
  if (chosen.mode === 'look') return { ...chosen, ...fullScope(sheet), mounted: false }
  if (chosen.mode === 'strike') return { ...chosen, mode: 'rebuild' }
  return chosen
}

/** A usual scope is what this sheet makes of it: an edition or a variant later it may reach other parts. */
function onSheet(kept: Scope | undefined, sheet: DriveSheet): Scope {
  if (!kept) return fullScope(sheet)
  const { usual, mode, targets, mounted, came, lying } = kept
  const known = new Set(sheet.parts.map((p) => p.id))
  const now = usualScopes(sheet).find((s) => s.usual === usual)?.targets ?? targets
  return {
    usual,
    mode,
    targets: now.filter((t) => known.has(t)),
    mounted,
    ...(came ? { came } : {}),
    ...(lying ? { lying: lying.filter((t) => known.has(t)) } : {}),
  }
}

/** The shop's ways that change a plan, the job's own choice first. */
export function planWays(record: Pick<JobRecord, 'schools'>, ways: ShopWays): PlanWays {
  const own = Object.fromEntries(record.schools.map((s) => [s.school, s.choice]))
  const chosen = (id: SchoolId) => chosenSchool(id, ways.schools, own).value
  return {
    seals: chosen('seals'),
    cups: chosen('cups'),
    impeller: chosen('impeller'),
  }
}

/** What a blow has done to the drive, by the strike step that counts. */
export const struckIn = (record: Pick<JobRecord, 'closings'>, sheet: DriveSheet): Struck[] => {
  const closing = counted(record.closings).findLast((c) => baseOf(c.step) === 'strike')
  return closing ? struckBy(sheet, closing.answers).parts : []
}

/** The plan of a job as it stands: its scope, and what its grades and a blow condemn besides. */
export const jobPlan = (record: Known, sheet: DriveSheet, ways: ShopWays): Plan =>
  planFor(record, sheet, ways, jobScope(record, sheet))

/** The same as it will be once the owner wants a rebuild: what an estimate is made of. */
export function rebuildPlan(record: Known, sheet: DriveSheet, ways: ShopWays): Plan {
  const scope = jobScope(record, sheet)
  if (scope.mode === 'look')
    return planFor(record, sheet, ways, { ...scope, ...fullScope(sheet), mounted: false })
  return planFor(record, sheet, ways, scope.mode === 'strike' ? { ...scope, mode: 'rebuild' } : scope)
}

const planFor = (record: Known, sheet: DriveSheet, ways: ShopWays, scope: Scope): Plan =>
  planOf(sheet, scope, planWays(record, ways), {
    condemned: [
      ...sheet.parts.filter((p) => isCondemned(record.grades, p.id)).map((p) => p.id),
      // until the owner has decided, nothing more is opened than it takes to see
      ...(scope.mode === 'strike' ? [] : struckIn(record, sheet).map((s) => s.part.id)),
    ],
    kept: sheet.parts
      .filter((p) => gradeOf(record.grades, p.id) && !isCondemned(record.grades, p.id))
      .map((p) => p.id),
  })

/** What is on order: of the estimate that was decided on, else of the newest. */
export function ordersOf(record: Pick<JobRecord, 'estimates'>): OrderRow[] {
  const approved = record.estimates.findLast((e) => e.approval)
  return (approved ?? record.estimates.at(-1))?.body.order ?? []
}

/** Parts that came off and that nobody has judged yet; what is new anyhow needs no judgement. */
export function ungraded(
  record: Pick<JobRecord, 'grades'>,
  sheet: DriveSheet,
  plan: Plan,
  sealsAllNew: boolean,
): Part[] {
  const graded = new Set(record.grades.map((g) => g.part))
  const isNew = new Set(plan.renew.flatMap((r) => (r.why === 'wanted' || r.why === 'school' ? r.part : [])))
  const body = plan.stays.length === 0 ? sheet.parts.filter((p) => p.role === 'body') : []
  return [...plan.off, ...body].filter(
    (p) => needsGrade(p, sealsAllNew) && !isNew.has(p.id) && !graded.has(p.id),
  )
}

/** More was condemned since the owner decided, and it costs: he is asked again. */
export function hasOutgrown(record: Pick<JobRecord, 'estimates' | 'grades'>): boolean {
  const decided = record.estimates.findLast((e) => e.approval)
  const approval = decided?.approval
  if (!approval) return false
  // an estimate of an older Moray does not say which parts it holds: it covers what it covers
  if (decided.body.order.some((o) => !o.ids)) return false
  const ordered = new Set(decided.body.order.flatMap((o) => o.ids ?? []))
  return record.grades.some(
    (g) => !g.superseded && condemned(g.grade) && isAfter(g, approval) && !ordered.has(g.part),
  )
}

/** What a clutch shows whose edges have gone round: its mating gears are worn by it. */
const ROUNDED = 'rounded'

/** A dog was found rounded, and nobody has looked at the windows of a gear that it engages: both are judged, or neither. */
export function dogAlone(record: Pick<JobRecord, 'grades'>, sheet: DriveSheet): boolean {
  const seenOn = (part: string) => record.grades.findLast((g) => g.part === part && !g.superseded)
  const rounded = sheet.parts.some((p) => p.kind === 'clutch' && seenOn(p.id)?.seen.includes(ROUNDED))
  if (!rounded) return false
  const driven = new Set(sheet.meshes.map((m) => `gear:${m.gear}`))
  return sheet.parts.some(
    (p) => p.kind === 'gear' && p.place !== undefined && driven.has(p.place) && !seenOn(p.id),
  )
}
