import type { KeepDraft } from '@moray/contract/requests/route'
import type { JobState } from '@moray/core/job/record'
import { baseOf } from '@moray/core/route/occurrence'
import { routeOf } from '@moray/core/route/route-of'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { notFound } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { mustBeOpen } from '../job/must-be-open.ts'

/**
 * Keeps what has been typed at a step so far, or throws it away when nothing is left of it. Working state, written under a name and with the job
 * locked: a draft can start the clock of a test, and one that comes late must not stand beside what has closed its step.
 */
export async function keepDraft(
  tx: Transaction,
  deps: Pick<Deps, 'sheets'>,
  jobId: string,
  body: KeepDraft,
  who: Who,
): Promise<void> {
  const [at] = await tx.query<{ sheet_id: string; sheet_version: number; number: string; state: JobState }>(
    'select number, sheet_id, sheet_version, state from job where id = $1',
    [jobId],
  )
  if (!at) throw notFound('Job', jobId)
  mustBeOpen(at)
  const sheet = await deps.sheets.get(tx, at.sheet_id, at.sheet_version)
  const step = routeOf(sheet).steps.find((s) => s.id === baseOf(body.step))
  if (!step) throw notFound('Step', body.step)
  if (Object.keys(body.answers).length === 0) {
    await tx.query('delete from step_draft where job_id = $1 and step = $2', [jobId, body.step])
    return
  }
  // a draft that comes after its step was closed is late, not new; a test runs from the moment its pressure is entered
  await tx.query(
    `insert into step_draft (job_id, step, answers, begun_at, by_person, at)
     select $1, $2, $3::jsonb, $5, $4, $5
     where not exists (select 1 from step_standing where job_id = $1 and step = $2)
     on conflict (job_id, step) do update set answers = excluded.answers, by_person = excluded.by_person, at = excluded.at,
       begun_at = case when excluded.answers ? $6 and not step_draft.answers ? $6 then excluded.at else step_draft.begun_at end`,
    [jobId, body.step, JSON.stringify(body.answers), who.id, who.at, step.timedFrom ?? ''],
  )
}
