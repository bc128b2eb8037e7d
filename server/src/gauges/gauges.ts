import type { EventEntry, Gauge, GaugeHistory } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import { EVENT_ENTRY } from '../jobs/events.ts'

interface Row {
  id: string
  kind: Gauge['kind']
  name: string
  resolution: number
  mpe: number
  repeatability: number
  per_turn_mm: number | null
  masters: Gauge['masters']
  wrench: Gauge['wrench']
  interval_months: number
  calibrated: string | null
  due: string | null
  retired: boolean
}

const SELECT = `select id, kind, name, resolution, mpe, repeatability, per_turn_mm, masters, wrench, interval_months, retired,
  to_char(calibrated_on, 'YYYY-MM-DD') as calibrated,
  to_char(calibrated_on + make_interval(months => interval_months), 'YYYY-MM-DD') as due from gauge`

function toGauge(row: Row, now: Date): Gauge {
  return {
    id: row.id,
    kind: row.kind,
    name: row.name,
    resolution: row.resolution,
    mpe: row.mpe,
    repeatability: row.repeatability,
    perTurnMm: row.per_turn_mm,
    masters: row.masters,
    wrench: row.wrench,
    intervalMonths: row.interval_months,
    calibratedOn: row.calibrated,
    dueOn: row.due,
    overdue: row.due === null ? null : row.due < now.toISOString().slice(0, 10),
    retired: row.retired,
  }
}

export async function listGauges(db: Queryable, now: Date): Promise<Gauge[]> {
  return (await db.query<Row>(`${SELECT} order by retired, kind, name`)).map((r) => toGauge(r, now))
}

export async function findGauge(db: Queryable, id: string, now: Date): Promise<Gauge | undefined> {
  const [row] = await db.query<Row>(`${SELECT} where id = $1`, [id])
  return row && toGauge(row, now)
}

/** @throws Refusal 404 */
export async function theGauge(db: Queryable, id: string, now: Date): Promise<Gauge> {
  const gauge = await findGauge(db, id, now)
  if (!gauge) throw notFound('Gauge', id)
  return gauge
}

/** What became of a gauge, the newest first. @throws Refusal 404 */
export async function gaugeHistory(db: Queryable, id: string, now: Date): Promise<GaugeHistory> {
  await theGauge(db, id, now)
  const calibrations = await db.query<GaugeHistory['calibrations'][number]>(
    `select to_char(c.calibrated_on, 'YYYY-MM-DD') as on, c.note, p.name as by
     from gauge_calibration c left join person p on p.id = c.by_person
     where c.gauge_id = $1 order by c.calibrated_on desc, c.id desc limit 200`,
    [id],
  )
  const events = await db.query<{ entry: EventEntry }>(
    `${EVENT_ENTRY} where e.kind = 'gauge' and e.subject = $1 order by e.id desc limit 200`,
    [`gauge:${id}`],
  )
  return { calibrations, events: events.map((e) => e.entry) }
}
