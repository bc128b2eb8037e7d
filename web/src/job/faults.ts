import type { ShownJob } from './shown-job.ts'
import { faultRank, type FaultRank } from '@moray/core/inspection/fault-rank'
import { traitsOf } from '@moray/core/inspection/fault-drive'
import { suspects } from '@moray/core/inspection/suspects'

/** The causes of a job's findings, ranked with the shop's own history. */
export function rankOf(job: ShownJob): FaultRank {
  const { findings, history, edits } = job
  const of = (present: boolean) => findings.filter((f) => f.present === present).map((f) => f.finding)
  return faultRank({ findings: of(true), absent: of(false), history, edits, drive: traitsOf(job.sheet) })
}

/** Parts that the findings point at, with the cause; none while nothing was found. */
export function suspectsOf(job: ShownJob): Map<string, string> {
  if (!job.findings.some((f) => f.present)) return new Map()
  return suspects(job.sheet.parts, rankOf(job).causes)
}
