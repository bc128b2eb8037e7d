import { Flag, Num, One, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'
import { Range } from './figure-fields.ts'

const GEARS = ['neutral', 'forward', 'reverse'] as const
const SPRINGS = ['facing each other', 'both outward', 'both inward'] as const

export class AllowedDropFields {
  @Num({ what: 'may drop by; 0 is no drop', unit: 'kPa', min: 0, max: 100 })
  kpa!: number

  @Num({
    what: 'in so many minutes; the whole hold where left out',
    unit: 'min',
    min: 0.5,
    max: 1440,
    optional: true,
  })
  minutes?: number
}

export class LeakFields {
  @Texts({ what: 'ports to be blocked', most: 20, optional: true })
  ports?: string[]

  @Num({ what: 'pressure of the first look', unit: 'kPa', min: 0, max: 400, optional: true })
  lowKpa?: number

  @Num({ what: 'test pressure', unit: 'kPa', min: -100, max: 400, optional: true })
  workKpa?: number

  @Num({ what: 'never above', unit: 'kPa', min: -100, max: 500, optional: true })
  maxKpa?: number

  @Num({ what: 'held for', unit: 'min', min: 0.5, max: 1440, optional: true })
  holdMin?: number

  @One(() => AllowedDropFields, { what: 'what a manual allows it to drop by', optional: true })
  allowedDrop?: AllowedDropFields

  @Num({ what: 'leak rate allowed', unit: 'ml/min', min: 0.001, max: 100, optional: true })
  allowedMlPerMin?: number

  @Num({ what: 'volume of the case', unit: 'ml', min: 1, max: 100_000, optional: true })
  volumeMl?: number

  @Text({ what: 'what is moved meanwhile', max: 200, optional: true })
  turns?: string
}

export class JoinFields {
  @Text({ what: 'what it is joined to', max: 80, optional: true })
  to?: string

  @OneOf({ what: 'gear in which both are joined', values: ['neutral', 'forward'], optional: true })
  gear?: 'neutral' | 'forward'

  @One(() => LeakFields, { what: 'test of both together, where they share their oil', optional: true })
  oilJoint?: LeakFields
}

export class LeftHandFields {
  @Text({ what: 'what loosens clockwise', max: 80, optional: true })
  what?: string

  @Text({ what: 'place on the drawing', max: 80, optional: true })
  place?: string
}

export class PlacedCount {
  @Whole({ what: 'how many', min: 1, max: 100, optional: true })
  count?: number

  @Text({ what: 'where', max: 120, optional: true })
  where?: string
}

export class PinchFields {
  @Whole({ what: 'how many', min: 1, max: 100 })
  count!: number

  @Text({ what: 'where', max: 120 })
  where!: string
}

export class LockTabFields {
  @Text({ what: 'the nut or ring', max: 80, optional: true })
  what?: string

  @Whole({ what: 'tabs that must be bent', min: 0, max: 40, optional: true })
  tabs?: number

  @One(() => Range, { what: 'torque, Nm', optional: true })
  torqueNm?: Range

  @Flag({ what: 'it can still be reached once the drive is on the boat', optional: true })
  reachedMounted?: boolean
}

export class PropellerFields {
  @OneOf({ what: 'held by', values: ['tabs', 'pin'], optional: true })
  kind?: 'tabs' | 'pin'

  @Whole({ what: 'tabs', min: 0, max: 40, optional: true })
  tabs?: number

  @Whole({ what: 'threads that must show', min: 0, max: 40, optional: true })
  threads?: number

  @One(() => Range, { what: 'torque of its nut, Nm', optional: true })
  torqueNm?: Range

  @Flag({ what: 'it stays off until the drive has run on a hose', optional: true })
  afterRun?: boolean
}

export class PairFields {
  @Flag({ what: 'two seals share a step' })
  pair!: boolean
}

export class LabourFields {
  @Num({ what: 'opening', unit: 'h', min: 0, max: 200 })
  openHours!: number

  @Num({ what: 'setting', unit: 'h', min: 0, max: 200 })
  setHours!: number

  @Num({ what: 'closing', unit: 'h', min: 0, max: 200 })
  closeHours!: number
}

export class WholeUnit {
  @Num({ what: 'price', min: 0, max: 1e6 })
  price!: number

  @Whole({ what: 'days until it arrives', min: 0, max: 1000 })
  waitDays!: number
}

/** How the drive opens, closes, joins, and is proved tight. */
export class BenchFields {
  @OneOf({ what: 'gear in which it is opened', values: GEARS, optional: true })
  openGear?: (typeof GEARS)[number]

  @Flag({ what: 'it is shifted', optional: true })
  shifts?: boolean

  @One(() => JoinFields, { what: 'what it is joined to', optional: true })
  joins?: JoinFields

  @One(() => LeftHandFields, { what: 'fastener that loosens clockwise', optional: true })
  leftHand?: LeftHandFields

  @Text({ what: 'fastener that goes in only while it is apart', max: 120, optional: true })
  captive?: string

  @One(() => PlacedCount, { what: 'fasteners that are easily overlooked', optional: true })
  hidden?: PlacedCount

  @One(() => LockTabFields, { what: 'the big nut or ring', optional: true })
  lockTabs?: LockTabFields

  @One(() => PinchFields, { what: 'screws that only pinch', optional: true })
  pinchScrews?: PinchFields

  @OneOf({ what: 'springs of a seal pair', values: SPRINGS, optional: true })
  sealSprings?: (typeof SPRINGS)[number]

  @One(() => PairFields, { what: 'its seals', optional: true })
  seals?: PairFields

  @Text({ what: 'letters of the races look', max: 120, optional: true })
  raceLetters?: string

  @Text({ what: 'oil hole that must line up', max: 120, optional: true })
  oilFeed?: string

  @Text({ what: 'how the water tube goes in', max: 200, optional: true })
  waterTube?: string

  @Text({ what: 'shift rod', max: 200, optional: true })
  shiftRod?: string

  @One(() => PropellerFields, { what: 'propeller', optional: true })
  propeller?: PropellerFields

  @Flag({ what: 'water shows at a telltale', optional: true })
  telltale?: boolean

  @Text({ what: 'thrust hub', max: 120, optional: true })
  thrustHub?: string

  @One(() => LeakFields, { what: 'pressure test', optional: true })
  leak?: LeakFields

  @Text({ what: 'why there is no pressure test', max: 200, optional: true })
  noTest?: string

  @OneOf({ what: 'lubricant', values: ['oil', 'grease'], optional: true })
  lubricant?: 'oil' | 'grease'

  @OneOf({ what: 'drain plug', values: ['magnetic', 'plain'], optional: true })
  drainPlug?: 'magnetic' | 'plain'

  @Text({ what: 'anodes', max: 120, optional: true })
  anodes?: string

  @Num({ what: 'weight', unit: 'kg', min: 0.5, max: 2000, optional: true })
  weightKg?: number

  @One(() => LabourFields, { what: 'labour', optional: true })
  labour?: LabourFields

  @One(() => WholeUnit, { what: 'exchange unit', optional: true })
  exchange?: WholeUnit

  @One(() => WholeUnit, { what: 'used unit', optional: true })
  used?: WholeUnit
}
