import type { EventEntry } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { mustExist } from '../job/must-exist.ts'

/** Events as they are read back; a condition on `e` follows. */
export const EVENT_ENTRY = `select json_build_object('id', e.id, 'at', iso(e.at), 'by', p.name, 'kind', e.kind, 'jobId', e.job_id,
  'subject', e.subject, 'data', e.data, 'text', e.text, 'clockBackS', e.clock_back_s) as entry
  from event e join person p on p.id = e.by_person`

/** The history of a job, oldest first. @param after only what came after this event */
export async function listEvents(db: Queryable, jobId: string, after: number): Promise<EventEntry[]> {
  const rows = await db.query<{ entry: EventEntry }>(
    `${EVENT_ENTRY} where e.job_id = $1 and e.id > $2 order by e.id limit 5000`,
    [jobId, after],
  )
  if (!rows.length) await mustExist(db, jobId)
  return rows.map((r) => r.entry)
}
