import { TORQUE_UNITS, type TorqueUnit } from '@moray/core/units/torque-unit'
import { LOCK_KINDS, type LockKind } from '@moray/core/drives/fasteners'
import { PART_KINDS, type PartKind } from '@moray/core/drives/parts'
import { Flag, Num, Numbers, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { Range } from './figure-fields.ts'

const KINDS = Object.keys(PART_KINDS) as PartKind[]
const LOCKS = Object.keys(LOCK_KINDS) as LockKind[]

export class PartRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string

  @OneOf({ what: 'kind', values: KINDS })
  kind!: PartKind

  @Text({ what: 'place on the drawing', max: 80, optional: true })
  place?: string

  @Whole({ what: 'how many', min: 1, max: 200, optional: true })
  count?: number

  @Texts({ what: 'ids of what must be off before', most: 20, optional: true })
  after?: string[]

  @Text({ what: 'sold and condemned together with the others of this set', max: 80, optional: true })
  set?: string

  @Text({ what: 'bought as part of this kit', max: 80, optional: true })
  kit?: string

  @Num({ what: 'price', min: 0, max: 1e6, optional: true })
  price?: number

  @Whole({ what: 'days until it arrives', min: 0, max: 1000, optional: true })
  waitDays?: number

  @Flag({ what: 'has to be inside before the case closes', optional: true })
  inside?: boolean

  @OneOf({
    what: 'what the order of work knows it as',
    values: ['body', 'carrier', 'carrier-key'],
    optional: true,
  })
  role?: 'body' | 'carrier' | 'carrier-key'

  @OneOf({ what: 'thread', values: ['left'], optional: true })
  thread?: 'left'

  @Texts({ what: 'causes of the fault table that point at it', most: 20, optional: true })
  pointedAtBy?: string[]

  @OneOf({ what: 'what it holds back, where that is not the oil', values: ['water'], optional: true })
  keeps?: 'water'

  @Flag({ what: 'can only be got at with the halves apart', optional: true })
  apart?: true
}

/** One group of equal fasteners. */
export class FastenerRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string

  @Whole({ what: 'how many', min: 1, max: 100 })
  count!: number

  @Text({ what: 'where', max: 120, optional: true })
  where?: string

  @Text({ what: 'thread, as the trade writes it', max: 40, optional: true })
  thread?: string

  @OneOf({ what: 'hand of the thread', values: ['right', 'left'], optional: true })
  hand?: 'right' | 'left'

  @One(() => Range, { what: 'torque, Nm', optional: true })
  torqueNm?: Range

  @OneOf({ what: 'unit in which the manual prints it', values: [...TORQUE_UNITS], optional: true })
  torqueUnit?: TorqueUnit

  @Num({ what: 'turned on after the torque by', unit: 'deg', min: 0, max: 360, optional: true })
  angleDeg?: number

  @Text({ what: 'treatment of the thread', max: 80, optional: true })
  treatment?: string

  @Numbers({ what: 'stages before the last, as parts of the torque', most: 6, optional: true })
  stages?: number[]

  @Text({ what: 'order of tightening', max: 120, optional: true })
  order?: string

  @OneOf({ what: 'lock', values: LOCKS, optional: true })
  lock?: LockKind

  @Whole({ what: 'tabs that must be bent', min: 0, max: 40, optional: true })
  tabs?: number

  @Text({ what: 'what is held meanwhile', max: 120, optional: true })
  held?: string

  @Text({ what: 'what is turned', max: 120, optional: true })
  turned?: string

  @Text({ what: 'tool', max: 120, optional: true })
  tool?: string

  @Num({ what: 'reach of the adapter', unit: 'mm', min: 0, max: 1000, optional: true })
  adapterMm?: number

  @Numbers({ what: 'lengths, where they differ, mm', most: 20, optional: true })
  lengthsMm?: number[]

  @Flag({ what: 'easily overlooked', optional: true })
  hidden?: boolean

  @Text({ what: 'goes in only before this closes', max: 120, optional: true })
  captiveUntil?: string

  @Flag({ what: 'has a seal of its own under its head', optional: true })
  sealed?: boolean

  @Flag({ what: 'used once', optional: true })
  useOnce?: boolean

  @Text({ what: 'what it closes', max: 120, optional: true })
  closes?: string
}

export class ServiceRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'what is due', min: 1, max: 120 })
  what!: string

  @Num({ what: 'months', min: 0.5, max: 600, optional: true })
  months?: number

  @Num({ what: 'hours of running', min: 1, max: 100_000, optional: true })
  hours?: number

  @Num({ what: 'months in salt', min: 0.5, max: 600, optional: true })
  saltMonths?: number
}

export class StampRow {
  @Text({ what: 'code', min: 1, max: 40 })
  code!: string

  @Text({ what: 'teeth', max: 60 })
  teeth!: string

  @Text({ what: 'what it means', max: 200 })
  note!: string

  @Flag({ what: 'it is the code of this drive', optional: true })
  own?: boolean
}
