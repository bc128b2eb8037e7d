import type { CloseStep, CorrectStep } from '@moray/contract/requests/route'
import { correctRecord, correctStep } from '@moray/core/job/correct'
import type { Told } from '@moray/core/job/event'
import { isOver, type AskedThen } from '@moray/core/job/record'
import { completeStep, type Completed } from '@moray/core/route/complete'
import { deriveFacts } from '@moray/core/route/job-facts'
import type { Step } from '@moray/core/route/route'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { understood } from './understood.ts'

/** Closes a step of the route; the core says whether it may. What was asked stays with what was answered. */
export async function closeStep({ tx, job, who, entered }: At, body: CloseStep): Promise<Told> {
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
  const id = await keepClosing({ tx, job, who, entered }, step, closed, texts, {
    reason: closed.departedFrom.length ? body.departure!.reason : null,
    lead: closed.departedFrom.length ? agreed : null,
    undone: closed.departedFrom.length > 0 && body.departure!.undone === true,
  })
  if (closed.attempt.length) {
    await tx.query(
      `with draft as (delete from step_draft where job_id = $5 and step = $6)
       insert into step_taken_back (step_done_id, reason, by_person, at) values ($1, $2, $3, $4)`,
      [id, closed.attempt.join(' '), who.id, who.at, job.id, step.id],
    )
    return { kind: 'attempt', subject: `step:${step.id}`, data: { what: step.what, why: closed.attempt } }
  }
  await keepFindings({ tx, job, who, entered }, step, closed)
  // the second of two who close the same step meets the constraint step_closed_once
  await tx.query(
    `with draft as (delete from step_draft where job_id = $1 and step = $2)
     insert into step_standing (job_id, step, step_done_id) values ($1, $2, $3)`,
    [job.id, step.id, id],
  )
  const reason = closed.departedFrom.length ? body.departure!.reason : null
  return {
    kind: 'step',
    subject: `step:${step.id}`,
    data: { what: step.what, ...(reason ? { reason } : {}) },
  }
}

/** What an answer says of the drive is a finding too: the fault finder knows it without asking again. */
async function keepFindings({ tx, job, who }: At, step: Step, closed: Completed): Promise<void> {
  const found = step.asks.flatMap(
    (a) => (a.kind === 'choice' && a.finds?.[String(closed.answers[a.fact])]) || [],
  )
  const known = new Set(job.findings.flatMap((f) => (f.present ? f.finding : [])))
  const fresh = [...new Set(found)].filter((f) => !known.has(f))
  if (!fresh.length) return
  await tx.query(
    'insert into job_finding (job_id, finding, present, by_person, at) select $1, f, true, $2, $3 from unnest($4::text[]) f',
    [job.id, who.id, who.at, fresh],
  )
}

/** Writes down what was answered, with the words in which it was asked. @returns its id */
async function keepClosing(
  { tx, job, who, entered }: At,
  step: Step,
  closed: Completed,
  texts: Record<string, string>,
  departed: { reason: string | null; lead: string | null; undone?: boolean },
): Promise<number> {
  const [row] = await tx.query<{ id: number }>(
    `insert into step_done (job_id, step, answers, texts, departed_from, reason, lead, asked, by_person, at, entered, undone)
     values ($1, $2, $3::jsonb, $4::jsonb, $5::jsonb, $6, $7, $8::jsonb, $9, $10, $11, $12) returning id`,
    [
      job.id,
      step.id,
      JSON.stringify(closed.answers),
      JSON.stringify(texts),
      JSON.stringify(closed.departedFrom),
      departed.reason,
      departed.lead,
      JSON.stringify(askedNow(step)),
      who.id,
      who.at,
      entered,
      departed.undone || null,
    ],
  )
  return row!.id
}

/**
 * Puts the answers of a closed step right: the old ones stay to be read, the new ones count, and only what stood on a changed
 * fact is done again.
 */
export async function correctAnswers(at: At, body: CorrectStep, closingId: number): Promise<Told> {
  const { tx, job, who } = at
  const entry = job.closings.find((c) => c.id === closingId)
  if (!entry) throw notFound('Closed step', String(closingId))
  if (entry.takenBack) throw new Refusal(409, 'already-taken-back', 'That closing no longer counts.')
  const step = job.route.steps.find((s) => s.id === entry.step)
  if (!step) throw notFound('Step', entry.step)
  const { answers, texts } = understood(step, body.answers)
  const needLead = job.ways.rules.departuresNeedLead
  const agreed =
    needLead && body.departure && who.role !== 'lead' ? await leadWhoAgreed({ tx, job }, step.id) : null
  const over = isOver(job.state)
  const { closed, fallen } = over
    ? correctRecord(entry, answers)
    : correctStep(job, entry, answers, who.at, {
        departure: body.departure,
        departuresNeedLead: needLead,
        leadAgrees: who.role === 'lead' || agreed !== null,
      })
  const departed = closed.departedFrom.length > 0
  const id = await keepClosing(at, step, closed, texts, {
    reason: departed ? (over ? entry.reason : body.departure!.reason) : null,
    lead: departed ? (over ? entry.lead : agreed) : null,
    undone: departed && (over ? entry.undone === true : body.departure?.undone === true),
  })
  await tx.query(
    `with corrected as (
       insert into step_taken_back (step_done_id, reason, by_person, at, replaced_by) values ($1, $3, $4, $5, $2)
     ), moved as (
       update step_standing set step_done_id = $2 where step_done_id = $1
     ), gone as (
       insert into step_taken_back (step_done_id, reason, by_person, at)
       select f, $3, $4, $5 from unnest($6::bigint[]) f returning step_done_id
     )
     delete from step_standing s using gone where s.step_done_id = gone.step_done_id`,
    [entry.id, id, body.reason, who.id, who.at, fallen],
  )
  return {
    kind: 'step-corrected',
    subject: `step:${step.id}`,
    data: {
      what: step.what,
      later: fallen.length,
      reason: body.reason,
      ...(over ? { over: true as const } : {}),
    },
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
      ...(a.kind === 'choice' || a.kind === 'list' ? { options: a.options } : {}),
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
    `select by_person from lead_agreement where job_id = $1 and step = $2
       and case when entered is null or $4::int is null then at > $3::timestamptz else entered > $4 end
     order by id desc limit 1`,
    [job.id, step, last?.at ?? '-infinity', last?.entered ?? null],
  )
  return row?.by_person ?? null
}
