import type { Told } from '@moray/core/job/event'
import type { JudgedJob } from '@moray/core/job/judged'
import type { Transaction } from '../db/database.ts'
import type { Who } from '../request/who.ts'

/** What a change of a job works on: the job as it was read and locked, who changes it, and as which act of its unit. */
export interface At {
  tx: Transaction
  job: JudgedJob
  who: Who
  /** The number under which it is entered in the log of the unit: it alone orders. `who.at` is when it happened. */
  entered: number
}

/** Changes one thing of a job; knows its types and the database, nothing of HTTP nor of the other changes. */
export type Change<Body> = (at: At, body: Body) => Promise<Told>
