import type { CloseStep } from '@moray/contract/requests/route'
import type { Told } from '@moray/core/job/event'
import type { AskedThen } from '@moray/core/job/record'
import { completeStep } from '@moray/core/route/complete'
import { deriveFacts } from '@moray/core/route/job-facts'
import type { Step } from '@moray/core/route/route'
import { notFound } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { understood } from './understood.ts'

/** Closes a step of the route; the core says whether it may. What was asked stays with what was answered. */
export async function closeStep({ tx, job, who }: At, body: CloseStep): Promise<Told> {
  const step = job.route.steps.find((s) => s.id === body.step)
  if (!step) throw notFound('Step', body.step)
  const { answers, texts } = understood(step, body.answers)
  const needLead = job.ways.rules.departuresNeedLead
  const agreed =
    needLead && body.departure && who.role !== 'lead' ? await leadWhoAgreed({ tx, job }, step.id) : null
  const closed = completeStep(job.route, job.facts, job.done, step.id, answers, {
    derive: (facts) => deriveFacts(job.sheet, facts),
    departure: body.departure,
    departuresNeedLead: needLead,
    leadAgrees: who.role === 'lead' || agreed !== null,
  })
  const departed = closed.departedFrom.length > 0
  const reason = departed ? body.departure!.reason : null
  // the second of two who close the same step meets the constraint step_closed_once
  await tx.query(
    `with closed as (
       insert into step_done (job_id, step, answers, texts, departed_from, reason, lead, asked, by_person, at)
       values ($1, $2, $3::jsonb, $4::jsonb, $5::jsonb, $6, $7, $8::jsonb, $9, $10) returning id
     ), standing as (
       insert into step_standing (job_id, step, step_done_id) select $1, $2, id from closed returning 1
     )
     delete from step_draft where job_id = $1 and step = $2`,
    [
      job.id,
      step.id,
      JSON.stringify(closed.answers),
      JSON.stringify(texts),
      JSON.stringify(closed.departedFrom),
      reason,
      departed ? agreed : null,
      JSON.stringify(askedNow(step)),
      who.id,
      who.at,
    ],
  )
  return {
    kind: 'step',
    subject: `step:${step.id}`,
    data: { what: step.what, ...(reason ? { reason } : {}) },
  }
}

/** What the step says and asks today, to be read with its answers when the route has long changed. */
function askedNow({ what, asks }: Step): AskedThen {
  return {
    what,
    asks: asks.map((a) => ({
      fact: a.fact,
      label: a.label,
      kind: a.kind,
      ...(a.kind === 'choice' ? { options: a.options } : {}),
      ...(a.kind === 'number'
        ? {
            unit: a.unit,
            ...(a.min === undefined ? {} : { min: a.min }),
            ...(a.max === undefined ? {} : { max: a.max }),
          }
        : {}),
    })),
  }
}

/** The lead who has agreed to go on with a step since it was last closed; null when none has. */
async function leadWhoAgreed({ tx, job }: Pick<At, 'tx' | 'job'>, step: string): Promise<string | null> {
  const last = job.closings.findLast((c) => c.step === step)
  const [row] = await tx.query<{ by_person: string }>(
    `select by_person from lead_agreement where job_id = $1 and step = $2 and at > $3::timestamptz
     order by id desc limit 1`,
    [job.id, step, last?.at ?? '-infinity'],
  )
  return row?.by_person ?? null
}
