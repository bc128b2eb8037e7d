import { refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import type { JudgedBuild } from '@moray/core/job/judge-builds'
import { correctReading, takeReading as takenReading, type Reading } from '@moray/core/reading/take'
import { isReadable } from '@moray/core/setting/assess'
import { findMeasured, type Measured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import type { Gauge } from '@moray/contract/replies'
import type { SupersedeReading, TakeReading } from '@moray/contract/requests/reading'
import type { Transaction } from '../db/database.ts'
import { findGauge } from '../gauges/gauges.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'

/** Records one reading of one measure in the newest build; core says what it is worth, and whether it is asked about first. */
export async function takeReading({ tx, job, who, entered }: At, body: TakeReading): Promise<Told> {
  const build = job.builds.find((b) => b.number === body.build)
  if (!build) throw notFound('Build', String(body.build))
  if (build !== job.builds.at(-1))
    throw new Refusal(
      409,
      'stale-build',
      `The case has been built up again since (trial ${job.builds.at(-1)!.number}); a reading of build ${body.build} cannot be added.`,
    )
  mustBeOpen(build)
  const measure = findMeasured(job.sheet, body.measure)
  if (!measure) refuse('measure', `"${body.measure}" is no measure of ${job.sheet.name}`)
  if (!isReadable(job.sheet, measure))
    refuse(
      'measure',
      `${measure.label}: the sheet does not say yet how it is measured; enter that first, then the reading says where the gear stands`,
      'figure-missing',
    )
  const gauge = await mustHaveGauge(tx, body.gaugeId, who)
  const reading = takenReading(measure, body, gauge, {
    window: build.assessment.measures[measure.id]?.window ?? measure.window,
    counted: build.readings.flatMap((r) => (r.measure === measure.id && !r.superseded ? r.value : [])),
  })
  const { clockDeg = null, note, ticked = [] } = body
  await insert(
    tx,
    { buildId: build.id, measure, reading, gauge, clockDeg, note: note || null, ticked, entered },
    who,
  )
  return {
    kind: 'reading',
    subject: `measure:${measure.id}`,
    data: { label: measure.label, ...figure(measure, reading.value), gauge: gauge.name },
  }
}

/** Says that a reading no longer counts, and why; a corrected value may take its place. Both stay in the record. */
export async function supersedeReading(
  { tx, job, who, entered }: At,
  body: SupersedeReading,
  readingId: number,
): Promise<Told> {
  const build = job.builds.find((b) => b.readings.some((r) => r.id === readingId))
  const old = build?.readings.find((r) => r.id === readingId)
  if (!build || !old) throw notFound('Reading', String(readingId))
  if (old.superseded)
    throw new Refusal(
      409,
      'already-superseded',
      `That reading was set aside already: ${old.superseded.reason}`,
    )
  if (build !== job.builds.at(-1))
    throw new Refusal(
      409,
      'stale-build',
      'The next trial was chosen from that reading; it can no longer change.',
    )
  mustBeOpen(build)
  const measure = findMeasured(job.sheet, old.measure)!
  const made =
    body.text === undefined
      ? undefined
      : await replacement({ tx, who, entered }, build.id, old, measure, body)
  await tx.query(
    'insert into reading_superseded (reading_id, replaced_by, reason, by_person, at) values ($1, $2, $3, $4, $5)',
    [readingId, made?.id ?? null, body.reason, who.id, who.at],
  )
  return {
    kind: 'superseded',
    subject: `measure:${measure.id}`,
    data: {
      label: measure.label,
      ...figure(measure, old.value),
      ...(made ? (unitOf(measure) === 'mm' ? { nowMm: made.value } : { nowNm: made.value }) : {}),
      reason: body.reason,
    },
  }
}

const figure = (measure: Measured, value: number) =>
  unitOf(measure) === 'mm' ? { mm: value } : { nm: value }

/** What was accepted stands on its readings; they are closed with it. */
function mustBeOpen(build: JudgedBuild) {
  if (build.acceptance)
    throw new Refusal(
      409,
      'accepted',
      'This build is accepted as built; go round again before its readings change.',
    )
}

async function mustHaveGauge(tx: Transaction, id: string, who: Who): Promise<Gauge> {
  const gauge = await findGauge(tx, id, who.at)
  if (!gauge) refuse('gaugeId', `"${id}" is no gauge of this shop`)
  return gauge
}

/** Writes down the figure that takes the place of a reading, taken in the same way and with the same gauge. */
async function replacement(
  { tx, who, entered }: Pick<At, 'tx' | 'who' | 'entered'>,
  buildId: number,
  old: JudgedBuild['readings'][number],
  measure: Measured,
  { text = '', unit = 'mm' }: SupersedeReading,
): Promise<{ id: number; value: number }> {
  const gauge = await mustHaveGauge(tx, old.gaugeId, who)
  const reading = correctReading(measure, { text, unit }, gauge, old)
  const { clockDeg } = old
  const id = await insert(
    tx,
    { buildId, measure, reading, gauge, clockDeg, note: null, ticked: [], entered },
    who,
  )
  return { id, value: reading.value }
}

interface NewReading {
  buildId: number
  measure: Measured
  reading: Reading
  gauge: Gauge
  clockDeg: number | null
  note: string | null
  /** What was ticked before it, in words. */
  ticked: string[]
  entered: number
}

/** @returns its id */
async function insert(
  tx: Transaction,
  { buildId, measure, reading, gauge, clockDeg, note, ticked, entered }: NewReading,
  who: Who,
): Promise<number> {
  const [row] = await tx.query<{ id: number }>(
    `insert into reading (build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe,
       repeatability, master_mm, clock_deg, note, by_person, at, how, ticked, entered)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18::jsonb, $19) returning id`,
    [
      buildId,
      measure.id,
      reading.raw,
      reading.value,
      reading.text,
      reading.unit,
      gauge.id,
      gauge.overdue,
      gauge.resolution,
      gauge.mpe,
      reading.repeatability,
      reading.masterMm,
      clockDeg,
      note,
      who.id,
      who.at,
      reading.how,
      JSON.stringify(ticked),
      entered,
    ],
  )
  return row!.id
}
