import type { Edges } from '@moray/core/drives/graph/edges'
import { PROOFS, READ_WHEN, type ProvedBy, type ReadWhen } from '@moray/core/drives/graph/rows'
import { Flag, Many, Num, OneOf, RowId, Text, Texts } from '../fields/decorators.ts'
import { EdgeMap } from '../fields/tables.ts'
import { SaidFields } from './part-fields.ts'

const JOINTS = ['cover', 'carrier', 'retainer', 'halves', 'plug', 'shaft'] as const
const PROVED = Object.keys(PROOFS) as ProvedBy[]
const STATES = Object.keys(READ_WHEN) as ReadWhen[]

/** A joint of the case. */
export class JointRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string

  @OneOf({ what: 'kind', values: JOINTS })
  kind!: (typeof JOINTS)[number]

  @EdgeMap({ what: 'parts that meet here', optional: true })
  between?: Edges

  @EdgeMap({ what: 'parts that seal it', optional: true })
  sealedBy?: Edges

  @EdgeMap({ what: 'groups that close it', optional: true })
  closedBy?: Edges

  @EdgeMap({ what: 'spaces behind it', optional: true })
  behind?: Edges

  @OneOf({ what: 'above or below the level, as the drive hangs', values: ['above', 'below'], optional: true })
  level?: 'above' | 'below'

  @EdgeMap({ what: 'interfaces of the unit that are parted before', optional: true })
  interfaces?: Edges

  @OneOf({ what: 'proved by', values: PROVED, optional: true })
  provedBy?: ProvedBy

  @Text({ what: 'why it is not proved', max: 200, optional: true })
  unproved?: string

  @EdgeMap({ what: 'screws of the ports of its test', optional: true })
  ports?: Edges

  @Flag({ what: 'nobody has said that it is there', optional: true })
  assumed?: boolean

  @Many(() => SaidFields, { what: 'words of an older sheet', most: 4, optional: true })
  said?: SaidFields[]
}

/** A joint of the unit: case to case, to leg, transom or bed. */
export class InterfaceRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'what it is joined to', min: 1, max: 80, optional: true })
  name?: string

  @OneOf({ what: 'kind', values: ['case', 'leg', 'transom', 'bed'], optional: true })
  kind?: 'case' | 'leg' | 'transom' | 'bed'

  @Flag({ what: 'both sides share their oil', optional: true })
  sharesOil?: boolean

  @OneOf({ what: 'gear in which both are joined', values: ['neutral', 'forward'], optional: true })
  gear?: 'neutral' | 'forward'

  @EdgeMap({ what: 'groups that close it', optional: true })
  closedBy?: Edges
}

export class SpaceRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'name', min: 1, max: 80 })
  name!: string

  @OneOf({ what: 'what it holds', values: ['oil', 'grease', 'water', 'dry'] })
  holds!: 'oil' | 'grease' | 'water' | 'dry'

  @Num({ what: 'volume', unit: 'ml', min: 1, max: 100_000, optional: true })
  volumeMl?: number

  @Num({ what: 'what goes in', unit: 'ml', min: 1, max: 100_000, optional: true })
  fillMl?: number

  @Text({ what: 'what its level is read by', max: 120, optional: true })
  levelBy?: string

  @EdgeMap({ what: 'interfaces across which it is one with the other case', optional: true })
  connected?: Edges
}

/** What carries and preloads something that is set. */
export class SettingRow {
  @Text({ what: 'id of the measure, bearing: and a bearing, or seat: and a stack', min: 1, max: 80 })
  id!: string

  @EdgeMap({ what: 'parts that carry it', optional: true })
  carriedBy?: Edges

  @EdgeMap({ what: 'the group that preloads it', optional: true })
  preloadedBy?: Edges

  @EdgeMap({ what: 'the sleeve or spacer that it is preloaded through', optional: true })
  through?: Edges

  @Texts({ what: 'state in which a reading counts', most: 7, values: STATES, optional: true })
  readWhen?: ReadWhen[]
}
