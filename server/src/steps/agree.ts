import type { AgreeToDeparture } from '@moray/contract/requests/route'
import type { Told } from '@moray/core/job/event'
import { notFound } from '../http/refusal.ts'
import { mustBeLead } from '../request/rights.ts'
import type { At } from '../job/change.ts'

/** The lead agrees, in a request of his own, that a step may be gone on from although something does not hold. */
export async function agreeToDeparture({ tx, job, who, entered }: At, body: AgreeToDeparture): Promise<Told> {
  const step = job.route.steps.find((s) => s.id === body.step)
  if (!step) throw notFound('Step', body.step)
  mustBeLead(who, 'To agree to a departure')
  await tx.query(
    'insert into lead_agreement (job_id, step, reason, by_person, at, entered) values ($1, $2, $3, $4, $5, $6)',
    [job.id, step.id, body.reason, who.id, who.at, entered],
  )
  return { kind: 'agreed', subject: `step:${step.id}`, data: { what: step.what, reason: body.reason } }
}
