import type { GivePartGrade } from '@moray/contract/requests/parts'
import { refuse } from '@moray/core/checks/input-error'
import { setOf } from '@moray/core/drives/parts'
import { GRADES, propose, type Grade } from '@moray/core/inspection/criteria'
import type { Told } from '@moray/core/job/event'
import { typedFigure } from '@moray/core/units/typed-figure'
import { notFound } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

/** Records a technician's decision on a part beside what the criteria proposed. A condemned part of a set condemns the set. */
export async function gradePart({ tx, job, who, entered }: At, body: GivePartGrade): Promise<Told> {
  const { sheet } = job
  const part = sheet.parts.find((p) => p.id === body.part)
  if (!part) throw notFound('Part', body.part)
  const measuredMm = body.measured
    ? typedFigure('measured', body.measured, 'mm', 'runout', { confirmed: true }).value
    : null
  const zone = sheet.runoutLimits.find((l) => l.zone === body.zone)
  if (body.zone !== undefined && !zone)
    refuse(
      'zone',
      `"${body.zone}" is no zone; there are ${sheet.runoutLimits.map((l) => l.zone).join(', ') || 'none on the sheet yet'}`,
    )
  // a sheet without limits yet: what was measured is kept, and held against nothing
  const limits = sheet.runoutLimits.map((l) => l.tirMm)
  const limit = zone?.tirMm ?? (limits.length ? Math.min(...limits) : undefined)
  const proposal = propose(part.kind, body.seen ?? [], {
    inSet: part.set !== undefined,
    ...(measuredMm === null || limit === undefined ? {} : { runoutMm: measuredMm, runoutLimitMm: limit }),
  })
  const others =
    body.grade === 'replace-set' ? setOf(sheet.parts, part.id).filter((p) => p.id !== part.id) : []
  const own = {
    part: part.id,
    grade: body.grade,
    reason: body.reason,
    seen: body.seen ?? [],
    mm: measuredMm,
    proposed: proposal?.grade ?? null,
  }
  const set = others.map((o) => ({
    part: o.id,
    grade: 'replace-set' as Grade,
    reason: `goes with ${part.name.toLowerCase()}: ${body.reason}`,
    seen: [],
    mm: null,
    proposed: 'replace-set' as Grade,
  }))
  await tx.query(
    `insert into grade (job_id, part, grade, reason, seen, measured_mm, proposed, by_person, at, entered)
     select $1, g.part, g.grade, g.reason, g.seen, g.mm, g.proposed, $3, $4, $5
     from jsonb_to_recordset($2::jsonb) as g (part text, grade text, reason text, seen jsonb, mm float8, proposed text)`,
    [job.id, JSON.stringify([own, ...set]), who.id, who.at, entered],
  )
  const departs = proposal && proposal.grade !== body.grade
  return {
    kind: 'grade',
    subject: `part:${part.id}`,
    data: {
      part: part.name,
      grade: GRADES[body.grade],
      ...(departs ? { against: GRADES[proposal.grade] } : {}),
      reason: body.reason,
      also: others.map((o) => o.name),
    },
  }
}
