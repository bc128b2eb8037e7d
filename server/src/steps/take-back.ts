import type { TakeBack } from '@moray/contract/requests/route'
import { counted } from '@moray/core/job/closings'
import type { Told } from '@moray/core/job/event'
import { dependentsOf } from '@moray/core/route/progress'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

/**
 * Takes a closed step back, and every later step that stands on it: they are done again. Nothing is deleted but the mark
 * that the closing counts.
 */
export async function takeBack({ tx, job, who }: At, body: TakeBack, closingId: number): Promise<Told> {
  const entry = job.closings.find((s) => s.id === closingId)
  if (!entry) throw notFound('Closed step', String(closingId))
  if (entry.takenBack) throw new Refusal(409, 'already-taken-back', 'That step was taken back already.')
  const falling = new Set([entry.step, ...dependentsOf(job.route, entry.step)])
  const own = counted(job.closings).filter((s) => falling.has(s.step))
  await tx.query(
    `with gone as (
       insert into step_taken_back (step_done_id, reason, by_person, at)
       select id, $2, $3, $4 from unnest($1::bigint[]) id returning step_done_id
     )
     delete from step_standing s using gone where s.step_done_id = gone.step_done_id`,
    [own.map((s) => s.id), body.reason, who.id, who.at],
  )
  const what = job.route.steps.find((s) => s.id === entry.step)?.what ?? entry.step
  return {
    kind: 'step-back',
    subject: `step:${entry.step}`,
    data: { what, later: own.length - 1, reason: body.reason },
  }
}
