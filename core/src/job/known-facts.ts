import type { Part } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { shimAdjusters } from '../drives/sheet.ts'
import type { Facts, FactValue } from '../route/facts.ts'
import { deriveFacts } from '../route/job-facts.ts'
import { spread } from '../measuring/reading-set.ts'
import { stepWithRole } from '../route/progress.ts'
import type { StepRole } from '../route/route.ts'
import { isNotHere } from '../route/honest.ts'
import { baseOf } from '../route/occurrence.ts'
import type { Plan } from '../route/plan.ts'
import { chosenSchool, schools } from '../route/schools.ts'
import { leftOnBench, lies, stillIn } from './bench-row.ts'
import { withFloat } from '../setting/float-recipe.ts'
import { bearingMeasures } from '../setting/measures.ts'
import { buildState } from './build-state.ts'
import { closingOf, counted } from './closings.ts'
import { dogAlone, hasOutgrown, ordersOf, ungraded } from './job-plan.ts'
import { outdated, type JobWork } from './job-work.ts'
import { isAfter, type Entered } from './entered.ts'
import { baredBy, type JudgedBuild } from './judge-builds.ts'
import type { JobRecord, Partner, ShopWays } from './record.ts'

const DAY_MS = 86_400_000
const MINUTE_MS = 60_000

/**
 * Everything that the route of a job is judged by: answers that count, what the other pages of the job say, and what
 * follows from both.
 * @param now for what waits: rings age until the case closes over them
 */
export function knownFacts(
  record: JobRecord,
  sheet: DriveSheet,
  ways: ShopWays,
  now: Date,
  { plan, builds, work }: { plan: Plan; builds: readonly JudgedBuild[]; work: JobWork },
): Facts {
  const facts: Record<string, FactValue> = {}
  const { route } = work
  const again = outdated(route, record.closings)
  const standing = counted(record.closings)
  for (const c of standing) if (!again.has(c.id)) Object.assign(facts, c.answers)
  facts['job.water'] = record.water
  const own = Object.fromEntries(record.schools.map((s) => [s.school, s.choice]))
  for (const { id } of schools) facts[`school.${id}`] = chosenSchool(id, ways.schools, own).value

  const found = buildState(record.builds[0]!)
  Object.assign(facts, work.facts)
  const off = new Set(plan.off.map((p) => p.id))
  const reached = new Set(plan.off.flatMap((p) => (p.kind === 'shim' ? (p.place ?? []) : [])))
  const full = plan.stays.length === 0
  facts['setting.stacks-known'] = shimAdjusters(sheet).every(
    (a) => found.stacks[a.id] !== undefined || !(full || reached.has(`stack:${a.id}`)),
  )
  // what was read and accepted before the case was bare is how it was found; the rebuild is measured after that
  const newest = record.builds.at(-1)!
  const bared = baredBy(record, sheet)
  const since = (act: Entered) => bared !== undefined && !isAfter(bared, act)
  const readSince = newest.readings.every((r) => r.superseded !== null || since(r))
  // what was accepted, and was parted again since, is set again
  const proved = !work.left.deeds.some((d) => d.do === 'accept')
  facts['setting.all-in'] = readSince && builds.at(-1)!.assessment.allIn
  facts['setting.accepted'] = newest.acceptance !== null && since(newest.acceptance) && readSince && proved
  facts['setting.before-bare'] =
    bared !== undefined && newest.readings.some((r) => r.superseded === null && !since(r))
  // a float is read with rings out and bolts loose: they are undone by name, whatever was said when it was built up
  const floated = record.builds.some((b) =>
    b.readings.some((r) => r.superseded === null && r.how?.as === 'float' && since(r)),
  )
  if (floated && facts['trial.in'] !== undefined) facts['trial.in'] = withFloat(String(facts['trial.in']))
  for (const m of bearingMeasures(sheet))
    facts[`setting.set.${m.id}`] = builds.at(-1)!.assessment.measures[m.id]!.judgement?.verdict === 'in'
  for (const [id, readings] of Object.entries(found.readings))
    facts[`setting.found.${id}`] = spread(readings.map((r) => r.value)).mean
  for (const [id, mm] of Object.entries(buildState(newest).stacks)) facts[`setting.stack.${id}`] = mm

  facts['row.missing'] = stillIn(sheet.parts, record.row).filter((s) => off.has(s.part.id)).length
  const ofPropeller = (p: Part) =>
    p.kind === 'hub' || work.ix.propellers.has(work.ix.parts.get(p.id)?.group ?? '')
  facts['row.propeller-on'] = stillIn(sheet.parts, record.row).filter(
    (s) => off.has(s.part.id) && ofPropeller(s.part),
  ).length
  facts['row.inside-left'] = leftOnBench(sheet.parts, record.row).length
  facts['row.left'] = record.row.filter(lies).length

  facts['grades.open'] = ungraded(record, sheet, plan, facts['school.seals'] === 'all').length
  facts['grades.dog-alone'] = dogAlone(record, sheet)
  facts['faults.seen'] = record.findings.filter((f) => f.present).length
  const approval = record.estimates.flatMap((e) => e.approval ?? []).at(-1)
  if (approval) facts['estimate.choice'] = approval.choice
  facts['estimate.outgrown'] = hasOutgrown(record)
  facts['orders.count'] = ordersOf(record).length
  facts['open-items.left'] = record.openItems.filter((i) => !i.closed).length
  for (const a of record.attachments) if (a.subject === 'step') facts[`picture.${a.subjectId}`] = true
  for (const s of route.steps) {
    const closing = s.waits && closingOf(standing, s.id)
    if (closing)
      facts[`waited.${baseOf(s.id)}`] = Math.floor((now.getTime() - Date.parse(closing.at)) / MINUTE_MS)
  }
  if (record.partner) partnerFacts(record.partner, facts)

  const byRole = (role: StepRole) => {
    const step = stepWithRole(route, role)
    return step && closingOf(standing, step.id)
  }
  const [rings, closed] = [byRole('rings-in'), byRole('closes')]
  const end = closed ? new Date(closed.at) : now
  facts['waited.seals'] = rings ? Math.floor((end.getTime() - new Date(rings.at).getTime()) / DAY_MS) : 0
  return deriveFacts(sheet, facts)
}

/** Done, and not gone on from over something that did not hold, or without having done it. */
const isDone = ({ answers, departedFrom }: Partner['closings'][number]): boolean =>
  departedFrom.length === 0 && !Object.values(answers).some(isNotHere)

/** What the unit stands on in its other case, under a name of its own. */
function partnerFacts(partner: Partner, facts: Record<string, FactValue>) {
  facts['unit.cases'] = 2
  facts['unit.follows'] = partner.follows
  for (const [fact, value] of Object.entries(partner.facts)) facts[`partner.${fact}`] = value
  for (const c of partner.closings) if (isDone(c)) facts[`partner.done.${c.step}`] = true
}
