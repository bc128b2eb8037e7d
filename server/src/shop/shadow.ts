import type { ShadowJob, ShadowReply } from '@moray/contract/shadow'
import { shadowOf } from '@moray/core/acts/judge-acts'
import { lineText } from '@moray/core/acts/line-text'
import type { Queryable } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { readJudged } from '../job/on-job.ts'
import { readLogs } from '../acts/log.ts'

/** As many open jobs are looked at: a bench has fewer. */
const MOST_JOBS = 200

/** What the list says of every open job, beside the plan of today, the one that was touched last first. */
export async function shadows(db: Queryable, deps: Pick<Deps, 'sheets'>, now: Date): Promise<ShadowReply> {
  const open = await db.query<{ id: string }>(
    `select id from job where state not in ('finished', 'closed') order by touched_at desc, id limit ${MOST_JOBS}`,
  )
  const logs = await readLogs(
    db,
    open.map((j) => j.id),
  )
  const jobs: ShadowJob[] = []
  for (const { id } of open) {
    const job = await readJudged(db, deps, id, now)
    const shadow = shadowOf(job, logs.get(id))
    if (!shadow) continue
    const { acts, inferred, nothingLeft, overlooked, lines } = shadow
    const { number, boat, sheet } = job
    jobs.push({
      id,
      number,
      boat,
      sheetName: sheet.name,
      acts,
      inferred: inferred.length,
      nothingLeft,
      overlooked,
      lines: lines.map((l) => ({ ...l, text: lineText(sheet, l) })),
    })
  }
  return { jobs }
}
