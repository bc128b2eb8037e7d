import { Flag, Many, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { Range } from './figure-fields.ts'

class NamedRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string
}

export class ClosureRow extends NamedRow {
  @OneOf({ what: 'kind', values: ['cover', 'carrier', 'retainer', 'halves', 'plug'] })
  kind!: 'cover' | 'carrier' | 'retainer' | 'halves' | 'plug'

  @Texts({ what: 'ids of its fasteners', most: 20, optional: true })
  fasteners?: string[]

  @Text({ what: 'what seals it', max: 120, optional: true })
  sealedBy?: string

  @Flag({ what: 'proved tight with the case', optional: true })
  tested?: boolean
}

export class SealDetailRow extends NamedRow {
  @OneOf({ what: 'where it sits', values: ['shaft', 'cover', 'plug', 'passage', 'shift-shaft', 'carrier'] })
  at!: 'shaft' | 'cover' | 'plug' | 'passage' | 'shift-shaft' | 'carrier'

  @RowId({ what: 'the seal on the drawing', optional: true })
  seal?: string

  @Text({ what: 'size', max: 60, optional: true })
  size?: string

  @Whole({ what: 'turn among those in one bore', min: 1, max: 9, optional: true })
  order?: number

  @OneOf({ what: 'its spring looks', values: ['inward', 'outward'], optional: true })
  springs?: 'inward' | 'outward'

  @Text({ what: 'how deep', max: 80, optional: true })
  depth?: string

  @Text({ what: 'film on its outside', max: 80, optional: true })
  film?: string

  @OneOf({ what: 'what moves there', values: ['turns', 'slides', 'nothing'], optional: true })
  moves?: 'turns' | 'slides' | 'nothing'
}

export class ShiftStateRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @OneOf({ what: 'act', values: ['opening', 'closing', 'joining', 'measuring'] })
  act!: 'opening' | 'closing' | 'joining' | 'measuring'

  @OneOf({ what: 'gear', values: ['neutral', 'forward', 'reverse'] })
  gear!: 'neutral' | 'forward' | 'reverse'

  @Text({ what: 'rod or lever', max: 120, optional: true })
  rod?: string

  @Num({ what: 'height of the rod', unit: 'mm', min: -1000, max: 1000, optional: true })
  heightMm?: number
}

export class ToolFields extends NamedRow {
  @Text({ what: 'what serves in its place', max: 200, optional: true })
  substitute?: string

  @Text({ what: 'serial numbers that it fits', max: 80, optional: true })
  serials?: string
}

const HELD = ['tab-washer', 'castle-pin', 'spring-washer', 'shear-pin', 'self-locking'] as const

export class PropellerFieldsRow extends NamedRow {
  @OneOf({ what: 'place', values: ['only', 'front', 'rear'], optional: true })
  place?: 'only' | 'front' | 'rear'

  @OneOf({ what: 'held by', values: HELD })
  held!: (typeof HELD)[number]

  @OneOf({ what: 'turns in forward gear, seen from aft', values: ['right', 'left'], optional: true })
  turnsForward?: 'right' | 'left'

  @One(() => Range, { what: 'torque, Nm', optional: true })
  torqueNm?: Range

  @Texts({ what: 'washers and hub, in order', most: 10, optional: true })
  washers?: string[]
}

export class AnodeFields {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'place', min: 1, max: 80 })
  place!: string

  @Whole({ what: 'how many', min: 1, max: 40, optional: true })
  count?: number

  @Text({ what: 'alloy in salt water', max: 40, optional: true })
  salt?: string

  @Text({ what: 'alloy in brackish water', max: 40, optional: true })
  brackish?: string

  @Text({ what: 'alloy in fresh water', max: 40, optional: true })
  fresh?: string
}

export class AttitudeFields {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'act', min: 1, max: 80 })
  act!: string

  @Text({ what: 'which way up', min: 1, max: 80 })
  up!: string

  @Text({ what: 'what falls out when it is turned', max: 120, optional: true })
  falls?: string
}

/** What it says in single lines. */
export class FurtherRemarks {
  @Texts({ what: 'cautions of the sheet', most: 20, long: 300, optional: true })
  cautions?: string[]

  @Text({ what: 'trim tab', max: 120, optional: true })
  trimTab?: string

  @RowId({ what: 'sheet of its other half', optional: true })
  partner?: string

  @Text({ what: 'where the plate is', max: 120, optional: true })
  plateAt?: string

  @Text({ what: 'where the stamps are', max: 120, optional: true })
  stampsAt?: string
}

/** What a sheet may say besides its figures. */
export class FurtherFields extends FurtherRemarks {
  @Many(() => ClosureRow, { what: 'joints that close the case', most: 20, optional: true })
  closures?: ClosureRow[]

  @Many(() => SealDetailRow, { what: 'seals, each with how it goes in', most: 60, optional: true })
  sealDetails?: SealDetailRow[]

  @Many(() => ShiftStateRow, { what: 'rod and lever at each act', most: 12, optional: true })
  shiftStates?: ShiftStateRow[]

  @Many(() => ToolFields, { what: 'tools', most: 60, optional: true })
  tools?: ToolFields[]

  @Many(() => PropellerFieldsRow, { what: 'propellers', most: 12, optional: true })
  propellers?: PropellerFieldsRow[]

  @Many(() => AnodeFields, { what: 'anodes', most: 20, optional: true })
  anodes?: AnodeFields[]

  @Many(() => AttitudeFields, { what: 'which way up for an act', most: 20, optional: true })
  attitudes?: AttitudeFields[]
}
