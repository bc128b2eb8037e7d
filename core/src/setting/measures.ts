import { isCarrier, type Adjuster, type Bearing, type DriveSheet, type Measure } from '../drives/sheet.ts'
import { CRUSH_TOLERANCE_MM } from '../drives/crush-tolerance.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { Window } from '../checks/window.ts'
import { pairDepthMeasures, type PairDepthMeasure } from './pair-depth.ts'
import { lowerFirst } from '../units/words.ts'

/**
 * What a build of a drive is judged by: the measures of its sheet, and what sets its bearings. Their readings are kept alike, judged alike, and
 * asked of the solver in one question.
 */
export type SetMeasure = Measure | DerivedMeasure
/** What follows from the bearings and stacks of a sheet, without a measure of its own there. */
export type DerivedMeasure = RollingTorqueMeasure | CrushMeasure | SeatMeasure | PairDepthMeasure

interface Derived {
  /** `bearing:` or `seat:` and the id of the bearing or the stack: as the plan names what is disturbed. */
  id: string
  label: string
  window: Window
  target?: number
  readings: number
  before: string[]
  /** The stack that sets it; left out where a nut does, or nobody has said. */
  by?: string
}

interface BearingMeasure extends Derived {
  bearing: string
}

/** Rolling torque of a preloaded pair, Nm without the drag of its seals; below zero it stands for play. */
export interface RollingTorqueMeasure extends BearingMeasure {
  kind: 'rolling-torque'
  /** For bearings that have run already, where the sheet knows it. */
  runIn?: Window
  /** Change per mm of its stack, as the sheet has it. */
  nmPerMm?: number
  /** No stack sets it but a nut: one that crushes a sleeve, or one alone. */
  nut?: 'sleeve' | 'alone'
  /** Of bearings in a threaded carrier: their nut follows once the gears stand right. */
  last?: boolean
}

/** How far the cover squeezes the ring when it is drawn down, mm: the gap read under it, or less than nothing by the float that was read. */
export interface CrushMeasure extends BearingMeasure {
  kind: 'crush'
  shimsAt: 'bearing' | 'cover'
}

/**
 * How much thicker a stack has to be than the one that is built in, mm: by what is measured of case and gear, or by the float with a trial stack. For
 * gears that are set to the case and not by their readings.
 */
export interface SeatMeasure extends Derived {
  kind: 'seat'
  by: string
  effect: 1 | -1
}

/** A stack of real shims comes so near to the one that was worked out, mm. Our own. */
export const SEAT_TOLERANCE_MM = 0.03

/** A gap is felt at so many places round the cover. */
const COVER_PLACES = 3

/** What sets the bearings of this drive. Windows that the sheet lacks are left open. */
export const bearingMeasures = perSheet((sheet): (RollingTorqueMeasure | CrushMeasure)[] =>
  sheet.bearings.flatMap((b) => (b.setting ? [bearingMeasure(sheet, b, b.setting)] : [])),
)

/** Stacks that are found by case and gear. One that nobody has said the effect of cannot be worked out. */
export const seatMeasures = perSheet((sheet): SeatMeasure[] =>
  sheet.adjusters.flatMap((a) =>
    a.kind === 'shim' && a.setBy === 'case-and-gear' && a.effect !== 0
      ? [
          {
            kind: 'seat',
            id: `seat:${a.id}`,
            label: `${a.label} by case and gear`,
            by: a.id,
            effect: a.effect,
            window: { min: -SEAT_TOLERANCE_MM, max: SEAT_TOLERANCE_MM },
            target: 0,
            readings: 1,
            before: ['Seat and shim faces clean', 'Bearing pressed home on the gear'],
          },
        ]
      : [],
  ),
)

export const derivedMeasures = perSheet((sheet): DerivedMeasure[] => [
  ...pairDepthMeasures(sheet),
  ...bearingMeasures(sheet),
  ...seatMeasures(sheet),
])

/**
 * All that is set on this drive, in the order of the couplings: preload, whose spacer or stack moves a gear; gears set to the case; depth and backlash;
 * the load of bearings in a threaded carrier, whose nut follows its place; crush last.
 */
