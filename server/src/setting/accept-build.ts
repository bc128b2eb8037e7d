import type { Told } from '@moray/core/job/event'
import { notIn } from '@moray/core/setting/assess'
import type { AcceptBuild, WithdrawAcceptance } from '@moray/contract/requests/setting'
import { Refusal } from '../http/refusal.ts'
import { signedBy } from '../request/rights.ts'
import type { At } from '../job/change.ts'

/** Accepts the newest build as built. Something outside its window, or too close to call, needs a reason. */
export async function acceptBuild({ tx, job, who, entered }: At, body: AcceptBuild): Promise<Told> {
  const build = job.builds.at(-1)!
  if (build.number !== body.build)
    throw new Refusal(
      409,
      'stale-build',
      `The newest build is number ${build.number}; look at it before accepting.`,
    )
  if (build.acceptance) throw new Refusal(409, 'already-accepted', 'This build is accepted already.')
  const open = notIn(job.sheet, build.assessment, build.asked)
  if (!build.assessment.decidable)
    throw new Refusal(
      422,
      'not-measured',
      'Not every stack and measure of this build is known; finish measuring first.',
    )
  const reason = body.reason || null
  if (!build.assessment.allIn && reason === null) {
    throw new Refusal(
      422,
      'reason-needed',
      `${open.map((m) => m.label).join(', ')}: not in the window beyond doubt. Go round again, or say why it is accepted.`,
      [{ path: 'reason', message: 'is missing' }],
    )
  }
  const signed = signedBy(who, 'As built')
  // the second of two who accept at the same moment meets the constraint build_accepted_once
  await tx.query(
    `with accepted as (
       insert into acceptance (build_id, reason, by_person, at, signed, entered) values ($1, $2, $3, $4, $5, $6) returning id
     )
     insert into acceptance_standing (build_id, acceptance_id) select $1, id from accepted`,
    [build.id, reason, who.id, who.at, signed, entered],
  )
  return {
    kind: 'accepted',
    subject: `build:${build.number}`,
    data: { number: build.number, ...(reason ? { reason } : {}), ...(signed ? { signed } : {}) },
  }
}

/** The newest build no longer counts as accepted: its readings and stacks are open again. What was accepted stays to be read. */
export async function withdrawAcceptance({ tx, job, who }: At, body: WithdrawAcceptance): Promise<Told> {
  const build = job.builds.at(-1)!
  if (build.number !== body.build || !build.acceptance)
    throw new Refusal(409, 'not-accepted', 'The newest build is not accepted; there is nothing to withdraw.')
  await tx.query(
    `with gone as (delete from acceptance_standing where build_id = $1 returning acceptance_id)
     insert into acceptance_withdrawn (acceptance_id, reason, by_person, at) select acceptance_id, $2, $3, $4 from gone`,
    [build.id, body.reason, who.id, who.at],
  )
  return {
    kind: 'withdrawn',
    subject: `build:${build.number}`,
    data: { number: build.number, reason: body.reason },
  }
}
