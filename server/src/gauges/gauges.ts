import type { Gauge } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'

interface Row {
  id: string
  name: string
  type: string
  suits: string[]
  measures: string
  resolution: number
  mpe: number
  repeatability: number
  unit: string
  per_turn_mm: number | null
  masters: Gauge['masters']
  calibrated: string
  due: string
}

const SELECT = `select id, name, type, suits, measures, resolution, mpe, repeatability, unit, per_turn_mm, masters,
  to_char(calibrated_on, 'YYYY-MM-DD') as calibrated,
  to_char(calibrated_on + make_interval(months => interval_months), 'YYYY-MM-DD') as due from gauge`

function toGauge(row: Row, now: Date): Gauge {
  return {
    id: row.id,
    name: row.name,
    type: row.type,
    suits: row.suits,
    measures: row.measures,
    resolution: row.resolution,
    mpe: row.mpe,
    repeatability: row.repeatability,
    unit: row.unit,
    perTurnMm: row.per_turn_mm,
    masters: row.masters,
    calibratedOn: row.calibrated,
    dueOn: row.due,
    overdue: row.due < now.toISOString().slice(0, 10),
  }
}

export async function listGauges(db: Queryable, now: Date): Promise<Gauge[]> {
  return (await db.query<Row>(`${SELECT} order by type, name`)).map((r) => toGauge(r, now))
}

export async function findGauge(db: Queryable, id: string, now: Date): Promise<Gauge | undefined> {
  const [row] = await db.query<Row>(`${SELECT} where id = $1`, [id])
  return row && toGauge(row, now)
}
