import type { FindingEntry, OutcomeEntry } from '@moray/contract/replies'
import type { SayFinding, SayOutcome, SetLikelihood } from '@moray/contract/requests/route'
import {
  seedTable,
  shopTable,
  type FaultCase,
  type LikelihoodEdit,
} from '@moray/core/inspection/fault-history'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import type { Who } from '../http/write.ts'
import type { JobStep } from '../jobs/on-job.ts'

/** What is known of a job's findings; the newest word on each counts, "not known" takes it out again. */
export async function listFindings(db: Queryable, jobId: string): Promise<FindingEntry[]> {
  const rows = await db.query<{ finding: string; present: boolean | null; name: string; at: Date }>(
    `select distinct on (f.finding) f.finding, f.present, p.name, f.at
     from job_finding f join person p on p.id = f.by_person where f.job_id = $1 order by f.finding, f.id desc`,
    [jobId],
  )
  return rows.flatMap((r) =>
    r.present === null
      ? []
      : [{ finding: r.finding, present: r.present, by: r.name, at: r.at.toISOString() }],
  )
}

export async function outcomeOf(db: Queryable, jobId: string): Promise<OutcomeEntry | null> {
  const [row] = await db.query<{ cause: string; note: string | null; name: string; at: Date }>(
    `select o.cause, o.note, p.name, o.at from fault_outcome o join person p on p.id = o.by_person
     where o.job_id = $1 order by o.id desc limit 1`,
    [jobId],
  )
  return row ? { cause: row.cause, note: row.note, by: row.name, at: row.at.toISOString() } : null
}

/** Faults of the other jobs that were followed to their end: the shop's own experience. */
export async function faultHistory(db: Queryable, exceptJob: string | null): Promise<FaultCase[]> {
  const rows = await db.query<{ cause: string; findings: string[] | null; absent: string[] | null }>(
    `with ended as (
       select distinct on (job_id) job_id, cause from fault_outcome order by job_id, id desc
     ), said as (
       select distinct on (job_id, finding) job_id, finding, present from job_finding order by job_id, finding, id desc
     )
     select e.cause,
       array_agg(s.finding order by s.finding) filter (where s.present) as findings,
       array_agg(s.finding order by s.finding) filter (where not s.present) as absent
     from ended e left join said s on s.job_id = e.job_id
     where $1::text is null or e.job_id <> $1 group by e.job_id, e.cause order by e.job_id`,
    [exceptJob],
  )
  return rows.map((r) => ({ cause: r.cause, findings: r.findings ?? [], absent: r.absent ?? [] }))
}

/** Likelihoods that the shop has set; the newest of a pair counts, an empty one takes it back. */
export async function likelihoodEdits(db: Queryable): Promise<LikelihoodEdit[]> {
  const rows = await db.query<{ finding: string; cause: string; likelihood: number | null }>(
    'select distinct on (finding, cause) finding, cause, likelihood from likelihood_edit order by finding, cause, id desc',
  )
  return rows.flatMap((r) => (r.likelihood === null ? [] : [{ ...r, likelihood: r.likelihood }]))
}

export async function sayFinding({ tx, job, who }: JobStep, body: SayFinding): Promise<string> {
  const finding = seedTable.findings.find((f) => f.id === body.finding)
  if (!finding) throw notFound('Finding', body.finding)
  const present = body.state === 'unknown' ? null : body.state === 'there'
  await tx.query(
    'insert into job_finding (job_id, finding, present, by_person, at) values ($1, $2, $3, $4, $5)',
    [job.id, finding.id, present, who.id, who.at],
  )
  const word = { there: 'found', not: 'not there', unknown: 'not known after all' }[body.state]
  return `${finding.label}: ${word}`
}

export async function sayOutcome({ tx, job, who }: JobStep, body: SayOutcome): Promise<string> {
  const cause = seedTable.causes.find((c) => c.id === body.cause)
  if (!cause) throw notFound('Cause', body.cause)
  await tx.query(
    'insert into fault_outcome (job_id, cause, note, by_person, at) values ($1, $2, $3, $4, $5)',
    [job.id, cause.id, body.note?.trim() || null, who.id, who.at],
  )
  return `It was: ${cause.label}`
}

export async function setLikelihood(tx: Transaction, body: SetLikelihood, who: Who): Promise<string> {
  if (body.likelihood !== undefined)
    shopTable([], [{ finding: body.finding, cause: body.cause, likelihood: body.likelihood }])
  const [finding, cause] = [
    seedTable.findings.find((f) => f.id === body.finding),
    seedTable.causes.find((c) => c.id === body.cause),
  ]
  if (!finding) throw notFound('Finding', body.finding)
  if (!cause) throw notFound('Cause', body.cause)
  await tx.query(
    'insert into likelihood_edit (finding, cause, likelihood, reason, by_person, at) values ($1, $2, $3, $4, $5, $6)',
    [finding.id, cause.id, body.likelihood ?? null, body.reason.trim(), who.id, who.at],
  )
  const to =
    body.likelihood === undefined ? 'as in the table again' : `${Math.round(body.likelihood * 100)} %`
  return `${finding.label} with ${cause.label}: ${to} (${body.reason.trim()})`
}
