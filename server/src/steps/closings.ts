import type { ClosingRecord } from '@moray/contract/replies'
import type { AskedThen, Closing } from '@moray/core/job/record'
import type { Queryable } from '../db/database.ts'
import { mustExist } from '../job/must-exist.ts'

/** Every closing of a job with the words in which it was asked. */
export async function listClosings(db: Queryable, jobId: string): Promise<ClosingRecord[]> {
  const rows = await db.query<{ closing: Closing; asked: AskedThen | null }>(
    `select c.closing, d.asked from job_record($1) r, json_array_elements(r.record -> 'closings') c (closing)
     join step_done d on d.id = (c.closing ->> 'id')::bigint order by d.id`,
    [jobId],
  )
  if (!rows.length) await mustExist(db, jobId)
  return rows.map((r) => ({ ...r.closing, asked: r.asked }))
}
