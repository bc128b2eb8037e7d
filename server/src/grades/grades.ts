import type { GradeEntry } from '@moray/contract/replies'
import type { GivePartGrade } from '@moray/contract/requests/route'
import { refuse } from '@moray/core/checks/input-error'
import { GRADES, propose, type Grade } from '@moray/core/inspection/criteria'
import { setOf } from '@moray/core/drives/parts'
import type { Queryable } from '../db/database.ts'
import { readLength } from '../http/lengths.ts'
import { notFound } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'

interface GradeRow {
  id: number
  part: string
  grade: Grade
  reason: string
  seen: string[]
  measured_mm: number | null
  proposed: Grade | null
  name: string
  at: Date
}

/** Every grade given, oldest first; of each part the newest counts. */
export async function listGrades(db: Queryable, jobId: string): Promise<GradeEntry[]> {
  const rows = await db.query<GradeRow>(
    `select g.id, g.part, g.grade, g.reason, g.seen, g.measured_mm, g.proposed, p.name, g.at
     from grade g join person p on p.id = g.by_person where g.job_id = $1 order by g.id`,
    [jobId],
  )
  const newest = new Map(rows.map((r) => [r.part, r.id]))
  return rows.map((r) => ({
    id: r.id,
    part: r.part,
    grade: r.grade,
    reason: r.reason,
    seen: r.seen,
    measuredMm: r.measured_mm,
    proposed: r.proposed,
    by: r.name,
    at: r.at.toISOString(),
    superseded: newest.get(r.part) !== r.id,
  }))
}

/** Records a technician's decision on a part beside what the criteria proposed. A condemned part of a set condemns the set. */
export async function gradePart({ tx, job, sheet, who }: JobStep, body: GivePartGrade): Promise<string> {
  const part = sheet.parts.find((p) => p.id === body.part)
  if (!part) throw notFound('Part', body.part)
  const measuredMm =
    body.measured === undefined || body.measured.trim() === ''
      ? null
      : readLength('measured', body.measured, 'mm', 'end-play', { confirmed: true }).mm
  const zone = sheet.runoutLimits.find((l) => l.zone === body.zone)
  if (body.zone !== undefined && !zone)
    refuse('zone', `"${body.zone}" is no zone; there are ${sheet.runoutLimits.map((l) => l.zone).join(', ')}`)
  const limit = zone?.tirMm ?? Math.min(...sheet.runoutLimits.map((l) => l.tirMm))
  const proposal = propose(part.kind, body.seen ?? [], {
    inSet: part.set !== undefined,
    ...(measuredMm === null ? {} : { runoutMm: measuredMm, runoutLimitMm: limit }),
  })
  const record = (
    id: string,
    grade: Grade,
    reason: string,
    seen: string[],
    mm: number | null,
    proposed: Grade | null,
  ) =>
    tx.query(
      `insert into grade (job_id, part, grade, reason, seen, measured_mm, proposed, by_person, at)
       values ($1, $2, $3, $4, $5::jsonb, $6, $7, $8, $9)`,
      [job.id, id, grade, reason, JSON.stringify(seen), mm, proposed, who.id, who.at],
    )
  await record(part.id, body.grade, body.reason.trim(), body.seen ?? [], measuredMm, proposal?.grade ?? null)
  const departs =
    proposal && proposal.grade !== body.grade ? `, against the proposed "${GRADES[proposal.grade]}"` : ''
  const others =
    body.grade === 'replace-set' ? setOf(sheet.parts, part.id).filter((p) => p.id !== part.id) : []
  for (const other of others)
    await record(
      other.id,
      'replace-set',
      `goes with ${part.name.toLowerCase()}: ${body.reason.trim()}`,
      [],
      null,
      'replace-set',
    )
  const also = others.length ? `; with it ${others.map((p) => p.name).join(', ')}` : ''
  return `${part.name}: ${GRADES[body.grade]}${departs} (${body.reason.trim()})${also}`
}
