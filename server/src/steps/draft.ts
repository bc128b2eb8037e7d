import type { KeepDraft } from '@moray/contract/requests/route'
import type { JobState } from '@moray/core/job/record'
import { routeOf } from '@moray/core/route/route-of'
import type { Deps } from '../deps.ts'
import { notFound } from '../http/refusal.ts'
import { mustBeSomebody } from '../http/write.ts'
import { mustBeOpen } from '../job/must-be-open.ts'

/**
 * Keeps what has been typed at a step so far, or throws it away when nothing is left of it. Working state: no event, no request id, two small
 * statements; the same draft twice is the same draft.
 */
export async function keepDraft(deps: Deps, jobId: string, person: string, body: KeepDraft): Promise<void> {
  const [at] = await deps.db.query<{
    sheet_id: string
    sheet_version: number
    number: string
    state: JobState
    known: boolean
  }>(
    `select number, sheet_id, sheet_version, state, exists (select 1 from person where id = $2 and not retired) as known from job where id = $1`,
    [jobId, person],
  )
  if (!at) throw notFound('Job', jobId)
  if (!at.known) mustBeSomebody(person)
  mustBeOpen(at)
  const sheet = await deps.sheets.get(deps.db, at.sheet_id, at.sheet_version)
  const step = routeOf(sheet).steps.find((s) => s.id === body.step)
  if (!step && !(await isOfLoop(deps, jobId, body.step))) throw notFound('Step', body.step)
  if (Object.keys(body.answers).length === 0) {
    await deps.db.query('delete from step_draft where job_id = $1 and step = $2', [jobId, body.step])
    return
  }
  // a draft that comes after its step was closed is late, not new; a test runs from the moment its pressure is entered
  await deps.db.query(
    `insert into step_draft (job_id, step, answers, begun_at, by_person, at)
     select $1, $2, $3::jsonb, $5, $4, $5
     where not exists (select 1 from step_standing where job_id = $1 and step = $2)
     on conflict (job_id, step) do update set answers = excluded.answers, by_person = excluded.by_person, at = excluded.at,
       begun_at = case when excluded.answers ? $6 and not step_draft.answers ? $6 then excluded.at else step_draft.begun_at end`,
    [jobId, body.step, JSON.stringify(body.answers), person, deps.now(), step?.timedFrom ?? ''],
  )
}

/** Steps of a repair loop are not on the route of the drive, only on that of the job. */
async function isOfLoop(deps: Deps, jobId: string, step: string): Promise<boolean> {
  const [, number] = /^loop-(\d{1,4})-(?:open|renew|close)$/.exec(step) ?? []
  if (number === undefined) return false
  const rows = await deps.db.query('select 1 from repair_loop where job_id = $1 and number = $2', [
    jobId,
    Number(number),
  ])
  return rows.length > 0
}
