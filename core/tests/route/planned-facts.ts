import type { DriveSheet } from '../../src/drives/sheet.ts'
import { workOf } from '../../src/job/job-work.ts'
import type { ApprovalChoice } from '../../src/job/record.ts'
import type { Facts } from '../../src/route/facts.ts'
import type { Plan } from '../../src/route/plan.ts'
import { after, decided, record } from '../assembly/walked-job.ts'

/** What the work of a plan comes to while nothing of it is done, once the owner has decided so. */
export const plannedFacts = (sheet: DriveSheet, plan: Plan, choice?: ApprovalChoice): Facts => {
  const job = record(sheet, plan.scope)
  return workOf(choice ? { ...job, estimates: decided(choice, after(1)) } : job, sheet, plan).facts
}
