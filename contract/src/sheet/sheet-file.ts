import { FAMILIES, type Family } from '@moray/core/drives/sheet'
import { SHEET_FORMAT } from '@moray/core/drives/own/body'
import type { Patch } from '@moray/core/drives/own/variant'
import { Flag, Many, One, OneOf, RowId, Text, Whole } from '../fields/decorators.ts'
import { MergePatch } from '../fields/tables.ts'
import {
  AnodeRow,
  ClearanceRow,
  LubricantRow,
  PropellerRow,
  SealFitRow,
  SealPairRow,
  ToolFields,
  WayRow,
} from './fitting-fields.ts'
import { SourceField } from './figure-fields.ts'
import { InterfaceRow, JointRow, SettingRow, SpaceRow } from './joint-fields.ts'
import { ServiceRow, StampRow } from './list-fields.ts'
import { GroupRow, PartRow } from './part-fields.ts'
import {
  AdjusterRow,
  AxisRow,
  BearingRow,
  BeltRow,
  GearRow,
  MeasureRow,
  MeshRow,
  RunoutRow,
  SealRow,
} from './train-fields.ts'
import { TestRow, UnitFields, UpgradedFields } from './unit-fields.ts'

export const FAMILY_IDS = Object.keys(FAMILIES) as Family[]

export class RatioFields {
  @Text({ what: 'overall', min: 1, max: 80 })
  overall!: string

  @Many(() => StampRow, { what: 'codes that are stamped on it and on its look-alikes', most: 40 })
  stamps!: StampRow[]
}

export class VariantFields {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'what it is called', min: 1, max: 60 })
  label!: string

  @Text({ what: 'first serial number', min: 1, max: 60, optional: true })
  fromSerial?: string

  @Text({ what: 'last serial number', min: 1, max: 60, optional: true })
  toSerial?: string

  @MergePatch({ what: 'what differs: a merge patch on the sheet (RFC 7396), rows of lists by their ids' })
  patch!: Patch
}

export class VariantName {
  @RowId({ what: 'id' })
  id!: string

  @Text({ what: 'what it is called', min: 1, max: 60 })
  label!: string
}

/** What a drive is made of, as one graph, all but its parts: rows, and edges between them by their ids. */
export class GraphFields {
  @Many(() => GroupRow, { what: 'groups of fasteners', most: 600, optional: true })
  groups?: GroupRow[]

  @Many(() => JointRow, { what: 'joints', most: 60, optional: true })
  joints?: JointRow[]

  @Many(() => InterfaceRow, { what: 'joints of the unit', most: 8, optional: true })
  interfaces?: InterfaceRow[]

  @Many(() => SpaceRow, { what: 'spaces', most: 20, optional: true })
  spaces?: SpaceRow[]

  @Many(() => SettingRow, { what: 'what carries and preloads what is set', most: 60, optional: true })
  settings?: SettingRow[]

  @Many(() => SealFitRow, { what: 'seals, each with how it goes in', most: 60, optional: true })
  sealFits?: SealFitRow[]

  @Many(() => SealPairRow, { what: 'seals that share a bore', most: 12, optional: true })
  sealPairs?: SealPairRow[]

  @Many(() => PropellerRow, { what: 'propellers', most: 12, optional: true })
  propellers?: PropellerRow[]

  @Many(() => AnodeRow, { what: 'anodes', most: 20, optional: true })
  anodes?: AnodeRow[]

  @Many(() => ToolFields, { what: 'tools', most: 60, optional: true })
  tools?: ToolFields[]

  @Many(() => WayRow, { what: 'which way things lie', most: 40, optional: true })
  ways?: WayRow[]

  @Many(() => ClearanceRow, { what: 'clearances after assembly', most: 20, optional: true })
  clearances?: ClearanceRow[]

  @Many(() => LubricantRow, { what: 'grease and sealant by place', most: 60, optional: true })
  lubricants?: LubricantRow[]

  @Many(() => TestRow, { what: 'pressure tests', most: 2, optional: true })
  tests?: TestRow[]

  @One(() => UnitFields, { what: 'what belongs to the unit', optional: true })
  unit?: UnitFields

  @One(() => UpgradedFields, { what: 'what it was brought up from', optional: true })
  upgraded?: UpgradedFields
}

/** A sheet as it leaves one shop and enters another. Everything is optional but its id, name, family, and the lists that may be empty. */
export class SheetFile extends GraphFields {
  @OneOf({ what: 'format of this file', values: [SHEET_FORMAT] })
  format!: typeof SHEET_FORMAT

  @RowId({ what: 'id, for good' })
  id!: string

  @Whole({ what: 'version', min: 0, max: 100_000, optional: true })
  version?: number

  @Text({ what: 'name', min: 2, max: 60 })
  name!: string

  @OneOf({ what: 'family', values: FAMILY_IDS })
  family!: Family

  @Flag({ what: 'its figures are invented', optional: true })
  demo?: boolean

  @Text({ what: 'what it is, in a line', max: 300, optional: true })
  summary?: string

  @Text({ what: 'the manual that its figures come from', max: 120, optional: true })
  manual?: string

  @One(() => RatioFields, { what: 'ratio and stamps', optional: true })
  ratio?: RatioFields

  @Many(() => AxisRow, { what: 'shafts', most: 12 })
  axes!: AxisRow[]

  @Many(() => GearRow, { what: 'gears', most: 16 })
  gears!: GearRow[]

  @Many(() => MeshRow, { what: 'pairs of gears', most: 12 })
  meshes!: MeshRow[]

  @Many(() => AdjusterRow, { what: 'stacks and carriers', most: 12 })
  adjusters!: AdjusterRow[]

  @Many(() => BearingRow, { what: 'bearings', most: 24 })
  bearings!: BearingRow[]

  @Many(() => SealRow, { what: 'seals on shafts', most: 24 })
  seals!: SealRow[]

  @Many(() => BeltRow, { what: 'belts', most: 4, optional: true })
  belts?: BeltRow[]

  @Many(() => MeasureRow, { what: 'what is measured', most: 24 })
  measures!: MeasureRow[]

  @Many(() => RunoutRow, { what: 'limits of runout', most: 24, optional: true })
  runoutLimits?: RunoutRow[]

  @Many(() => PartRow, { what: 'parts, in the order in which they come off', most: 600 })
  parts!: PartRow[]

  @Many(() => ServiceRow, { what: 'service', most: 40, optional: true })
  service?: ServiceRow[]

  @Many(() => SourceField, { what: 'where its figures come from', most: 3000, optional: true })
  sources?: SourceField[]

  @Many(() => VariantFields, { what: 'drives that differ in a few figures', most: 12, optional: true })
  variants?: VariantFields[]

  @One(() => VariantName, { what: 'which of them this is', optional: true })
  variant?: VariantName
}
