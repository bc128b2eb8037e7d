import type { SayFinding, SayOutcome } from '@moray/contract/requests/parts'
import type { SetLikelihood } from '@moray/contract/requests/shop'
import {
  seedTable,
  shopTable,
  type FaultCase,
  type LikelihoodEdit,
} from '@moray/core/inspection/fault-history'
import type { Told } from '@moray/core/job/event'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'

/** Older faults than these say nothing new about how common a cause is here. */
const MOST_CASES = 400

/** Faults of the other jobs that were followed to their end, the newest ones: the shop's own experience. */
export async function faultHistory(db: Queryable, exceptJob: string): Promise<FaultCase[]> {
  const rows = await db.query<{ cause: string; findings: string[] | null; absent: string[] | null }>(
    `with ended as (
       select distinct on (job_id) job_id, id, cause from (select * from fault_outcome where job_id <> $1 order by id desc limit 2 * $2) o order by job_id, id desc
     ), newest as (
       select * from ended order by id desc limit $2
     ), said as (
       select distinct on (f.job_id, f.finding) f.job_id, f.finding, f.present
       from job_finding f join newest n on n.job_id = f.job_id order by f.job_id, f.finding, f.id desc
     )
     select e.cause,
       array_agg(s.finding order by s.finding) filter (where s.present) as findings,
       array_agg(s.finding order by s.finding) filter (where not s.present) as absent
     from newest e left join said s on s.job_id = e.job_id group by e.job_id, e.id, e.cause order by e.id`,
    [exceptJob, MOST_CASES],
  )
  return rows.map((r) => ({ cause: r.cause, findings: r.findings ?? [], absent: r.absent ?? [] }))
}

/** How often each cause was found here. */
export async function causesFound(db: Queryable): Promise<Record<string, number>> {
  const rows = await db.query<{ cause: string; n: number }>(
    `select cause, count(*)::int as n
     from (select distinct on (job_id) cause from fault_outcome order by job_id, id desc) e group by cause`,
  )
  return Object.fromEntries(rows.map((r) => [r.cause, r.n]))
}

/** Likelihoods that the shop has set; the newest of a pair counts, an empty one takes it back. */
export async function likelihoodEdits(db: Queryable): Promise<LikelihoodEdit[]> {
  const rows = await db.query<{ finding: string; cause: string; likelihood: number | null }>(
    'select distinct on (finding, cause) finding, cause, likelihood from likelihood_edit order by finding, cause, id desc',
  )
  return rows.flatMap((r) => (r.likelihood === null ? [] : [{ ...r, likelihood: r.likelihood }]))
}

export async function sayFinding({ tx, job, who }: At, body: SayFinding): Promise<Told> {
  const finding = seedTable.findings.find((f) => f.id === body.finding)
  if (!finding) throw notFound('Finding', body.finding)
  const present = body.state === 'unknown' ? null : body.state === 'there'
  await tx.query(
    'insert into job_finding (job_id, finding, present, by_person, at) values ($1, $2, $3, $4, $5)',
    [job.id, finding.id, present, who.id, who.at],
  )
  return {
    kind: 'finding',
    subject: `finding:${finding.id}`,
    data: { label: finding.label, state: body.state },
  }
}

export async function sayOutcome({ tx, job, who }: At, body: SayOutcome): Promise<Told> {
  const cause = seedTable.causes.find((c) => c.id === body.cause)
  if (!cause) throw notFound('Cause', body.cause)
  await tx.query(
    'insert into fault_outcome (job_id, cause, note, by_person, at) values ($1, $2, $3, $4, $5)',
    [job.id, cause.id, body.note || null, who.id, who.at],
  )
  return { kind: 'outcome', subject: `cause:${cause.id}`, data: { label: cause.label } }
}

export async function setLikelihood(tx: Transaction, body: SetLikelihood, who: Who): Promise<Told> {
  if (body.likelihood !== undefined)
    shopTable([], [{ finding: body.finding, cause: body.cause, likelihood: body.likelihood }])
  const finding = seedTable.findings.find((f) => f.id === body.finding)
  const cause = seedTable.causes.find((c) => c.id === body.cause)
  if (!finding) throw notFound('Finding', body.finding)
  if (!cause) throw notFound('Cause', body.cause)
  await tx.query(
    'insert into likelihood_edit (finding, cause, likelihood, reason, by_person, at) values ($1, $2, $3, $4, $5, $6)',
    [finding.id, cause.id, body.likelihood ?? null, body.reason, who.id, who.at],
  )
  return {
    kind: 'shop',
    subject: `finding:${finding.id}`,
    data: {
      about: 'likelihood',
      finding: finding.label,
      cause: cause.label,
      ...(body.likelihood === undefined ? {} : { likelihood: body.likelihood }),
      reason: body.reason,
    },
  }
}
