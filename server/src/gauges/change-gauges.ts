import type { Gauge } from '@moray/contract/replies'
import type {
  AddGauge,
  CalibrateGauge,
  ChangeGauge,
  GaugeFigures,
  RetireGauge,
} from '@moray/contract/requests/gauges'
import { refuse } from '@moray/core/checks/input-error'
import type { GaugeChange, GaugeFigure, Told } from '@moray/core/job/event'
import { kindOfGauge, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import type { Transaction } from '../db/database.ts'
import type { Who } from '../request/who.ts'

const DAY_MS = 86_400_000

const told = (id: string, data: GaugeChange): Told => ({ kind: 'gauge', subject: `gauge:${id}`, data })

/** A new gauge under the next number. A twin meets the constraint gauge_name_once. */
export async function addGauge(
  tx: Transaction,
  body: AddGauge,
  who: Who,
): Promise<{ id: string; told: Told }> {
  const f = checked(body.kind, body.figures)
  const { calibratedOn = null } = body
  if (calibratedOn !== null) checkDay('calibratedOn', calibratedOn, who)
  const [row] = await tx.query<{ id: string }>(
    `with next as (
       insert into counter (name, last) values ('gauge', 1)
       on conflict (name) do update set last = counter.last + 1 returning last
     )
     insert into gauge (id, kind, name, resolution, mpe, repeatability, per_turn_mm, masters, wrench, interval_months, calibrated_on)
     select 'g' || lpad(last::text, greatest(2, length(last::text)), '0'), $1, $2, $3, $4, $5, $6, $7::jsonb, $8::jsonb, $9, $10::date
     from next returning id`,
    [
      body.kind,
      body.name,
      f.resolution,
      f.mpe,
      f.repeatability,
      f.perTurnMm,
      f.masters,
      f.wrench,
      f.intervalMonths,
      calibratedOn,
    ],
  )
  const { id } = row!
  if (calibratedOn !== null)
    await keepCalibration(tx, id, { on: calibratedOn, note: 'as it came into the shop' }, who)
  return { id, told: told(id, { act: 'added', name: body.name }) }
}

/** Its figures from now on; readings that were taken keep the gauge as it was. */
export async function changeGauge(tx: Transaction, gauge: Gauge, body: ChangeGauge): Promise<Told> {
  const f = checked(gauge.kind, body.figures)
  await tx.query(
    `update gauge set resolution = $2, mpe = $3, repeatability = $4, per_turn_mm = $5, masters = $6::jsonb, wrench = $7::jsonb, interval_months = $8
     where id = $1`,
    [gauge.id, f.resolution, f.mpe, f.repeatability, f.perTurnMm, f.masters, f.wrench, f.intervalMonths],
  )
  const mastersOf = (masters: { label: string; lengthMm: number }[]) =>
    masters.map((m) => `${m.label} ${m.lengthMm} mm`).join(', ') || null
  const wrenchText = (w: Gauge['wrench']) =>
    w === null
      ? null
      : [
          `${w.fromNm} to ${w.toNm} Nm`,
          ...(w.lengthMm === undefined ? [] : [`${w.lengthMm} mm long`]),
          ...w.adapters.map((a) => `${a.label} ${a.lengthMm} mm`),
        ].join(', ')
  const figures: GaugeFigure[] = [
    ...(['resolution', 'mpe', 'repeatability', 'perTurnMm', 'intervalMonths'] as const).map((figure) => ({
      figure,
      was: gauge[figure],
      now: f[figure],
    })),
    {
      figure: 'wrench' as const,
      was: wrenchText(gauge.wrench),
      now: wrenchText(body.figures.wrench ?? null),
    },
    { figure: 'masters' as const, was: mastersOf(gauge.masters), now: mastersOf(body.figures.masters) },
  ].filter((x) => x.was !== x.now)
  if (!figures.length) refuse('figures', 'are what they were; change one, or leave it')
  return told(gauge.id, { act: 'changed', name: gauge.name, figures, reason: body.reason })
}

/** A calibration; one that is entered late does not make the gauge older than it is. */
export async function calibrateGauge(
  tx: Transaction,
  gauge: Gauge,
  body: CalibrateGauge,
  who: Who,
): Promise<Told> {
  checkDay('on', body.on, who)
  await keepCalibration(tx, gauge.id, body, who)
  await tx.query('update gauge set calibrated_on = greatest(calibrated_on, $2::date) where id = $1', [
    gauge.id,
    body.on,
  ])
  return told(gauge.id, { act: 'calibrated', name: gauge.name, on: body.on, note: body.note })
}

export async function retireGauge(tx: Transaction, gauge: Gauge, body: RetireGauge): Promise<Told> {
  if (gauge.retired === body.retired)
    refuse('retired', gauge.retired ? 'it is retired already' : 'it takes readings already', 'as-before')
  await tx.query('update gauge set retired = $2 where id = $1', [gauge.id, body.retired])
  const act = body.retired ? 'retired' : 'back'
  return told(gauge.id, { act, name: gauge.name, reason: body.reason })
}

async function keepCalibration(tx: Transaction, id: string, c: { on: string; note: string }, who: Who) {
  await tx.query(
    `insert into gauge_calibration (gauge_id, calibrated_on, note, by_person, at) values ($1, $2::date, $3, $4, $5)`,
    [id, c.on, c.note, who.id, who.at],
  )
}

/** The figures as they are kept. @throws InputError where a gauge of that kind cannot have them */
function checked(kind: GaugeKindId, f: GaugeFigures) {
  const { dial, masters, arbors = false, label, measures } = kindOfGauge(kind)
  const at = (field: string) => `figures.${field}`
  if (!dial && f.perTurnMm !== undefined)
    refuse(at('perTurnMm'), `is given, and a ${label.toLowerCase()} has no pointer; leave it out`)
  if (dial && f.perTurnMm !== undefined && f.perTurnMm <= f.resolution)
    refuse(at('perTurnMm'), `is ${f.perTurnMm} mm, and one step is ${f.resolution} mm; a turn has many steps`)
  if (!masters && !arbors && f.masters.length)
    refuse(at('masters'), `are given, and a ${label.toLowerCase()} is set on none; leave them out`)
  if (masters && !f.masters.length)
    refuse(at('masters'), `are missing; a ${label.toLowerCase()} is set on a master of a known length`)
  const twin = f.masters.findIndex((m, i) => f.masters.findIndex((x) => x.label === m.label) !== i)
  if (twin >= 0)
    refuse(`figures.masters.${twin}.label`, `is "${f.masters[twin]!.label}" twice; mark them apart`)
  if (f.wrench && measures !== 'torque')
    refuse(at('wrench'), `is given, and a ${label.toLowerCase()} is no wrench; leave it out`)
  if (f.wrench && f.wrench.fromNm >= f.wrench.toNm)
    refuse(at('wrench.toNm'), `is ${f.wrench.toNm} Nm, and its range begins at ${f.wrench.fromNm} Nm`)
  return {
    ...f,
    wrench: f.wrench ? JSON.stringify(f.wrench) : null,
    perTurnMm: f.perTurnMm ?? null,
    // a master is known by what is marked on it
    masters: JSON.stringify(f.masters.map((m, i) => ({ id: `m${i + 1}`, ...m }))),
  }
}

/** The shop's day may be one ahead of the server's. */
function checkDay(field: string, day: string, who: Who) {
  const latest = new Date(who.at.getTime() + DAY_MS).toISOString().slice(0, 10)
  if (day > latest)
    refuse(field, `is ${day}, which is still to come; the day of the last calibration is asked`)
}
