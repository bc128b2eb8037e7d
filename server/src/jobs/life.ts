import type { ChangeLife } from '@moray/contract/requests/life'
import { counted } from '@moray/core/job/closings'
import type { Told } from '@moray/core/job/event'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { takeBack } from '../steps/take-back.ts'
import { mustBeStand } from './open-job.ts'

/** Holds, resumes, moves, closes or reopens a job. One that is over can only be reopened. */
export async function changeLife(at: At, body: ChangeLife): Promise<Told> {
  const { tx, job } = at
  const over = job.state === 'closed' || job.state === 'finished'
  if (over && body.act !== 'reopen')
    throw new Refusal(409, job.state, `${job.number} is over; reopen it before anything is added.`)
  const mustSay = () => {
    if (!body.reason || body.reason.length < 3)
      throw new Refusal(422, 'reason-needed', 'Say why.', [{ path: 'reason', message: 'is missing' }])
    return body.reason
  }
  const told = (more: { reason?: string; stand?: string } = {}): Told => ({
    kind: 'life',
    subject: `job:${job.id}`,
    data: { act: body.act, ...more },
  })
  switch (body.act) {
    case 'hold': {
      const reason = mustSay()
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
      const reason = mustSay()
      await tx.query(
        `update job set held_reason = null, stand = null, state = 'closed', stage = 'closed',
           waits = jsonb_build_object('kind', 'closed', 'reason', $2::text) where id = $1`,
        [job.id, reason],
      )
      return told({ reason })
    }
    case 'reopen':
      return reopen(at, mustSay(), body.step)
  }
}

/** A job that comes back: from the step named on, everything is done again; what was done stays to be read. */
async function reopen(at: At, reason: string, step: string | undefined): Promise<Told> {
  const { tx, job } = at
  if (job.state !== 'finished' && job.state !== 'closed')
    throw new Refusal(409, 'still-open', 'This job is open; take a step back instead.')
  const done = counted(job.closings)
  const from = step === undefined ? done.at(-1) : done.find((s) => s.step === step)
  if (step !== undefined && !from) throw notFound('Closed step', step)
  await tx.query("update job set state = 'reopened' where id = $1", [job.id])
  if (from) await takeBack(at, { reason }, from.id)
  return { kind: 'life', subject: `job:${job.id}`, data: { act: 'reopen', reason } }
}
