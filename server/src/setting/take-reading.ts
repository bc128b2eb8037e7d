import { InputError, refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import type { JudgedBuild } from '@moray/core/job/judge-builds'
import { doubtOf, doubtWords } from '@moray/core/measuring/doubt'
import type { Window } from '@moray/core/checks/window'
import { suits } from '@moray/core/measuring/suiting'
import { swing } from '@moray/core/measuring/swing'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import { nearestMaster, OTHER_MASTER_MM } from '@moray/core/measuring/setting-master'
import { isNoPreload, isReadable, plausibleKind, valueOf } from '@moray/core/setting/assess'
import type { ReadingHow, SeatFigures } from '@moray/core/setting/taken'
import { findMeasured, wayOf, type Measured } from '@moray/core/setting/measured'
import { unitOf } from '@moray/core/setting/measures'
import { rideDepth } from '@moray/core/setting/pair-depth'
import { quantityOf, type PlausibleKind } from '@moray/core/units/plausible'
import type { Gauge } from '@moray/contract/replies'
import type {
  ReadingUnit,
  RideSample,
  SeatTexts,
  SupersedeReading,
  TakeReading,
} from '@moray/contract/requests/setting'
import type { Transaction } from '../db/database.ts'
import { findGauge } from '../gauges/gauges.ts'
import { readFigure, saidBack } from '../http/bench-notation.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'

/** Longest text that is kept of what was typed. */
const MOST_TEXT = 400

interface NewReading {
  buildId: number
  measure: Measured
  text: string
  unit: ReadingUnit
  gauge: Gauge
  masterMm: number | null
  clockDeg: number | null
  note: string | null
  how: ReadingHow | null
  /** What was ticked before it, in words. */
  ticked: string[]
  /** A swing's samples instead of one reading. */
  swung?: Pick<TakeReading, 'swing' | 'extreme'>
  /** Places and rides of a search instead of one reading. */
  rides?: RideSample[]
  confirmed: boolean
  /** What it is judged against as the build stands: of a depth that nobody prints, what its pair wants. */
  window?: Window
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
  const measure = findMeasured(job.sheet, body.measure)
  if (!measure) refuse('measure', `"${body.measure}" is no measure of ${job.sheet.name}`)
  if (!isReadable(job.sheet, measure))
    refuse(
      'measure',
      `${measure.label}: the sheet does not say yet how it is measured; enter that first, then the reading says where the gear stands`,
      'figure-missing',
    )
  const gauge = await mustHaveGauge(tx, body.gaugeId, who)
  const torque = quantityOf(plausibleKind(measure, body.as)) === 'torque'
  if (torque !== (kindOfGauge(gauge.kind).measures === 'torque'))
    refuse('gaugeId', `"${gauge.name}" does not read a ${torque ? 'torque' : 'length'}; choose one that does`)
  if (gauge.retired) refuse('gaugeId', `"${gauge.name}" takes no more readings; choose another gauge`)
  const { value } = await insert(
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
      how: suits(gauge.kind, wayOf(measure, body.as))
        ? howOf(measure, body)
        : { ...howOf(measure, body), unsuited: true },
      ticked: body.ticked ?? [],
      ...(body.rides ? { rides: body.rides } : {}),
      ...(body.swing ? { swung: { swing: body.swing, extreme: body.extreme ?? 'lowest' } } : {}),
      confirmed: body.confirmed ?? false,
      window: build.assessment.measures[measure.id]?.window ?? measure.window,
      counted: build.readings.flatMap((r) => (r.measure === measure.id && !r.superseded ? r.value : [])),
    },
    who,
  )
  return {
    kind: 'reading',
    subject: `measure:${measure.id}`,
    data: { label: measure.label, ...figure(measure, value), gauge: gauge.name },
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
  const measure = findMeasured(job.sheet, old.measure)!
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
            how: withoutPoints(old.how),
            ticked: [],
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

/** The measured length of the master that was used; the gauge's only one when none is named. */
function masterOf(measure: Measured, gauge: Gauge, masterId: string | undefined): number | null {
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

/** Ways of reading that a measure has besides its usual one. */
const WAYS: Partial<Record<Measured['kind'], readonly string[]>> = {
  'rolling-torque': ['play'],
  crush: ['gap', 'float'],
  seat: ['case-and-gear', 'float'],
  'pair-depth': ['ride-height', 'loose-pair'],
}

/** Figures of a seat, in mm. */
function seatOf({ seat = {}, unit, confirmed = false }: TakeReading): SeatFigures {
  const figure = (name: keyof SeatTexts, kind: PlausibleKind) => {
    const text = seat[name]
    return text === undefined ? undefined : readFigure(`seat.${name}`, text, unit, kind, { confirmed }).value
  }
  const figures: SeatFigures = {}
  const put = (key: keyof SeatFigures, value: number | undefined) => {
    if (value !== undefined) figures[key] = value
  }
  put('caseMm', figure('case', 'dimension'))
  put('nominalMm', figure('nominal', 'dimension'))
  put('trialMm', figure('trial', 'shim-stack'))
  put('clearanceMm', figure('clearance', 'clearance'))
  put('preloadMm', figure('preload', 'clearance'))
  return figures
}

/** What the body says of how it was taken, as far as this measure has it. */
function howOf(measure: Measured, body: TakeReading): ReadingHow | null {
  const torque = measure.kind === 'rolling-torque'
  const allowed = WAYS[measure.kind] ?? []
  if (body.as !== undefined && !allowed.includes(body.as))
    refuse('as', `"${body.as}" is no way of reading ${measure.label}`)
  if (measure.kind === 'crush' && body.as === undefined)
    refuse('as', 'is missing: is it the gap under the cover, or the float of the ring?')
  if (measure.kind === 'seat' && body.as === undefined)
    refuse('as', 'is missing: is it worked out from case and gear, or from a float?')
  if (measure.kind === 'pair-depth' && body.as === undefined)
    refuse('as', 'is missing: was it found by a ride-height search, or on the loose pair?')
  if ((body.as === 'ride-height') !== (body.rides !== undefined))
    refuse(
      'rides',
      body.rides ? 'belong to a ride-height search only' : 'are missing: places of the pinion, and rides',
    )
  if (measure.kind === 'runout' && body.clockDeg === undefined)
    refuse('clockDeg', 'is missing: where round the shaft, in degrees from the mark')
  if (body.alongMm !== undefined && measure.kind !== 'runout') refuse('alongMm', 'is asked of a runout only')
  if (body.seat !== undefined && measure.kind !== 'seat') refuse('seat', `is asked of a seat only`)
  if (body.drag !== undefined && !torque) refuse('drag', `${measure.label} has no drag to take off`)
  if (body.runIn !== undefined && !torque) refuse('runIn', `is asked of a rolling torque only`)
  const drag =
    body.drag === undefined ? undefined : readFigure('drag', body.drag, body.unit, 'rolling-torque').value
  const how: ReadingHow = {
    ...(body.as === undefined ? {} : { as: body.as }),
    ...(drag ? { dragNm: drag } : {}),
    ...(body.seat ? { seat: seatOf(body) } : {}),
    ...(body.runIn ? { runIn: true } : {}),
    ...(body.alongMm === undefined ? {} : { atMm: body.alongMm }),
    ...(body.ticked?.length ? { ticked: body.ticked.length } : {}),
    ...(body.unticked?.length ? { unticked: body.unticked } : {}),
  }
  return Object.keys(how).length ? how : null
}

/** What takes the place of a swing, or of a search, is one reading. */
function withoutPoints(how: ReadingHow | null): ReadingHow | null {
  if (!how?.swing && !how?.rides) return how
  const { swing: _swing, rides: _rides, ...rest } = how
  return Object.keys(rest).length ? rest : null
}

/** What the gauge showed: one reading, or the turning point of a swing with what its scatter leaves in doubt. */
function rawOf(r: NewReading): {
  raw: number
  unit: string
  text: string
  u: number
  how: ReadingHow | null
} {
  const kind = plausibleKind(r.measure, r.how?.as)
  const options = { dialPerTurnMm: r.gauge.perTurnMm, confirmed: r.confirmed }
  if (r.rides) return rideOf(r, r.rides)
  const samples = r.swung?.swing
  if (!samples) {
    const { value, unit } = readFigure('text', r.text, r.unit, kind, options)
    return { raw: value, unit, text: r.text, u: 0, how: r.how }
  }
  if (r.measure.kind !== 'depth') refuse('swing', `${r.measure.label} is not read by a swing`)
  const extreme = r.swung!.extreme!
  const read = samples.map((s, i) => ({
    at: s.at,
    ...readFigure(`swing[${i}].text`, s.text, r.unit, kind, options),
  }))
  const found = swing({ samples: read.map((s) => ({ at: s.at, readingMm: s.value })), extreme })
  if (!found.trusted)
    throw new InputError('swing-not-turned', [
      {
        path: 'swing',
        message: `has not passed its ${extreme} reading: swing on until the readings come back, and choose highest where the plunger is pressed in`,
      },
    ])
  return {
    raw: found.valueMm,
    unit: read[0]!.unit,
    text: samples.map((s) => s.text).join(' '),
    u: (found.valueUMm ?? 0) / 2,
    how: { ...r.how, swing: { extreme, samples: read.map((s) => [s.at, s.value]) } },
  }
}

/** What a ride-height search found; its points stay with it. */
function rideOf(r: NewReading, rides: RideSample[]): ReturnType<typeof rawOf> {
  if (r.measure.kind !== 'pair-depth')
    refuse('rides', `${r.measure.label} is not found by a ride-height search`)
  const read = rides.map((s, i) => ({
    place: readFigure(`rides[${i}].place`, s.place, r.unit, 'depth', { confirmed: r.confirmed }),
    ride: readFigure(`rides[${i}].ride`, s.ride, r.unit, 'ride', { confirmed: r.confirmed }),
  }))
  const points = read.map((s): [number, number] => [s.place.value, s.ride.value])
  const { depthMm, u } = rideDepth(r.measure, points)
  return {
    raw: depthMm,
    unit: read[0]!.place.unit,
    text: rides
      .map((s) => `${s.place} ${s.ride}`)
      .join(', ')
      .slice(0, MOST_TEXT),
    u,
    how: { ...r.how, rides: points },
  }
}

async function insert(tx: Transaction, r: NewReading, who: Who): Promise<{ id: number; value: number }> {
  const { raw, unit, text, u, how } = rawOf(r)
  const unitSaid = (v: number) => saidBack(v, plausibleKind(r.measure, r.how?.as))
  if (raw < 0 && r.measure.kind !== 'depth' && r.measure.kind !== 'runout')
    refuse('text', `"${text}" is negative; ${r.measure.label.toLowerCase()} is not`)
  const value = valueOf(r.measure, raw, r.masterMm ?? undefined, how ?? {})
  // where the sheet has no slope, play has no figure: there the torque is kept, and is out
  if (r.measure.kind === 'rolling-torque' && r.measure.nmPerMm && isNoPreload({ value, how }))
    refuse(
      'text',
      `"${text}" is ${unitSaid(raw)}, not above the drag of the lips of ${unitSaid(how?.dragNm ?? 0)}: that is no preload, and a torque says nothing about play. Read the play instead, and enter it as play`,
      'no-preload',
    )
  // round a shaft readings differ by what is looked for; a seat is worked out, whatever else was read
  const compared = r.measure.kind !== 'seat' && r.measure.kind !== 'pair-depth' && r.measure.kind !== 'runout'
  const doubt =
    compared && r.counted && !r.confirmed && doubtOf(value, r.counted, r.gauge, r.window ?? r.measure.window)
  if (doubt && unitOf(r.measure) === 'mm')
    refuse(
      'text',
      `"${text}" is ${unitSaid(raw)}. ${doubtWords(doubt, r.gauge.perTurnMm !== null)}`,
      'questioned',
    )
  const [row] = await tx.query<{ id: number }>(
    `insert into reading (build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe,
       repeatability, master_mm, clock_deg, note, by_person, at, how, ticked)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18::jsonb) returning id`,
    [
      r.buildId,
      r.measure.id,
      raw,
      value,
      text,
      unit,
      r.gauge.id,
      r.gauge.overdue,
      r.gauge.resolution,
      r.gauge.mpe,
      Math.max(r.gauge.repeatability, u),
      r.masterMm,
      r.clockDeg,
      r.note,
      who.id,
      who.at,
      how,
      JSON.stringify(r.ticked),
    ],
  )
  return { id: row!.id, value }
}
