import type { SheetBody } from '@moray/core/drives/own/body'
import type { EventEntry } from '@moray/core/job/event'
import type { ClosingRecord, JobRecord, ShopWays } from '@moray/core/job/record'

export const JOB_FORMAT = 'moray-job'
/** Another number where the layout of the file changes; an older one is carried over when it is read. */
export const JOB_LAYOUT = 1

/** One job as it leaves the shop: `job.json` in its zip. Lengths mm, torques Nm, pressures kPa, temperatures °C, times ISO 8601 in UTC. */
export interface JobFile {
  format: typeof JOB_FORMAT
  layout: typeof JOB_LAYOUT
  /** Version of the Moray that wrote it. */
  moray: string
  exportedAt: string
  /** Number and seal of the newest event of the shop's history at that moment. */
  seal: { event: number; digest: string } | null
  job: JobRecord
  /** The drive sheet that the job was worked by. */
  sheet: SheetBody
  /** Its published edition; null while it was being typed. */
  edition: number | null
  /** The edition that it goes on from, where it is none itself. */
  after?: number
  /** How the shop worked: what the job is judged by. */
  ways: ShopWays
  /** Its history, oldest first. */
  events: EventEntry[]
  /** Every closed step with what it asked, in the words of that day. */
  closings: ClosingRecord[]
}
