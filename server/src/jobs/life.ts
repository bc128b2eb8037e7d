import type { ChangeLife } from '@moray/contract/requests/life'
import { counted } from '@moray/core/job/closings'
import { isOver } from '@moray/core/job/record'
import type { Told } from '@moray/core/job/event'
import { mustSay, notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { mustBeOpen } from '../job/must-be-open.ts'
import { takeBack } from '../steps/take-back.ts'
import { mustBeStand } from './open-job.ts'

/** Holds, resumes, moves, closes or reopens a job. One that is over can only be reopened. */
export async function changeLife(at: At, body: ChangeLife): Promise<Told> {
  const { tx, job } = at
  if (body.act !== 'reopen') mustBeOpen(job)
  const told = (more: { reason?: string; stand?: string } = {}): Told => ({
    kind: 'life',
    subject: `job:${job.id}`,
    data: { act: body.act, ...more },
  })
  switch (body.act) {
    case 'hold': {
      const reason = mustSay(body.reason)
      await tx.query('update job set held_reason = $2 where id = $1', [job.id, reason])
      return told({ reason })
    }
    case 'resume':
      if (job.heldReason === null) throw new Refusal(409, 'not-held', 'This job is not held.')
      await tx.query('update job set held_reason = null where id = $1', [job.id])
      return told()
    case 'stand': {
      const stand = body.stand || null
      if (stand) await mustBeStand(tx, stand, job.id)
      await tx.query('update job set stand = $2 where id = $1', [job.id, stand])
      return told(stand ? { stand } : {})
    }
    case 'close': {
      const reason = mustSay(body.reason)
      await tx.query(
        `update job set held_reason = null, stand = null, state = 'closed', stage = 'closed',
           waits = jsonb_build_object('kind', 'closed', 'reason', $2::text) where id = $1`,
        [job.id, reason],
      )
      return told({ reason })
    }
    case 'reopen':
      return reopen(at, mustSay(body.reason), body.step)
  }
}

/** A job that comes back: from the step named on, everything is done again; what was done stays to be read. */
async function reopen(at: At, reason: string, step: string | undefined): Promise<Told> {
  const { tx, job } = at
  if (!isOver(job.state)) throw new Refusal(409, 'still-open', 'This job is open; take a step back instead.')
  const done = counted(job.closings)
  const from = step === undefined ? done.at(-1) : done.find((s) => s.step === step)
  if (step !== undefined && !from) throw notFound('Closed step', step)
  await tx.query("update job set state = 'reopened' where id = $1", [job.id])
  if (from) await takeBack(at, { reason }, from.id)
  return { kind: 'life', subject: `job:${job.id}`, data: { act: 'reopen', reason } }
}
