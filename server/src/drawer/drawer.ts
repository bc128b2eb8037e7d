import type { DrawerLine, DrawerMovement } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'

interface Row {
  id: string
  place: string
  thickness_mm: number
  text: string
  count: number
  reserved: number
  touched_at: Date
}

/**
 * Lines with their stock. Reserved: drawer pieces in the newest build of jobs whose newest build is a trial
 * that nobody has accepted yet; those of accepted builds have left with the drive.
 */
const SELECT = `
  with newest as (
    select distinct on (job_id) id from build order by job_id, number desc
  ), reserved as (
    select sp.line_id, count(*)::int as pieces
    from stack_piece sp join stack s on s.id = sp.stack_id join newest n on n.id = s.build_id
    where sp.line_id is not null and not exists (select 1 from acceptance a where a.build_id = s.build_id)
    group by sp.line_id
  )
  select l.id, l.place, l.thickness_mm, l.text, l.count, coalesce(r.pieces, 0)::int as reserved, l.touched_at
  from shim_line l left join reserved r on r.line_id = l.id`

const toLine = (r: Row): DrawerLine => ({
  id: r.id,
  place: r.place,
  thicknessMm: r.thickness_mm,
  text: r.text,
  count: r.count,
  reserved: r.reserved,
  touchedAt: r.touched_at.toISOString(),
})

export async function listLines(db: Queryable): Promise<DrawerLine[]> {
  return (await db.query<Row>(`${SELECT} order by l.thickness_mm, l.id`)).map(toLine)
}

export async function findLine(db: Queryable, id: string): Promise<DrawerLine | undefined> {
  const [row] = await db.query<Row>(`${SELECT} where l.id = $1`, [id])
  return row && toLine(row)
}

export async function listMovements(db: Queryable, lineId: string): Promise<DrawerMovement[]> {
  const rows = await db.query<{
    id: number
    line_id: string
    kind: string
    delta: number
    reason: string
    name: string
    at: Date
    number: string | null
  }>(
    `select m.id, m.line_id, m.kind, m.delta, m.reason, p.name, m.at, j.number
     from shim_movement m join person p on p.id = m.by_person left join job j on j.id = m.job_id
     where m.line_id = $1 order by m.id desc limit 200`,
    [lineId],
  )
  return rows.map((r) => ({
    id: Number(r.id),
    lineId: r.line_id,
    kind: r.kind,
    delta: r.delta,
    reason: r.reason,
    by: r.name,
    at: r.at.toISOString(),
    jobNumber: r.number,
  }))
}

export interface Movement {
  lineId: string
  kind: 'start' | 'add' | 'count' | 'correct' | 'reserve' | 'return'
  delta: number
  reason: string
  jobId?: string
}

/** Changes a line's stock and says why, in one go. The schema refuses a stock below zero. */
export async function move(tx: Queryable, m: Movement, who: { id: string; at: Date }): Promise<void> {
  await tx.query('update shim_line set count = count + $2, touched_at = $3 where id = $1', [
    m.lineId,
    m.delta,
    who.at,
  ])
  await tx.query(
    'insert into shim_movement (line_id, kind, delta, reason, job_id, by_person, at) values ($1, $2, $3, $4, $5, $6, $7)',
    [m.lineId, m.kind, m.delta, m.reason, m.jobId ?? null, who.id, who.at],
  )
}
