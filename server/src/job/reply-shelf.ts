import type { JobReply } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { readRecord } from './read-record.ts'

/** Jobs that are kept ready; the one that was asked for longest ago goes first. */
const MOST = 100

/**
 * Replies about jobs, kept for as long as nothing has happened that they could tell of. Whether something has is asked of the database
 * every time (one small statement): events tell of every change but those of drafts, whose rows carry the number of the transaction
 * that wrote them, and of new sheets, which are counted. Several servers on one database each keep their own, and none is ever behind.
 */
export class ReplyShelf {
  private kept = new Map<string, { as: string; reply: JobReply }>()

  /** @throws Refusal 404 */
  async get(db: Queryable, id: string): Promise<JobReply> {
    const [now] = await db.query<{ is: string }>(
      `select concat_ws(' ', (select max(id) from event), (select count(*) from drive_sheet),
         (select string_agg(d.xmin::text, ',' order by d.step) from step_draft d where d.job_id = $1)) as is`,
      [id],
    )
    const as = now!.is
    const before = this.kept.get(id)
    if (before?.as === as) {
      this.kept.delete(id)
      this.kept.set(id, before)
      return before.reply
    }
    const reply = (await readRecord(db, id)).compact
    // what came in between the two statements is in the reply, and the next asking finds the mark changed
    this.kept.set(id, { as, reply })
    const oldest = this.kept.keys().next().value
    if (this.kept.size > MOST && oldest !== undefined) this.kept.delete(oldest)
    return reply
  }
}
