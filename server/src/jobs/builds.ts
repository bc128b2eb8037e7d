import type { Acceptance, Build, ReadingEntry, StackEntry, StackPiece } from '@moray/contract/replies'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { factsOf } from '@moray/contract/facts'
import { assess, checkPrediction, type BuildFacts } from '@moray/core/setting/assess'
import type { Queryable } from '../db/database.ts'

interface BuildRow {
  id: number
  number: number
  plan: Build['plan']
  accepted: boolean
  name: string
  at: Date
}

interface StackRow {
  id: number
  build_id: number
  location: string
  name: string
  at: Date
  reason: string | null
  gone_by: string | null
  gone_at: Date | null
}

interface PieceRow {
  id: number
  stack_id: number
  thickness_mm: number
  text: string
  line_id: string | null
  found_piece_id: number | null
}

interface ReadingRow {
  id: number
  build_id: number
  measure: string
  raw_mm: number
  value_mm: number
  text: string
  unit: string
  gauge_id: string
  gauge_name: string
  gauge_overdue: boolean
  resolution: number
  mpe: number
  repeatability: number
  master_mm: number | null
  clock_deg: number | null
  note: string | null
  name: string
  at: Date
  replaced_by: number | null
  reason: string | null
  gone_by: string | null
  gone_at: Date | null
}

const iso = (d: Date) => d.toISOString()

/** A build as the reply shows it, with its database id and the gauge facts that judging needs. */
export interface LoadedBuild extends Build {
  rowId: number
  accepted: boolean
  facts: BuildFacts
}

/** All states of a job's gearcase, oldest first, superseded entries included, judged by the core. */
export async function loadBuilds(db: Queryable, jobId: string, sheet: DriveSheet): Promise<LoadedBuild[]> {
  const builds = await db.query<BuildRow>(
    `select b.id, b.number, b.plan, p.name, b.at, exists (select 1 from acceptance a where a.build_id = b.id) as accepted
     from build b join person p on p.id = b.by_person
     where b.job_id = $1 order by b.number`,
    [jobId],
  )
  const stacks = await db.query<StackRow>(
    `select s.id, s.build_id, s.location, p.name, s.at, x.reason, xp.name as gone_by, x.at as gone_at
     from stack s join build b on b.id = s.build_id join person p on p.id = s.by_person
     left join stack_superseded x on x.stack_id = s.id left join person xp on xp.id = x.by_person
     where b.job_id = $1 order by s.id`,
    [jobId],
  )
  const pieces = await db.query<PieceRow>(
    `select sp.id, sp.stack_id, sp.thickness_mm, sp.text, sp.line_id, sp.found_piece_id
     from stack_piece sp join stack s on s.id = sp.stack_id join build b on b.id = s.build_id
     where b.job_id = $1 order by sp.stack_id, sp.position`,
    [jobId],
  )
  const readings = await db.query<ReadingRow>(
    `select r.id, r.build_id, r.measure, r.raw_mm, r.value_mm, r.text, r.unit, r.gauge_id, g.name as gauge_name,
       r.gauge_overdue, r.resolution, r.mpe, r.repeatability, r.master_mm, r.clock_deg, r.note, p.name, r.at,
       x.replaced_by, x.reason, xp.name as gone_by, x.at as gone_at
     from reading r join build b on b.id = r.build_id join gauge g on g.id = r.gauge_id join person p on p.id = r.by_person
     left join reading_superseded x on x.reading_id = r.id left join person xp on xp.id = x.by_person
     where b.job_id = $1 order by r.id`,
    [jobId],
  )
  return builds.map((b) => {
    const ownStacks = stacks
      .filter((s) => s.build_id === b.id)
      .map((s) =>
        toStack(
          s,
          pieces.filter((p) => p.stack_id === s.id),
        ),
      )
    const ownReadings = readings.filter((r) => r.build_id === b.id).map(toReading)
    const facts = factsOf(ownStacks, ownReadings)
    const assessment = assess(sheet, facts)
    return {
      rowId: b.id,
      accepted: b.accepted,
      number: b.number,
      kind: b.number === 0 ? 'found' : 'trial',
      by: b.name,
      at: iso(b.at),
      stacks: ownStacks,
      readings: ownReadings,
      plan: b.plan,
      assessment,
      check: b.plan ? checkPrediction(b.plan.predicted, assessment) : [],
      facts,
    }
  })
}

/** Id under which a piece can be used again. */
export function pieceId(p: { id: number; line_id: string | null; found_piece_id: number | null }): string {
  return p.line_id !== null ? `d${p.line_id}` : `c${p.found_piece_id ?? p.id}`
}

function toStack(s: StackRow, pieces: PieceRow[]): StackEntry {
  const own: StackPiece[] = pieces.map((p) => ({
    id: pieceId(p),
    thicknessMm: p.thickness_mm,
    text: p.text,
    origin: p.line_id !== null ? 'drawer' : 'case',
  }))
  return {
    id: s.id,
    location: s.location,
    thicknessMm: own.reduce((sum, p) => sum + p.thicknessMm, 0),
    pieces: own,
    by: s.name,
    at: iso(s.at),
    superseded: s.reason === null ? null : { reason: s.reason, by: s.gone_by!, at: iso(s.gone_at!) },
  }
}

function toReading(r: ReadingRow): ReadingEntry {
  return {
    id: r.id,
    measure: r.measure,
    rawMm: r.raw_mm,
    valueMm: r.value_mm,
    text: r.text,
    unit: r.unit,
    gaugeId: r.gauge_id,
    gaugeName: r.gauge_name,
    gaugeOverdue: r.gauge_overdue,
    gauge: { resolution: r.resolution, mpe: r.mpe, repeatability: r.repeatability },
    masterMm: r.master_mm,
    clockDeg: r.clock_deg,
    note: r.note,
    by: r.name,
    at: iso(r.at),
    superseded:
      r.reason === null
        ? null
        : { reason: r.reason, by: r.gone_by!, at: iso(r.gone_at!), replacedBy: r.replaced_by },
  }
}

export async function loadAcceptance(db: Queryable, buildRowId: number): Promise<Acceptance | null> {
  const [row] = await db.query<{ number: number; reason: string | null; name: string; at: Date }>(
    `select b.number, a.reason, p.name, a.at from acceptance a join build b on b.id = a.build_id
     join person p on p.id = a.by_person where a.build_id = $1`,
    [buildRowId],
  )
  return row ? { build: row.number, reason: row.reason, by: row.name, at: iso(row.at) } : null
}
