import type { ApprovalChoice, EstimateEntry } from '@moray/contract/replies'
import type { MakeEstimate, RecordApproval } from '@moray/contract/requests/route'
import { estimate } from '@moray/core/inspection/estimate'
import type { Queryable } from '../db/database.ts'
import { listGrades } from '../grades/grades.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'

interface EstimateRow {
  id: number
  body: EstimateEntry['body']
  name: string
  at: Date
  choice: ApprovalChoice | null
  customer: string | null
  how: string | null
  approved_by: string | null
  approved_at: Date | null
}

/** Every estimate that was made, with what the customer said to it (the newest word counts). */
export async function listEstimates(db: Queryable, jobId: string): Promise<EstimateEntry[]> {
  const rows = await db.query<EstimateRow>(
    `select e.id, e.body, p.name, e.at, a.choice, a.customer, a.how, ap.name as approved_by, a.at as approved_at
     from estimate e join person p on p.id = e.by_person
     left join lateral (select * from approval x where x.estimate_id = e.id order by x.id desc limit 1) a on true
     left join person ap on ap.id = a.by_person
     where e.job_id = $1 order by e.id`,
    [jobId],
  )
  return rows.map((r) => ({
    id: r.id,
    body: r.body,
    by: r.name,
    at: r.at.toISOString(),
    approval:
      r.choice === null
        ? null
        : {
            choice: r.choice,
            customer: r.customer!,
            how: r.how!,
            by: r.approved_by!,
            at: r.approved_at!.toISOString(),
          },
  }))
}

/** Makes an estimate from the grades as they stand, and keeps it as it was shown. */
export async function makeEstimate({ tx, job, sheet, who }: JobStep, body: MakeEstimate): Promise<string> {
  const counted = (await listGrades(tx, job.id)).filter((g) => !g.superseded)
  const terms = { rate: body.rate, consumables: body.consumables, extraHours: body.extraHours ?? 0 }
  const made = estimate(sheet, {
    grades: Object.fromEntries(counted.map((g) => [g.part, g.grade])),
    reasons: Object.fromEntries(counted.map((g) => [g.part, g.reason])),
    ...terms,
  })
  await tx.query('insert into estimate (job_id, body, by_person, at) values ($1, $2::jsonb, $3, $4)', [
    job.id,
    JSON.stringify({ ...made, ...terms }),
    who.id,
    who.at,
  ])
  return `Estimate: rebuild ${Math.round(made.options[0]!.total)}, ${made.order.length} positions to buy`
}

/** Records what the customer decided, and how it was said. A cracked case is never rebuilt, whoever agrees. */
export async function recordApproval({ tx, job, who }: JobStep, body: RecordApproval): Promise<string> {
  const all = await listEstimates(tx, job.id)
  const shown = all.find((e) => e.id === body.estimateId)
  if (!shown) throw notFound('Estimate', String(body.estimateId))
  if (shown !== all.at(-1))
    throw new Refusal(409, 'stale-estimate', 'A newer estimate has been made; show that one.')
  if (body.choice !== 'stop' && !shown.body.options.some((o) => o.id === body.choice))
    throw new Refusal(422, 'not-offered', `This estimate offers no "${body.choice}".`)
  await tx.query(
    'insert into approval (estimate_id, choice, customer, how, by_person, at) values ($1, $2, $3, $4, $5, $6)',
    [shown.id, body.choice, body.customer.trim(), body.how.trim(), who.id, who.at],
  )
  return `${body.customer.trim()} decided: ${body.choice} (${body.how.trim()})`
}