export const settingMeasures = perSheet((sheet): SetMeasure[] => {
  const own = bearingMeasures(sheet)
  const torques = own.filter((m) => m.kind === 'rolling-torque')
  return [
    ...torques.filter((m) => !m.last),
    ...seatMeasures(sheet),
    ...pairDepthMeasures(sheet),
    ...sheet.measures,
    ...torques.filter((m) => m.last),
    ...own.filter((m) => m.kind === 'crush'),
  ]
})

export const isBearingMeasure = (m: SetMeasure): m is RollingTorqueMeasure | CrushMeasure =>
  m.kind === 'rolling-torque' || m.kind === 'crush'

export const isDerived = (m: SetMeasure): m is DerivedMeasure =>
  isBearingMeasure(m) || m.kind === 'seat' || m.kind === 'pair-depth'

/** What is done next with a nut that sets a preload. Past its window it is never turned back: a sleeve stays crushed, and a thread has been stretched. */
export type NutNext = 'turn-on' | 'new-sleeve' | 'open-again'

/**
 * What a torque asks of the nut that sets it.
 * @param meanNm what was read, without the drag of the seals
 * @returns undefined where a stack sets it, or the torque is not outside its window
 */
export function nutNext(m: SetMeasure, meanNm: number, window: Window): NutNext | undefined {
  if (m.kind !== 'rolling-torque' || !m.nut) return undefined
  if (window.min !== undefined && meanNm < window.min) return 'turn-on'
  if (window.max === undefined || meanNm <= window.max) return undefined
  return m.nut === 'sleeve' ? 'new-sleeve' : 'open-again'
}

/** What it is judged against: bearings that have run have a window of their own, where the sheet knows it. */
export const windowOf = (m: SetMeasure, runIn: boolean | undefined): Window =>
  m.kind === 'rolling-torque' && runIn && m.runIn ? m.runIn : m.window

/** Unit in which it is judged. */
export const unitOf = (m: { kind: string }): 'mm' | 'Nm' => (m.kind === 'rolling-torque' ? 'Nm' : 'mm')

function bearingMeasure(
  sheet: DriveSheet,
  b: Bearing,
  setting: NonNullable<Bearing['setting']>,
): RollingTorqueMeasure | CrushMeasure {
  const by = setterOf(sheet, b, setting)?.id
  const base = { id: `bearing:${b.id}`, bearing: b.id, ...(by === undefined ? {} : { by }) }
  const lacking = (figure: string) => sheet.lacks?.includes(`bearings.${b.id}.setting.${figure}`)
  if (setting.kind === 'rolling-torque')
    return {
      ...base,
      kind: 'rolling-torque',
      label: `Rolling torque, ${lowerFirst(b.label)}`,
      window: setting.newNm,
      ...(setting.runInNm ? { runIn: setting.runInNm } : {}),
      ...(setting.nmPerMm === undefined ? {} : { nmPerMm: setting.nmPerMm }),
      ...(by === undefined ? { nut: setting.sleeve ? ('sleeve' as const) : ('alone' as const) } : {}),
      ...(sheet.adjusters.some((a) => isCarrier(a) && a.axis === b.axis) ? { last: true } : {}),
      readings: 1,
      before: [
        'Gears out of mesh',
        'Bearings oiled, turned over several times',
        'Read while it turns slowly, not as it breaks away',
      ],
    }
  const { crushMm } = setting
  const tolerance = setting.toleranceMm ?? CRUSH_TOLERANCE_MM
  return {
    ...base,
    kind: 'crush',
    label: `Crush, ${lowerFirst(b.label)}`,
    shimsAt: setting.shimsAt ?? 'bearing',
    window: lacking('crushMm') ? {} : { min: crushMm - tolerance, max: crushMm + tolerance },
    ...(lacking('crushMm') ? {} : { target: crushMm }),
    readings: COVER_PLACES,
    before: ['Cover seated square, finger-tight', 'No ring or gasket under it that is not meant to be there'],
  }
}

/** The stack that the sheet names, or for a crush the one that is said to be set by it: on the same shaft, or the only one. */
function setterOf(
  sheet: DriveSheet,
  b: Bearing,
  setting: NonNullable<Bearing['setting']>,
): Adjuster | undefined {
  if (setting.by !== undefined) return sheet.adjusters.find((a) => a.id === setting.by)
  const crushing = setting.kind === 'crush' ? sheet.adjusters.filter((a) => a.setBy === 'crush') : []
  return crushing.find((a) => a.axis === b.axis) ?? crushing[0]
}
