import { refuse } from '@moray/core/checks/input-error'
import type { Measure } from '@moray/core/drives/sheet'
import type { Told } from '@moray/core/job/event'
import type { JudgedBuild } from '@moray/core/job/judged'
import { doubtOf, doubtWords } from '@moray/core/measuring/doubt'
import { nearestMaster, OTHER_MASTER_MM } from '@moray/core/measuring/setting-master'
import { isReadable, plausibleKind, valueOf } from '@moray/core/setting/assess'
import { showBoth } from '@moray/core/units/format'
import type { Gauge } from '@moray/contract/replies'
import type { LengthUnit, SupersedeReading, TakeReading } from '@moray/contract/requests/setting'
import type { Transaction } from '../db/database.ts'
import { findGauge } from '../gauges/gauges.ts'
import { readLength } from '../http/lengths.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../http/who.ts'
import type { At } from '../job/change.ts'

interface NewReading {
  buildId: number
  measure: Measure
  text: string
  unit: LengthUnit
  gauge: Gauge
  masterMm: number | null
  clockDeg: number | null
  note: string | null
  confirmed: boolean
  /** Values that count already, mm; a reading that stands apart from them is asked about. Left out: not asked. */
  counted?: number[]
}

/** Records one reading of one measure in the newest build. */
export async function takeReading({ tx, job, who }: At, body: TakeReading): Promise<Told> {
  const build = job.builds.find((b) => b.number === body.build)
  if (!build) throw notFound('Build', String(body.build))
  if (build !== job.builds.at(-1))
    throw new Refusal(
      409,
      'stale-build',
      `The case has been built up again since (trial ${job.builds.at(-1)!.number}); a reading of build ${body.build} cannot be added.`,
    )
  mustBeOpen(build)
  const measure = job.sheet.measures.find((m) => m.id === body.measure)
  if (!measure) refuse('measure', `"${body.measure}" is no measure of ${job.sheet.name}`)
  if (!isReadable(job.sheet, measure))
    refuse(
      'measure',
      `${measure.label}: the sheet does not say yet how it is measured; enter that first, then the reading says where the gear stands`,
      'figure-missing',
    )
  const gauge = await mustHaveGauge(tx, body.gaugeId, who)
  if (gauge.retired) refuse('gaugeId', `"${gauge.name}" takes no more readings; choose another gauge`)
  const { valueMm } = await insert(
    tx,
    {
      buildId: build.id,
      measure,
      text: body.text,
      unit: body.unit,
      gauge,
      masterMm: masterOf(measure, gauge, body.masterId),
      clockDeg: body.clockDeg ?? null,
      note: body.note || null,
      confirmed: body.confirmed ?? false,
      counted: build.readings.flatMap((r) => (r.measure === measure.id && !r.superseded ? r.valueMm : [])),
    },
    who,
  )
  return {
    kind: 'reading',
    subject: `measure:${measure.id}`,
    data: { label: measure.label, mm: valueMm, gauge: gauge.name },
  }
}

/**
 * Says that a reading no longer counts, and why; a corrected value may take its place. Both stay in the record.
 */
export async function supersedeReading(
  { tx, job, who }: At,
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
  const measure = job.sheet.measures.find((m) => m.id === old.measure)!
  const made =
    body.text === undefined
      ? undefined
      : await insert(
          tx,
          {
            buildId: build.id,
            measure,
            text: body.text,
            unit: body.unit ?? 'mm',
            gauge: await mustHaveGauge(tx, old.gaugeId, who),
            masterMm: old.masterMm,
            clockDeg: old.clockDeg,
            note: null,
            confirmed: false,
          },
          who,
        )
  await tx.query(
    'insert into reading_superseded (reading_id, replaced_by, reason, by_person, at) values ($1, $2, $3, $4, $5)',
    [readingId, made?.id ?? null, body.reason, who.id, who.at],
  )
  return {
    kind: 'superseded',
    subject: `measure:${measure.id}`,
    data: {
      label: measure.label,
      mm: old.valueMm,
      ...(made ? { nowMm: made.valueMm } : {}),
      reason: body.reason,
    },
  }
}

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

/** The measured length of the master that was used; the gauge's only one when none is named. */
function masterOf(measure: Measure, gauge: Gauge, masterId: string | undefined): number | null {
  if (measure.kind !== 'depth' || measure.how.method === 'feeler-block') return null
  const { how } = measure
  const [nominal, arbor] = how.method === 'arbor' ? [how.arborDiameterMm, true] : [how.masterMm, false]
  const master =
    masterId === undefined
      ? nearestMaster(gauge.masters, nominal)
      : gauge.masters.find((m) => m.id === masterId)
  const fits = master && Math.abs(master.lengthMm - nominal) <= OTHER_MASTER_MM
  // an arbor without a measured diameter is taken as the sheet has it
  if (arbor && masterId === undefined) return fits ? master.lengthMm : null
  if (!master)
    refuse(
      'masterId',
      `${gauge.name} has no ${arbor ? 'arbor' : 'setting master'}${masterId ? ` "${masterId}"` : ''}; choose the ${arbor ? 'gauge that has it' : 'depth gauge'}`,
    )
  if (!fits)
    refuse(
      'masterId',
      `is ${master.lengthMm} mm; the sheet asks for the ${nominal} mm ${arbor ? 'arbor' : 'master'}`,
    )
  return master.lengthMm
}

async function insert(tx: Transaction, r: NewReading, who: Who): Promise<{ id: number; valueMm: number }> {
  const { mm, unit } = readLength('text', r.text, r.unit, plausibleKind(r.measure), {
    dialPerTurnMm: r.gauge.perTurnMm,
    confirmed: r.confirmed,
  })
  if (mm < 0 && r.measure.kind !== 'depth')
    refuse('text', `"${r.text}" is negative; ${r.measure.label.toLowerCase()} is not`)
  const valueMm = valueOf(r.measure, mm, r.masterMm ?? undefined)
  const doubt = r.counted && !r.confirmed && doubtOf(valueMm, r.counted, r.gauge, r.measure.window)
  if (doubt) refuse('text', `"${r.text}" is ${showBoth(mm, 3)}. ${doubtWords(doubt)}`, 'questioned')
  const [row] = await tx.query<{ id: number }>(
    `insert into reading (build_id, measure, raw_mm, value_mm, text, unit, gauge_id, gauge_overdue, resolution, mpe,
       repeatability, master_mm, clock_deg, note, by_person, at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16) returning id`,
    [
      r.buildId,
      r.measure.id,
      mm,
      valueMm,
      r.text,
      unit,
      r.gauge.id,
      r.gauge.overdue,
      r.gauge.resolution,
      r.gauge.mpe,
      r.gauge.repeatability,
      r.masterMm,
      r.clockDeg,
      r.note,
      who.id,
      who.at,
    ],
  )
  return { id: row!.id, valueMm }
}
