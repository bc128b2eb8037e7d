import { needsGrade } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { shimAdjusters } from '../drives/sheet.ts'
import type { Facts, FactValue } from '../route/facts.ts'
import { deriveFacts } from '../route/job-facts.ts'
import { spread } from '../measuring/reading-set.ts'
import { stepWithRole } from '../route/progress.ts'
import type { StepRole } from '../route/route.ts'
import { routeOf } from '../route/route-of.ts'
import { chosenSchool, schools } from '../route/schools.ts'
import { leftOnBench, lies, stillIn } from './bench-row.ts'
import { buildState } from './build-state.ts'
import { closingOf, counted } from './closings.ts'
import type { JobRecord, ShopWays } from './record.ts'

const DAY_MS = 86_400_000

/**
 * Everything that the route of a job is judged by: answers that count, what the other pages of the job say, and what
 * follows from both.
 * @param now for what waits: rings age until the case closes over them
 */
export function knownFacts(record: JobRecord, sheet: DriveSheet, ways: ShopWays, now: Date): Facts {
  const facts: Record<string, FactValue> = {}
  const standing = counted(record.closings)
  const route = routeOf(sheet)
  const bares = new Set(route.steps.filter((s) => s.bares).map((s) => s.id))
  for (const c of standing) Object.assign(facts, c.answers)
  facts['job.water'] = record.water
  const own = Object.fromEntries(record.schools.map((s) => [s.school, s.choice]))
  for (const { id } of schools) facts[`school.${id}`] = chosenSchool(id, ways.schools, own).value

  const found = buildState(record.builds[0]!)
  facts['setting.stacks-known'] = shimAdjusters(sheet).every((a) => found.stacks[a.id] !== undefined)
  // what was read and accepted before the case was bare is how it was found; the rebuild is measured after that
  const newest = record.builds.at(-1)!
  const bared = Math.max(...standing.filter((c) => bares.has(c.step)).map((c) => Date.parse(c.at)))
  const since = (at: string) => Number.isFinite(bared) && Date.parse(at) >= bared
  facts['setting.accepted'] =
    newest.acceptance !== null &&
    since(newest.acceptance.at) &&
    newest.readings.every((r) => r.superseded !== null || since(r.at))
  facts['setting.before-bare'] =
    Number.isFinite(bared) && newest.readings.some((r) => r.superseded === null && !since(r.at))
  for (const [id, readings] of Object.entries(found.readings))
    facts[`setting.found.${id}`] = spread(readings.map((r) => r.valueMm)).mean
  for (const [id, mm] of Object.entries(buildState(newest).stacks)) facts[`setting.stack.${id}`] = mm

  facts['row.missing'] = stillIn(sheet.parts, record.row).length
  facts['row.inside-left'] = leftOnBench(sheet.parts, record.row).length
  facts['row.left'] = record.row.filter(lies).length

  const graded = new Set(record.grades.map((g) => g.part))
  const sealsAllNew = facts['school.seals'] === 'all'
  facts['grades.open'] = sheet.parts.filter((p) => needsGrade(p, sealsAllNew) && !graded.has(p.id)).length
  facts['faults.seen'] = record.findings.filter((f) => f.present).length
  const approval = record.estimates.flatMap((e) => e.approval ?? []).at(-1)
  if (approval) facts['estimate.choice'] = approval.choice

  const byRole = (role: StepRole) => {
    const step = stepWithRole(route, role)
    return step && closingOf(standing, step.id)
  }
  const [rings, closed] = [byRole('rings-in'), byRole('closes')]
  const end = closed ? new Date(closed.at) : now
  facts['waited.seals'] = rings ? Math.floor((end.getTime() - new Date(rings.at).getTime()) / DAY_MS) : 0
  return deriveFacts(sheet, facts)
}
