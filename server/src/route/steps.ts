import type { DoneStep, JobWork, StepDraft } from '@moray/contract/replies'
import type { CloseStep, KeepDraft } from '@moray/contract/requests/route'
import { InputError } from '@moray/core/checks/input-error'
import { completeStep, type Answers } from '@moray/core/route/complete'
import { deriveFacts } from '@moray/core/route/job-facts'
import { dependentsOf } from '@moray/core/route/progress'
import type { Step } from '@moray/core/route/route'
import { routeOf } from '@moray/core/route/route-of'
import { plainNumber } from '@moray/core/units/plain-number'
import { parseReading } from '@moray/core/units/notation'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'
import { loadWork } from './work.ts'

interface StepRow {
  id: number
  step: string
  answers: DoneStep['answers']
  texts: DoneStep['texts']
  departed_from: string[]
  reason: string | null
  lead_name: string | null
  name: string
  at: Date
  back_reason: string | null
  back_by: string | null
  back_at: Date | null
}

/** Every closing of a step, in order, those taken back included. */
export async function listSteps(db: Queryable, jobId: string): Promise<DoneStep[]> {
  const rows = await db.query<StepRow>(
    `select d.id, d.step, d.answers, d.texts, d.departed_from, d.reason, l.name as lead_name, p.name, d.at,
       b.reason as back_reason, bp.name as back_by, b.at as back_at
     from step_done d join person p on p.id = d.by_person left join person l on l.id = d.lead
     left join step_taken_back b on b.step_done_id = d.id left join person bp on bp.id = b.by_person
     where d.job_id = $1 order by d.id`,
    [jobId],
  )
  return rows.map((r) => ({
    id: r.id,
    step: r.step,
    answers: r.answers,
    texts: r.texts,
    departedFrom: r.departed_from,
    reason: r.reason,
    lead: r.lead_name,
    by: r.name,
    at: r.at.toISOString(),
    takenBack:
      r.back_reason === null ? null : { reason: r.back_reason, by: r.back_by!, at: r.back_at!.toISOString() },
  }))
}

/**
 * Closes a step of the route; the core says whether it may.
 * @param known what the job holds, where it has just been loaded
 * @returns a sentence for the history
 */
export async function closeStep(at: JobStep, body: CloseStep, known?: JobWork): Promise<string> {
  const { tx, job, sheet, builds, who } = at
  if (job.state === 'closed') throw new Refusal(409, 'closed', 'This job is closed; reopen it first.')
  const route = routeOf(sheet)
  const step = route.steps.find((s) => s.id === body.step)
  if (!step) throw notFound('Step', body.step)
  const work = known ?? (await loadWork(tx, job, builds, who.at))
  const done = new Set(work.steps.filter((s) => !s.takenBack).map((s) => s.step))
  const lead = body.departure?.lead
  if (lead !== undefined) await mustBeLead(tx, lead)
  const { answers, texts } = understood(step, body.answers)
  const closed = completeStep(route, work.facts, done, step.id, answers, {
    derive: (facts) => deriveFacts(sheet, facts),
    departure: body.departure,
    departuresNeedLead: work.rules.departuresNeedLead,
  })
  const departed = closed.departedFrom.length > 0
  await tx.query(
    `insert into step_done (job_id, step, answers, texts, departed_from, reason, lead, by_person, at)
     values ($1, $2, $3::jsonb, $4::jsonb, $5::jsonb, $6, $7, $8, $9)`,
    [
      job.id,
      step.id,
      JSON.stringify(closed.answers),
      JSON.stringify(texts),
      JSON.stringify(closed.departedFrom),
      departed ? body.departure!.reason.trim() : null,
      departed ? (lead ?? null) : null,
      who.id,
      who.at,
    ],
  )
  await tx.query('delete from step_draft where job_id = $1 and step = $2', [job.id, step.id])
  return departed
    ? `${step.what}: gone on all the same (${body.departure!.reason.trim()})`
    : `${step.what}: done`
}

