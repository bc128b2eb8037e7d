import type {
  Attachment,
  DoneStep,
  EstimateEntry,
  FindingEntry,
  GradeEntry,
  JobSchoolEntry,
  JobWork,
  TrayPart,
} from '@moray/contract/replies'
import { comesOff, needsGrade } from '@moray/core/drives/parts'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { shimAdjusters } from '@moray/core/drives/sheet'
import type { Facts, FactValue } from '@moray/core/route/facts'
import { deriveFacts } from '@moray/core/route/job-facts'
import { chosenSchool, schools } from '@moray/core/route/schools'
import type { Queryable } from '../db/database.ts'
import { listEstimates } from '../estimates/estimates.ts'
import { faultHistory, likelihoodEdits, listFindings, outcomeOf } from '../faults/faults.ts'
import { listAttachments } from '../files/attachments.ts'
import { listGrades } from '../grades/grades.ts'
import type { LoadedBuild } from '../jobs/builds.ts'
import type { JobRow } from '../jobs/rows.ts'
import { listJobSchools } from '../shop/job-schools.ts'
import { shopRules, shopSchools } from '../shop/shop.ts'
import { listTray } from '../tray/tray.ts'
import { listDrafts, listSteps } from './steps.ts'

const DAY = 86_400_000

interface Gathered {
  steps: DoneStep[]
  tray: TrayPart[]
  grades: GradeEntry[]
  findings: FindingEntry[]
  estimates: EstimateEntry[]
  schools: JobSchoolEntry[]
  attachments: Attachment[]
}

/** Everything that the route of a job is judged by, with the facts that follow from it. */
export async function loadWork(
  db: Queryable,
  job: JobRow,
  builds: LoadedBuild[],
  now: Date,
): Promise<JobWork> {
  const gathered: Gathered = {
    steps: await listSteps(db, job.id),
    tray: await listTray(db, job.id),
    grades: await listGrades(db, job.id),
    findings: await listFindings(db, job.id),
    estimates: await listEstimates(db, job.id),
    schools: await listJobSchools(db, job.id),
    attachments: await listAttachments(db, job.id),
  }
  const shop = await shopSchools(db)
  return {
    ...gathered,
    facts: deriveFacts(job.sheet, jobFacts(job, builds, gathered, shop, now)),
    drafts: await listDrafts(db, job.id),
    outcome: await outcomeOf(db, job.id),
    history: await faultHistory(db, job.id),
    edits: await likelihoodEdits(db),
    heldReason: job.held_reason,
    rules: await shopRules(db),
  }
}

/** What answers and the other pages of the job say. */
function jobFacts(
  job: JobRow,
  builds: LoadedBuild[],
  g: Gathered,
  shop: Record<string, string>,
  now: Date,
): Facts {
  const { sheet } = job
  const counted = g.steps.filter((s) => !s.takenBack)
  const facts: Record<string, FactValue> = {}
  for (const s of counted) Object.assign(facts, s.answers)
  facts['job.water'] = job.water
  const own = Object.fromEntries(g.schools.map((s) => [s.school, s.choice]))
  for (const { id } of schools) facts[`school.${id}`] = chosenSchool(id, shop, own).value
  const found = builds[0]!
  facts['setting.stacks-known'] = shimAdjusters(sheet).every((a) => found.facts.stacks[a.id] !== undefined)
  facts['setting.accepted'] = builds.at(-1)!.accepted
  Object.assign(facts, trayFacts(sheet, g.tray))
  const graded = new Set(g.grades.map((e) => e.part))
  facts['grades.open'] = sheet.parts.filter(
    (p) => needsGrade(p, facts['school.seals'] === 'all') && !graded.has(p.id),
  ).length
  facts['faults.seen'] = g.findings.filter((f) => f.present).length
  const approval = g.estimates.flatMap((e) => e.approval ?? []).at(-1)
  if (approval) facts['estimate.choice'] = approval.choice
  // rings wait from when they were fitted until the case closed over them
  const rings = counted.find((s) => s.step === 'o-rings')
  const closed = counted.find((s) => s.step === 'inside')
  const end = closed ? new Date(closed.at) : now
  facts['waited.seals'] = rings ? Math.floor((end.getTime() - new Date(rings.at).getTime()) / DAY) : 0
  return facts
}

function trayFacts(sheet: DriveSheet, tray: TrayPart[]): Record<string, FactValue> {
  const off = new Set(tray.map((t) => t.part))
  const lying = tray.filter((t) => !t.fitted && t.leftOut === null)
  const inside = new Set(sheet.parts.filter((p) => p.inside).map((p) => p.id))
  return {
    'tray.missing': sheet.parts.filter((p) => comesOff(p) && !off.has(p.id)).length,
    'tray.inside-left': lying.filter((t) => t.part === null || inside.has(t.part)).length,
    'tray.left': lying.length,
  }
}
