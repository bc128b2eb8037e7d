import { endpoints } from '@moray/contract/endpoints'
import type { ClosingRecord } from '@moray/contract/replies'
import { fullClosing, type CompactClosing } from '@moray/core/job/compact'
import type { AskedThen } from '@moray/core/job/record'
import type { Hono } from 'hono'
import type { Queryable } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onRead, onWrite, rowId } from '../http/endpoint.ts'
import { writeDraft } from '../http/write.ts'
import { mustExist } from '../jobs/events.ts'
import { onJob, readJudged } from '../job/on-job.ts'
import { CLOSING, PEOPLE } from '../job/read-record.ts'
import { agreeToDeparture } from './agree.ts'
import { closeStep, correctAnswers } from './close-step.ts'
import { keepDraft } from './draft.ts'
import { routeChanges, seeRoute } from './route-seen.ts'
import { takeBack } from './take-back.ts'

export function mountSteps(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.closeStep, closeStep)
  onJob(app, deps, endpoints.takeBack, (at, body, { closing }) =>
    takeBack(at, body, rowId('Closed step', closing)),
  )
  onJob(
    app,
    deps,
    endpoints.correctStep,
    (at, body, { closing }) => correctAnswers(at, body, rowId('Closed step', closing)),
    { whenOver: 'as-it-stands' },
  )
  onJob(app, deps, endpoints.agree, agreeToDeparture)
  onJob(app, deps, endpoints.seeRoute, seeRoute)
  onWrite(app, endpoints.keepDraft, async (c, { id }, body) => {
    await writeDraft(c, deps, id, (tx, who) => keepDraft(tx, deps, id, body.checked, who))
    return undefined
  })
  onRead(app, endpoints.closings, (_, { id }) => listClosings(deps.db, id))
  onRead(app, endpoints.routeChanges, async (_, { id }) => {
    const { job } = await readJudged(deps.db, deps, id, deps.now())
    return routeChanges(deps.db, job)
  })
}

/** Every closing of a job with the words in which it was asked. */
async function listClosings(db: Queryable, jobId: string): Promise<ClosingRecord[]> {
  const rows = await db.query<{
    closing: CompactClosing
    asked: AskedThen | null
    people: Record<string, string>
  }>(
    `select ${CLOSING} as closing, d.asked, ${PEOPLE} as people from step_done d where d.job_id = $1 order by d.id`,
    [jobId],
  )
  if (!rows.length) await mustExist(db, jobId)
  return rows.map((r) => ({ ...fullClosing(r.closing, r.people), asked: r.asked }))
}
