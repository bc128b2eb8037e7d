import type { Edges } from '@moray/core/drives/graph/edges'
import type { Said } from '@moray/core/drives/graph/rows'
import { LOCK_KINDS, type LockKind } from '@moray/core/drives/fasteners'
import { PART_KINDS, type PartKind } from '@moray/core/drives/parts'
import { TORQUE_UNITS, type TorqueUnit } from '@moray/core/units/torque-unit'
import { Flag, Many, Num, Numbers, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { EdgeMap } from '../fields/tables.ts'
import { Range } from './figure-fields.ts'

const KINDS = Object.keys(PART_KINDS) as PartKind[]
const LOCKS = Object.keys(LOCK_KINDS) as LockKind[]
const ROLES = ['body', 'carrier', 'carrier-key'] as const
const SAID = ['closes', 'captive-until', 'sealed-by', 'closed-by', 'anodes'] as const

/** Words of an older sheet that name no row. */
export class SaidFields {
  @OneOf({ what: 'of what', values: SAID })
  of!: Said['of']

  @Text({ what: 'the words', min: 1, max: 1300 })
  text!: string
}

/** What is bought: by whom, for how much, and how long it takes. */
class BoughtRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string

  @Text({ what: 'your own part number', max: 60, optional: true })
  number?: string

  @Text({ what: 'place on the drawing', max: 80, optional: true })
  place?: string

  @Whole({ what: 'how many', min: 1, max: 200, optional: true })
  count?: number

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

  @OneOf({ what: 'what the order of work knows it as', values: ROLES, optional: true })
  role?: (typeof ROLES)[number]

  @Texts({ what: 'causes of the fault table that point at it', most: 20, optional: true })
  pointedAtBy?: string[]
}

export class PartRow extends BoughtRow {
  @OneOf({ what: 'kind', values: KINDS })
  kind!: PartKind

  @Text({ what: 'which way round it goes', max: 120, optional: true })
  way?: string

  @EdgeMap({ what: 'parts and groups that cover it', optional: true })
  after?: Edges;

  @EdgeMap({ what: 'the part that it lies loose in', optional: true })
  in?: Edges

  @EdgeMap({ what: 'the part that it is pressed on or into', optional: true })
  on?: Edges

  @EdgeMap({ what: 'what its lip or its needles run on', optional: true })
  runsOn?: Edges

  @EdgeMap({ what: 'interfaces of the unit that are parted before', optional: true })
  interfaces?: Edges

  @OneOf({ what: 'what it holds back, where that is not the oil', values: ['water'], optional: true })
  keeps?: 'water'
}

/** A loose piece of a group: a nut, a tab washer, a pin. */
export class PieceRow extends BoughtRow {
  @OneOf({ what: 'kind', values: KINDS, optional: true })
  kind?: PartKind

  @Flag({ what: 'used once', optional: true })
  useOnce?: boolean
}

const TIGHTENED = ['torque', 'preload', 'turns', 'hand', 'alignment'] as const
const PORTS = ['drain', 'vent', 'fill', 'level', 'passage'] as const

/** One group of equal fasteners. */
export class GroupRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 120 })
  name!: string

  @Whole({ what: 'how many', min: 1, max: 100, optional: true })
  count?: number

  @Text({ what: 'where', max: 120, optional: true })
  where?: string

  @Text({ what: 'place on the drawing', max: 80, optional: true })
  place?: string

  @Many(() => PieceRow, { what: 'its loose pieces: nut, washer, pin', most: 12, optional: true })
  pieces?: PieceRow[]

  @EdgeMap({ what: 'parts that it holds', optional: true })
  holds?: Edges

  @EdgeMap({ what: 'parts and groups that cover it', optional: true })
  after?: Edges

  @EdgeMap({ what: 'interfaces of the unit that are parted before', optional: true })
  interfaces?: Edges

  @Text({ what: 'thread, as the trade writes it', max: 40, optional: true })
  thread?: string

  @OneOf({ what: 'hand of the thread', values: ['right', 'left'], optional: true })
  hand?: 'right' | 'left'

  @OneOf({ what: 'tightened by', values: TIGHTENED, optional: true })
  tightenedBy?: (typeof TIGHTENED)[number]

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

  @Whole({ what: 'threads that show beyond it', min: 0, max: 40, optional: true })
  threads?: number

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

  @EdgeMap({ what: 'joints and interfaces before whose closing it goes in', optional: true })
  captiveUntil?: Edges

  @Flag({ what: 'it pinches, and stays in its holes', optional: true })
  pinches?: boolean

  @Flag({ what: 'has a seal of its own under its head', optional: true })
  sealed?: boolean

  @Flag({ what: 'used once', optional: true })
  useOnce?: boolean

  @OneOf({ what: 'the port that it is the screw of', values: PORTS, optional: true })
  port?: (typeof PORTS)[number]

  @OneOf({ what: 'plug', values: ['magnetic', 'plain'], optional: true })
  plug?: 'magnetic' | 'plain'

  @Flag({ what: 'nobody has said that it is there', optional: true })
  assumed?: boolean

  @Many(() => SaidFields, { what: 'words of an older sheet', most: 4, optional: true })
  said?: SaidFields[]
}
