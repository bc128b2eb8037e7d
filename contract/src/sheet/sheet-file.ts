import { FAMILIES, type Family } from '@moray/core/drives/sheet'
import { SHEET_FORMAT } from '@moray/core/drives/own/body'
import type { Patch } from '@moray/core/drives/own/variant'
import { Flag, Many, MergePatch, Num, One, OneOf, RowId, Text, Whole } from '../fields/decorators.ts'
import { BenchFields } from './bench-fields.ts'
import { FurtherFields } from './further-fields.ts'
import { SourceField } from './figure-fields.ts'
import { FastenerRow, PartRow, ServiceRow, StampRow } from './list-fields.ts'
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

/** A sheet as it leaves one shop and enters another. Everything is optional but its id, name, family, and the lists that may be empty. */
export class SheetFile {
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

  @Num({ what: 'oil', unit: 'ml', min: 1, max: 100_000, optional: true })
  oilCapacityMl?: number

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

  @Many(() => PartRow, { what: 'parts, in the order in which they come off', most: 300 })
  parts!: PartRow[]

  @Many(() => FastenerRow, { what: 'fasteners', most: 100, optional: true })
  fasteners?: FastenerRow[]

  @Many(() => ServiceRow, { what: 'service', most: 40, optional: true })
  service?: ServiceRow[]

  @One(() => FurtherFields, { what: 'seals, joints, tools and the like', optional: true })
  further?: FurtherFields

  @One(() => BenchFields, { what: 'opening, closing, joining, tightness' })
  bench!: BenchFields

  @Many(() => SourceField, { what: 'where its figures come from', most: 1000, optional: true })
  sources?: SourceField[]

  @Many(() => VariantFields, { what: 'drives that differ in a few figures', most: 12, optional: true })
  variants?: VariantFields[]

  @One(() => VariantName, { what: 'which of them this is', optional: true })
  variant?: VariantName
}
