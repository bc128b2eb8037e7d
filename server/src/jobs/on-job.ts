import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Context } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { write, type Who } from '../http/write.ts'
import { loadBuilds, type LoadedBuild } from './builds.ts'
import { detailOf, loadJob } from './detail.ts'
import { keepProgress } from './progress.ts'
import { findJob, type JobRow } from './rows.ts'

export interface JobStep {
  tx: Transaction
  job: JobRow
  sheet: DriveSheet
  builds: LoadedBuild[]
  who: Who
}

export type OnJob = (
  c: Context,
  kind: string,
  work: (step: JobStep) => Promise<string | null>,
) => Promise<Response>

/** A write on one job: does the work, keeps the bench list true, answers with the whole job as it now stands. Work that returns no sentence leaves no event. */
export function onJob(deps: Deps): OnJob {
  return (c, kind, work) => {
    const id = c.req.param('id')!
    return write(c, deps, async (tx, who) => {
      const job = await findJob(tx, id)
      const builds = await loadBuilds(tx, id, job.sheet)
      const text = await work({ tx, job, sheet: job.sheet, builds, who })
      const loaded = await loadJob(tx, id, who.at)
      await keepProgress(tx, loaded)
      return {
        reply: () => detailOf(tx, loaded),
        event: text === null ? null : { kind, jobId: id, text },
      }
    })
  }
}
