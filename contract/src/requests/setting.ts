import { FLANKS, type Flank } from '@moray/core/gears/flank'
import type { ReadingHow } from '@moray/core/setting/taken'
import { Flag, Many, Num, Numbers, One, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'

/** How a bare number in a reading is meant; everything is stored in mm. */
export const LENGTH_UNITS = ['mm', 'h', 't', 'in'] as const
export type LengthUnit = (typeof LENGTH_UNITS)[number]
/** The same of a torque; stored in Nm. */
export const TORQUE_UNITS = ['Nm', 'inlb', 'ftlb'] as const
export type TorqueUnit = (typeof TORQUE_UNITS)[number]
export const READING_UNITS = [...LENGTH_UNITS, ...TORQUE_UNITS] as const
export const isTorqueUnit = (u: ReadingUnit): u is TorqueUnit => TORQUE_UNITS.some((t) => t === u)
export type ReadingUnit = (typeof READING_UNITS)[number]

/** What else a gear's seat is worked out from, each in bench notation. */
export class SeatTexts {
  @Text({ what: 'dimension of the case, from its mark or measured', optional: true, max: 60 })
  case?: string

  @Text({ what: 'nominal mounting distance of the gear', optional: true, max: 60 })
  nominal?: string

  @Text({ what: 'trial stack that the float was read with', optional: true, max: 60 })
  trial?: string

  @Text({ what: 'clearance that shall be left', optional: true, max: 60 })
  clearance?: string

  @Text({ what: 'preload that shall be there instead', optional: true, max: 60 })
  preload?: string
}

/** A place along a swing, and what was read there. */
export class SwingSample {
  @Num({ what: 'place along the swing, in any even steps', min: -1000, max: 1000 })
  at!: number

  @Text({ what: 'the reading there, in bench notation', min: 1, max: 60 })
  text!: string
}

/** One piece of a stack as found: typed in bench notation, or taken to be like a line of the drawer. */
export class FoundPiece {
  @Text({ what: 'thickness in bench notation', optional: true, max: 60 })
  text?: string

  @Text({ what: 'drawer line that the piece is like', optional: true, max: 40 })
  lineId?: string
}

export class EnterStack {
  @Text({ what: 'which stack', min: 1, max: 60 })
  location!: string

  @Many(() => FoundPiece, { what: 'the pieces found', most: 12 })
  pieces!: FoundPiece[]

  @OneOf({ what: 'unit of a bare number', values: LENGTH_UNITS })
  unit!: LengthUnit

  @Flag({ what: 'the value was questioned and is meant', optional: true })
  confirmed?: boolean

  @Text({ what: 'why an earlier entry is replaced', optional: true, max: 300 })
  reason?: string
}

/** One place of a ride-height search, both figures outward positive. */
export class RideSample {
  @Text({ what: 'where the pinion stood, from the middle, in bench notation', min: 1, max: 60 })
  place!: string

  @Text({ what: 'how far out the gear rode, in bench notation', min: 1, max: 60 })
  ride!: string
}

export class TakeReading {
  @Whole({ what: 'build that was measured, 0 as found', min: 0, max: 999 })
  build!: number

  @Text({ what: 'which measure of the sheet', min: 1, max: 60 })
  measure!: string

  @Text({ what: 'the reading in bench notation', min: 1, max: 60 })
  text!: string

  @OneOf({ what: 'unit of a bare number', values: READING_UNITS })
  unit!: ReadingUnit

  @OneOf({
    what: 'under a cover: gap, or float of the ring; at a bearing without preload: its play; of a seat: case and gear, or float; of what a pair wants: by a ride-height search, or on the loose pair',
    values: ['gap', 'float', 'play', 'case-and-gear', 'ride-height', 'loose-pair'],
    optional: true,
  })
  as?: NonNullable<ReadingHow['as']>

  @One(() => SeatTexts, { what: 'what else a seat is worked out from', optional: true })
  seat?: SeatTexts

  @Text({ what: 'drag of lips that are in already, in bench notation', optional: true, max: 60 })
  drag?: string

  @Flag({ what: 'the bearings have run already', optional: true })
  runIn?: boolean

  @Texts({ what: 'what was ticked before it', optional: true, most: 12, long: 200 })
  ticked?: string[]

  @Texts({ what: 'what was not', optional: true, most: 12, long: 200 })
  unticked?: string[]

  @Num({ what: 'how far along the shaft a runout was read', unit: 'mm', min: 0, max: 3000, optional: true })
  alongMm?: number

  @Many(() => SwingSample, { what: 'readings along a swing instead of one', optional: true, most: 60 })
  swing?: SwingSample[]

  @Many(() => RideSample, {
    what: 'places and rides of a ride-height search instead of one reading',
    optional: true,
    most: 40,
  })
  rides?: RideSample[]

  @OneOf({ what: 'which turning point of the swing is meant', values: ['highest', 'lowest'], optional: true })
  extreme?: 'highest' | 'lowest'

  @Text({ what: 'gauge that was used', min: 1, max: 40 })
  gaugeId!: string

  @Text({ what: 'setting master that was used', optional: true, max: 40 })
  masterId?: string

  @Num({ what: 'clock position of the reading', unit: 'deg', min: 0, max: 360, optional: true })
  clockDeg?: number

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string

  @Flag({ what: 'the value was questioned and is meant', optional: true })
  confirmed?: boolean
}

export class SupersedeReading {
  @Text({ what: 'why the reading does not count', min: 3, max: 300 })
  reason!: string

  @Text({ what: 'the reading that takes its place, in bench notation', optional: true, max: 60 })
  text?: string

  @OneOf({ what: 'unit of a bare number', values: READING_UNITS, optional: true })
  unit?: ReadingUnit
}

export class TrialPiece {
  @Text({ what: 'id of the piece', min: 1, max: 60 })
  id!: string

  @Num({ what: 'thickness that it is peeled or ground to', unit: 'mm', min: 0, max: 50, optional: true })
  toMm?: number
}

/** One stack of a trial: ids of pieces, `d…` from the drawer, `c…` out of the case. */
export class TrialStack {
  @Text({ what: 'which stack', min: 1, max: 60 })
  location!: string

  @Many(() => TrialPiece, { what: 'the pieces; none for a carrier', most: 12 })
  pieces!: TrialPiece[]

  @Whole({
    what: 'a threaded carrier instead: steps from where it stands, in when positive, out when negative',
    min: -9999,
    max: 9999,
    optional: true,
  })
  steps?: number
}

export class TakePlan {
  @Whole({ what: 'build that the plan starts from', min: 0, max: 999 })
  fromBuild!: number

  @Many(() => TrialStack, { what: 'stacks to build in; one that is left out keeps what is in it', most: 8 })
  stacks!: TrialStack[]
}

export class MarkPattern {
  @Whole({ what: 'build whose pattern was read', min: 0, max: 999 })
  build!: number

  @Text({ what: 'which pair of gears', min: 1, max: 60 })
  mesh!: string

  @OneOf({ what: 'which flank', values: FLANKS })
  flank!: Flank

  @Whole({ what: 'place round the gear', min: 1, max: 4 })
  place!: number

  @Numbers({
    what: 'line round the patch: along from toe −1 to heel 1, up from root −1 to top 1, in turn',
    most: 120,
    least: 6,
  })
  outline!: number[]

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string

  @Text({ what: 'why an earlier mark of this flank and place is replaced', optional: true, max: 300 })
  reason?: string
}

export class WithdrawAcceptance {
  @Whole({ what: 'build whose acceptance is withdrawn', min: 0, max: 999 })
  build!: number

  @Text({ what: 'why it is withdrawn', min: 3, max: 300 })
  reason!: string
}

export class AcceptBuild {
  @Whole({ what: 'build that is accepted', min: 0, max: 999 })
  build!: number

  @Text({ what: 'why it is accepted although something is not in its window', optional: true, max: 300 })
  reason?: string
}
