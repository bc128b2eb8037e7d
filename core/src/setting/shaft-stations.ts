import { perSheet } from '../drives/per-sheet.ts'
import type { DriveSheet, Gear } from '../drives/sheet.ts'
import { judge, type Verdict } from '../measuring/judge.ts'
import { runout, shaftRunout, type Runout, type ShaftRunout } from '../measuring/runout.ts'
import type { Window } from '../checks/window.ts'
import { lowerFirst } from '../units/words.ts'
import { worstGauge, type BuildState, type TakenReading } from './taken.ts'

/** Clock positions of a station: eighths of a turn, read in turning order from a mark. */
export const RUNOUT_PLACES = [0, 45, 90, 135, 180, 225, 270, 315] as const

/** Runout of one shaft at one station. No stack sets it; it is read beside the settings, and kept with the build. */
export interface RunoutMeasure {
  kind: 'runout'
  /** `runout:`, the shaft, and the place of the zone in the sheet's list. */
  id: string
  label: string
  axis: string
  /** A gear whose face is read along the axis; left out where a shaft is read across it. */
  gear?: string
  zone: string
  window: Window
  readings: number
  before: string[]
}

/** Every shaft at every zone that the sheet has a limit for, shafts in one another each on their own, and the faces of the gears on it. */
export const runoutMeasures = perSheet((sheet): RunoutMeasure[] =>
  sheet.axes.flatMap((axis) => [
    ...sheet.runoutLimits.map(({ zone, tirMm }, i) => ({
      kind: 'runout' as const,
      id: `runout:${axis.id}:${i}`,
      label: `${axis.label}, ${lowerFirst(zone)}`,
      axis: axis.id,
      zone,
      window: { max: tirMm },
      readings: RUNOUT_PLACES.length,
      before: [
        'Shaft on its own bearings, or on blocks; no end play',
        'Land clean; indicator square to it, with some preload',
        'Zero at the mark, every station from the same mark',
      ],
    })),
    ...sheet.gears.flatMap((g) =>
      g.axis === axis.id && g.faceTirMm !== undefined ? [faceOf(g, g.faceTirMm)] : [],
    ),
  ]),
)

const faceOf = (gear: Gear, tirMm: number): RunoutMeasure => ({
  kind: 'runout',
  id: `runout:${gear.axis}:face-${gear.id}`,
  label: `Face of the ${lowerFirst(gear.label)}`,
  axis: gear.axis,
  gear: gear.id,
  zone: `Face, ${lowerFirst(gear.label)}`,
  window: { max: tirMm },
  readings: RUNOUT_PLACES.length,
  before: [
    'Gear on its own bearing; shaft pushed one way all round, so that no end play is read',
    'Indicator along the axis, on the machined face near its rim',
    'Zero at the mark',
  ],
})

export interface ShaftStation {
  measure: RunoutMeasure
  /** By place, as far as it was read; the newest reading of a place counts. mm */
  read: Partial<Record<number, number>>
  /** How far along the shaft, mm; where somebody has said it. */
  atMm?: number
  /** Once all places are read. */
  result?: Runout & { verdict: Verdict; U: number }
  /** The same without the readings that stand out like a nick, where there are any. */
  withoutBlips?: { tirMm: number; verdict: Verdict }
}

export interface ShaftState {
  axis: string
  stations: ShaftStation[]
  /** Of at least two whole stations across it whose place along the shaft is known: its shape, and where to mark it. */
  shape?: ShaftRunout
  /** The worst of its stations. */
  verdict?: Verdict
}

const RANK: Record<Verdict, number> = { in: 0, 'too-close': 1, out: 2 }

/** Where the shafts of a drive stand by what was read round them. */
export function shaftsOf(sheet: DriveSheet, { readings }: Pick<BuildState, 'readings'>): ShaftState[] {
  return sheet.axes.map(({ id }) => {
    const stations = runoutMeasures(sheet)
      .filter((m) => m.axis === id)
      .map((m) => stationOf(m, readings[m.id] ?? []))
    const verdicts = stations.flatMap((s) => (s.result ? [s.result.verdict] : []))
    const whole = stations
      .flatMap((s) =>
        s.result && s.atMm !== undefined && !s.measure.gear ? [{ ...s, atMm: s.atMm, U: s.result.U }] : [],
      )
      .sort((a, b) => a.atMm - b.atMm)
    const apart = whole.every((s, i) => i === 0 || s.atMm > whole[i - 1]!.atMm)
    return {
      axis: id,
      stations,
      ...(whole.length > 1 && apart
        ? {
            shape: shaftRunout(
              whole.map((s) => ({ atMm: s.atMm, readingsMm: RUNOUT_PLACES.map((p) => s.read[p]!) })),
              Math.max(...whole.map((s) => s.U)),
            ),
          }
        : {}),
      ...(verdicts.length ? { verdict: verdicts.reduce((a, b) => (RANK[b] > RANK[a] ? b : a)) } : {}),
    }
  })
}

function stationOf(measure: RunoutMeasure, taken: readonly TakenReading[]): ShaftStation {
  const read: ShaftStation['read'] = {}
  for (const { clockDeg, value } of taken) if (clockDeg !== undefined) read[clockDeg % 360] = value
  const atMm = taken.findLast((r) => r.how?.atMm !== undefined)?.how?.atMm
  const station = { measure, read, ...(atMm === undefined ? {} : { atMm }) }
  if (RUNOUT_PLACES.some((p) => read[p] === undefined)) return station
  const gauge = worstGauge(taken)
  const readingsMm = RUNOUT_PLACES.map((p) => read[p]!)
  const result = runout({ readingsMm })
  // both ends of a difference are read with the same gauge
  const both = { ...gauge, resolution: Math.SQRT2 * gauge.resolution, mpe: Math.SQRT2 * gauge.mpe }
  const judged = (tirMm: number) => judge({ readings: [tirMm], ...both, window: measure.window })
  const { verdict, U } = judged(result.tirMm)
  const counted = runout({ readingsMm, leaveOutBlips: true }).countedTirMm
  return {
    ...station,
    result: { ...result, verdict, U },
    ...(result.blips.length ? { withoutBlips: { tirMm: counted, verdict: judged(counted).verdict } } : {}),
  }
}
