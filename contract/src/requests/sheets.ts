import type { RowList } from '@moray/core/drives/own/rows'
import { FURTHER_LISTS, type FurtherList } from '@moray/core/drives/own/further-rows'
import { SOURCE_KINDS, type SourceKind } from '@moray/core/drives/own/source'
import type { Family } from '@moray/core/drives/sheet'
import { Flag, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { FastenerRow, PartRow, ServiceRow } from '../sheet/list-fields.ts'
import { FurtherFields, FurtherRemarks } from '../sheet/further-fields.ts'
import { FAMILY_IDS, SheetFile, VariantFields } from '../sheet/sheet-file.ts'
import { AdjusterRow, BearingRow, MeasureRow } from '../sheet/train-fields.ts'

const SOURCES = Object.keys(SOURCE_KINDS) as SourceKind[]

/** A drive that Moray has never seen. */
export class AddDrive {
  @Text({ what: 'name', min: 2, max: 60 })
  name!: string

  @OneOf({ what: 'family', values: FAMILY_IDS })
  family!: Family

  @Text({ what: 'the manual its figures come from', max: 120, optional: true })
  manual?: string
}

/** A draft of the next version, from the newest one. */
export class BeginDraft {
  @Flag({ what: 'throw away the draft that is open' })
  anew!: boolean
}

/** A figure as it is entered: its text, and where it comes from. */
class FigureEntry {
  @Text({ what: 'path of the figure', min: 1, max: 200 })
  path!: string

  @Text({ what: 'as it stands in the manual, with its unit; empty takes it away', max: 400 })
  text!: string

  @Text({ what: 'unit of a bare number', max: 10, optional: true })
  unit?: string

  @OneOf({ what: 'kind of source', values: SOURCES })
  source!: SourceKind

  @Text({ what: 'page, or what it was measured with', max: 120, optional: true })
  where?: string
}

export class SetFigure extends FigureEntry {
  @RowId({ what: 'only of this variant', optional: true })
  variant?: string

  @Text({ what: 'JSON of what stood there when it was typed; empty where nothing did', max: 2000 })
  was!: string
}

/** A figure that a job misses, entered at the place where it is needed. */
export class AddFigure extends FigureEntry {}

const ROW_LISTS = [
  'adjusters',
  'bearings',
  'measures',
  'parts',
  'fasteners',
  'service',
  'variants',
] as const satisfies RowList[]

/** A row of a list, put in the place of the one with its id, or added; or taken out. */
export class PutRow {
  @OneOf({ what: 'list', values: ROW_LISTS })
  list!: RowList

  @RowId({ what: 'id of the row' })
  id!: string

  @Flag({ what: 'take it out', optional: true })
  remove?: boolean

  @One(() => AdjusterRow, { what: 'the stack', optional: true })
  adjuster?: AdjusterRow

  @One(() => BearingRow, { what: 'the bearing', optional: true })
  bearing?: BearingRow

  @One(() => MeasureRow, { what: 'the measure', optional: true })
  measure?: MeasureRow

  @One(() => PartRow, { what: 'the part', optional: true })
  part?: PartRow

  @One(() => FastenerRow, { what: 'the fasteners', optional: true })
  fastener?: FastenerRow

  @One(() => ServiceRow, { what: 'the interval', optional: true })
  interval?: ServiceRow

  @One(() => VariantFields, { what: 'the variant', optional: true })
  variant?: VariantFields

  @Num({ what: 'place in the list, counted from 0', min: 0, max: 1000, optional: true })
  at?: number

  @Text({ what: 'JSON of the row as it was shown; empty where it is new', max: 50_000 })
  was!: string
}

/** A row of what a sheet says besides its figures: seals, tools, propellers and the like. */
export class PutFurther {
  @OneOf({ what: 'list', values: FURTHER_LISTS })
  list!: FurtherList

  @RowId({ what: 'id of the row' })
  id!: string

  @One(() => FurtherFields, {
    what: 'the row, as the only one of its list; nothing takes it out',
    optional: true,
  })
  now?: FurtherFields

  @Text({ what: 'JSON of the row as it was shown; empty where it is new', max: 4000 })
  was!: string
}

/** Cautions and the like: one line a caution; empty takes it away. */
export class PutRemarks {
  @One(() => FurtherRemarks, { what: 'what the sheet says' })
  now!: FurtherRemarks

  @Text({ what: 'JSON of what was shown', max: 20_000 })
  was!: string
}

/** Figures that came with somebody else's sheet, and that were now held against the own manual. */
export class CheckFigures {
  @Texts({ what: 'paths of the figures', most: 500, least: 1, long: 200 })
  paths!: string[]
}

export class PublishSheet {
  @Text({ what: 'what has changed', max: 300, optional: true })
  note?: string
}

export class ImportSheet {
  @One(() => SheetFile, { what: 'the sheet' })
  sheet!: SheetFile

  @Flag({ what: 'throw away a draft of it that is open here', optional: true })
  anew?: boolean
}

export const CSV_LISTS = ['fasteners', 'parts'] as const
export type CsvList = (typeof CSV_LISTS)[number]

/** A list out of a table of comma-separated values: takes the place of the one that is there. */
export class ImportList {
  @OneOf({ what: 'list', values: CSV_LISTS })
  list!: CsvList

  // rows are named by number: an empty line at the top is one of them
  @Text({ what: 'the table', max: 200_000, asIs: true })
  csv!: string
}

export class AdoptSheet {
  @Whole({ what: 'version that the job goes on with', min: 1, max: 1_000_000 })
  version!: number

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}