/** What is typed at steps that are not closed yet. */
export async function listDrafts(db: Queryable, jobId: string): Promise<StepDraft[]> {
  const rows = await db.query<{
    step: string
    answers: StepDraft['answers']
    begun_at: Date
    name: string
    at: Date
  }>(
    `select d.step, d.answers, d.begun_at, p.name, d.at from step_draft d join person p on p.id = d.by_person
     where d.job_id = $1 order by d.step`,
    [jobId],
  )
  return rows.map((r) => ({
    step: r.step,
    answers: r.answers,
    begunAt: r.begun_at.toISOString(),
    by: r.name,
    at: r.at.toISOString(),
  }))
}

/** Keeps what has been typed so far, or throws it away when nothing is left of it. */
export async function keepDraft({ tx, job, sheet, who }: JobStep, body: KeepDraft): Promise<null> {
  const step = routeOf(sheet).steps.find((s) => s.id === body.step)
  if (!step) throw notFound('Step', body.step)
  // a draft that comes after its step was closed is late, not new
  const [closed] = await tx.query(
    `select 1 from step_done d left join step_taken_back b on b.step_done_id = d.id
     where d.job_id = $1 and d.step = $2 and b.step_done_id is null`,
    [job.id, step.id],
  )
  if (closed) return null
  if (Object.keys(body.answers).length === 0) {
    await tx.query('delete from step_draft where job_id = $1 and step = $2', [job.id, step.id])
    return null
  }
  await tx.query(
    `insert into step_draft (job_id, step, answers, begun_at, by_person, at) values ($1, $2, $3::jsonb, $5, $4, $5)
     on conflict (job_id, step) do update set answers = excluded.answers, by_person = excluded.by_person, at = excluded.at`,
    [job.id, step.id, JSON.stringify(body.answers), who.id, who.at],
  )
  return null
}

/** Numbers typed in bench notation become canonical; the text is kept beside them. */
function understood(
  step: Step,
  raw: CloseStep['answers'],
): { answers: Answers; texts: Record<string, string> } {
  const answers: Answers = {}
  const texts: Record<string, string> = {}
  for (const [fact, value] of Object.entries(raw)) {
    const ask = step.asks.find((a) => a.fact === fact)
    if (ask?.kind !== 'number' || typeof value !== 'string') {
      answers[fact] = value
      continue
    }
    if (value.trim() === '') continue
    texts[fact] = value.trim()
    answers[fact] = numberOf(`answers.${fact}`, value.trim(), ask)
  }
  return { answers, texts }
}

function numberOf(
  path: string,
  text: string,
  ask: Extract<Step['asks'][number], { kind: 'number' }>,
): number {
  if (ask.quantity) {
    try {
      return parseReading({ text, quantity: ask.quantity }).value
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      throw new InputError(
        e.code,
        e.fields.map((f) => ({ path, message: f.message })),
      )
    }
  }
  const value = plainNumber(text)
  if (value !== undefined) return value
  throw new InputError('invalid-input', [{ path, message: `"${text}" is not a number` }])
}

/**
 * Takes a closed step back, and every later step that stands on it: they are done again. Nothing is deleted.
 */
export async function takeBack(at: JobStep, doneId: number, reason: string): Promise<string> {
  const { tx, job, sheet } = at
  const steps = await listSteps(tx, job.id)
  const entry = steps.find((s) => s.id === doneId)
  if (!entry) throw notFound('Closed step', String(doneId))
  if (entry.takenBack) throw new Refusal(409, 'already-taken-back', 'That step was taken back already.')
  const route = routeOf(sheet)
  const falling = new Set([entry.step, ...dependentsOf(route, entry.step)])
  const own = steps.filter((s) => !s.takenBack && falling.has(s.step))
  for (const s of own)
    await tx.query(
      'insert into step_taken_back (step_done_id, reason, by_person, at) values ($1, $2, $3, $4)',
      [s.id, reason.trim(), at.who.id, at.who.at],
    )
  const name = route.steps.find((s) => s.id === entry.step)?.what ?? entry.step
  return `${name}: taken back${own.length > 1 ? `, with ${own.length - 1} later steps` : ''} (${reason.trim()})`
}

export async function mustBeLead(tx: Transaction, id: string): Promise<void> {
  const [row] = await tx.query<{ role: string; name: string }>(
    'select role, name from person where id = $1',
    [id],
  )
  if (!row) throw notFound('Person', id)
  if (row.role !== 'lead')
    throw new Refusal(422, 'no-lead', `${row.name} is not the lead of this shop.`, [
      { path: 'departure.lead', message: 'must be the lead' },
    ])
}
