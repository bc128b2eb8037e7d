import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/** @throws Refusal 404 */
export async function mustExist(db: Queryable, jobId: string): Promise<void> {
  const [job] = await db.query('select 1 from job where id = $1', [jobId])
  if (!job) throw notFound('Job', jobId)
}
