import type { Edges } from '@moray/core/drives/graph/edges'
import { Flag, Many, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { EdgeMap } from '../fields/tables.ts'
import { Range } from './figure-fields.ts'
import { SaidFields } from './part-fields.ts'

class NamedRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string
}

export class SealFitRow extends NamedRow {
  @OneOf({ what: 'where it sits', values: ['shaft', 'cover', 'plug', 'passage', 'shift-shaft', 'carrier'] })
  at!: 'shaft' | 'cover' | 'plug' | 'passage' | 'shift-shaft' | 'carrier'

  @EdgeMap({ what: 'the part that it is', optional: true })
  part?: Edges

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

const SPRINGS = ['facing each other', 'both outward', 'both inward'] as const

/** Seals that share a bore. */
export class SealPairRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Flag({ what: 'both stand on one step', optional: true })
  sharedStep?: boolean

  @OneOf({ what: 'their springs look', values: SPRINGS, optional: true })
  springs?: (typeof SPRINGS)[number]

  @EdgeMap({ what: 'the parts that they are', optional: true })
  part?: Edges
}

const HELD = ['tab-washer', 'castle-pin', 'spring-washer', 'shear-pin', 'self-locking'] as const

export class PropellerRow extends NamedRow {
  @OneOf({ what: 'place', values: ['only', 'front', 'rear'], optional: true })
  place?: 'only' | 'front' | 'rear'

  @EdgeMap({ what: 'the part that it is', optional: true })
  part?: Edges

  @EdgeMap({ what: 'the group that holds it', optional: true })
  heldBy?: Edges

  @OneOf({ what: 'held by', values: HELD, optional: true })
  held?: (typeof HELD)[number]

  @OneOf({ what: 'turns in forward gear, seen from aft', values: ['right', 'left'], optional: true })
  turnsForward?: 'right' | 'left'

  @Texts({ what: 'washers and hub, in order', most: 10, optional: true })
  washers?: string[]

  @Text({ what: 'the thrust hub that belongs to it', max: 120, optional: true })
  hub?: string

  @Flag({ what: 'it stays off until the drive has run on a hose', optional: true })
  afterRun?: boolean
}

export class AnodeRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'place', min: 1, max: 120 })
  place!: string

  @EdgeMap({ what: 'the part that it is', optional: true })
  part?: Edges

  @Whole({ what: 'how many', min: 1, max: 40, optional: true })
  count?: number

  @Text({ what: 'alloy in salt water', max: 40, optional: true })
  salt?: string

  @Text({ what: 'alloy in brackish water', max: 40, optional: true })
  brackish?: string

  @Text({ what: 'alloy in fresh water', max: 40, optional: true })
  fresh?: string

  @Many(() => SaidFields, { what: 'words of an older sheet', most: 4, optional: true })
  said?: SaidFields[]
}

export class ToolFields extends NamedRow {
  @EdgeMap({ what: 'parts and groups that it is for', optional: true })
  for?: Edges

  @Text({ what: 'what serves in its place', max: 200, optional: true })
  substitute?: string

  @Text({ what: 'serial numbers that it fits', max: 80, optional: true })
  serials?: string
}

/** Which way something lies. */
export class WayRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'which way', min: 1, max: 200 })
  text!: string

  @EdgeMap({ what: 'parts, groups or joints that it is about', optional: true })
  at?: Edges
}

export class ClearanceRow extends NamedRow {
  @EdgeMap({ what: 'between which parts', optional: true })
  between?: Edges

  @One(() => Range, { what: 'what is allowed, mm', optional: true })
  window?: Range
}

export class LubricantRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'grease or sealant', min: 1, max: 120 })
  what!: string

  @EdgeMap({ what: 'parts, groups, joints or seals', optional: true })
  at?: Edges

  @Text({ what: 'where', max: 120, optional: true })
  where?: string

  @Num({ what: 'hours until it has cured', min: 0, max: 1000, optional: true })
  cureHours?: number
}
