import type { ReadingHow } from '@moray/core/setting/taken'
import { Flag, Many, Num, One, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'
import { READING_UNITS, type ReadingUnit } from './reading-units.ts'

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
