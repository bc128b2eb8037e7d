import type { MakeEstimate, RecordApproval } from '@moray/contract/requests/parts'
import { estimate } from '@moray/core/inspection/estimate'
import { rebuildPlan, struckIn } from '@moray/core/job/job-plan'
import type { Part } from '@moray/core/drives/parts'
import { keepable, STOP_ENDS, stopEnds } from '@moray/core/job/decision'
import type { StopEnd } from '@moray/core/job/record'
import type { Told } from '@moray/core/job/event'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

/** Makes an estimate from the grades as they stand, and keeps it as it was shown. */
export async function makeEstimate({ tx, job, who, entered }: At, body: MakeEstimate): Promise<Told> {
  const counted = job.grades.filter((g) => !g.superseded)
  const terms = { rate: body.rate, consumables: body.consumables, extraHours: body.extraHours ?? 0 }
  // what a blow has done is as good as a grade
  const struck = struckIn(job, job.sheet)
  const made = estimate(job.sheet, {
    grades: {
      ...Object.fromEntries(counted.map((g) => [g.part, g.grade])),
      ...Object.fromEntries(struck.map((s) => [s.part.id, 'replace' as const])),
    },
    reasons: {
      ...Object.fromEntries(counted.map((g) => [g.part, g.reason])),
      ...Object.fromEntries(struck.map((s) => [s.part.id, s.reason])),
    },
    seen: {
      ...Object.fromEntries(counted.map((g) => [g.part, g.seen])),
      ...Object.fromEntries(struck.flatMap((s) => (s.why === 'cracked' ? [[s.part.id, ['crack']]] : []))),
    },
    scope: rebuildPlan(job, job.sheet, job.ways),
    ...terms,
  })
  await tx.query(
    'insert into estimate (job_id, body, by_person, at, entered) values ($1, $2::jsonb, $3, $4, $5)',
    [job.id, JSON.stringify({ ...made, ...terms }), who.id, who.at, entered],
  )
  return {
    kind: 'estimate',
    subject: 'estimate',
    data: { rebuild: made.options[0]!.total, positions: made.order.length },
  }
}

/** Records what the customer decided, and how it was said. What safety forbids is refused, whoever agrees. */
export async function recordApproval({ tx, job, who, entered }: At, body: RecordApproval): Promise<Told> {
  const shown = job.estimates.find((e) => e.id === body.estimateId)
  if (!shown) throw notFound('Estimate', String(body.estimateId))
  if (shown !== job.estimates.at(-1))
    throw new Refusal(409, 'stale-estimate', 'A newer estimate has been made; show that one.')
  const option = shown.body.options.find((o) => o.id === body.choice)
  if (body.choice !== 'stop' && !option)
    throw new Refusal(422, 'not-offered', `This estimate offers no "${body.choice}".`, [
      { path: 'choice', message: `one of ${shown.body.options.map((o) => o.id).join(', ')}, stop` },
    ])
  if (option?.forbidden)
    throw new Refusal(422, 'unsafe', option.forbidden, [{ path: 'choice', message: option.forbidden }])
  const { ends, kept } = endOf(job, body)
  await tx.query(
    `insert into approval (estimate_id, choice, customer, how, by_person, at, entered, ends, kept)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9::jsonb)`,
    [
      shown.id,
      body.choice,
      body.customer,
      body.how,
      who.id,
      who.at,
      entered,
      ends ?? null,
      kept ? JSON.stringify(kept.map((p) => p.id)) : null,
    ],
  )
  return {
    kind: 'approval',
    subject: `estimate:${shown.id}`,
    data: {
      customer: body.customer,
      choice: body.choice,
      how: body.how,
      ...(ends ? { ends: STOP_ENDS[ends] } : {}),
      ...(kept?.length ? { kept: kept.map((p) => p.name) } : {}),
    },
  }
}

/** In what it ends that is not rebuilt, and what is kept of it. @throws Refusal 422 where this drive cannot end so, or that part cannot be kept */
function endOf(job: At['job'], { choice, ends, kept }: RecordApproval): { ends?: StopEnd; kept?: Part[] } {
  const { state } = job.work
  if (choice === 'stop') {
    const offered = stopEnds(job.plan.scope, state)
    if (ends && !offered.includes(ends))
      throw new Refusal(422, 'no-such-end', `This drive cannot end so: ${STOP_ENDS[ends]}.`, [
        { path: 'ends', message: `one of ${offered.join(', ')}` },
      ])
    return { ends: ends ?? offered[0]! }
  }
  if (choice === 'rebuild') return {}
  const may = keepable(job.sheet, state)
  return {
    kept: (kept ?? []).map((id, i) => {
      const part = may.find((p) => p.id === id)
      if (part) return part
      const name = job.sheet.parts.find((p) => p.id === id)?.name
      throw new Refusal(422, 'not-kept', `${name ?? `"${id}"`} cannot be kept for another unit.`, [
        { path: `kept[${i}]`, message: `one of ${may.map((p) => p.id).join(', ')}` },
      ])
    }),
  }
}
