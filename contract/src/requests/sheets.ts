import { GRAPH_LISTS } from '@moray/core/drives/graph/rows'
import { UNIT_LISTS, type RowList } from '@moray/core/drives/own/rows'
import { SOURCE_KINDS, type SourceKind } from '@moray/core/drives/own/source'
import type { Family } from '@moray/core/drives/sheet'
import { Flag, Many, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { ServiceRow } from '../sheet/list-fields.ts'
import { JointRow, SpaceRow } from '../sheet/joint-fields.ts'
import { GroupRow, PartRow } from '../sheet/part-fields.ts'
import { FAMILY_IDS, GraphFields, SheetFile, VariantFields } from '../sheet/sheet-file.ts'
import { AdjusterRow, BearingRow, MeasureRow } from '../sheet/train-fields.ts'
import { AttitudeRow, LeverRow, UnitRemarks } from '../sheet/unit-fields.ts'

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

/** As many rows as the longest list holds. */
const MOST_AT_ONCE = 600

const ROW_LISTS = [
  'adjusters',
  'bearings',
  'measures',
  'service',
  'variants',
  ...GRAPH_LISTS,
  ...UNIT_LISTS,
] as const satisfies RowList[]

/** One row of a list. */
class OneRow extends GraphFields {
  @Many(() => PartRow, { what: 'parts', most: 1, optional: true })
  parts?: PartRow[]

  @Many(() => AdjusterRow, { what: 'stacks and carriers', most: 1, optional: true })
  adjusters?: AdjusterRow[]

  @Many(() => BearingRow, { what: 'bearings', most: 1, optional: true })
  bearings?: BearingRow[]

  @Many(() => MeasureRow, { what: 'what is measured', most: 1, optional: true })
  measures?: MeasureRow[]

  @Many(() => ServiceRow, { what: 'service', most: 1, optional: true })
  service?: ServiceRow[]

  @Many(() => VariantFields, { what: 'variants', most: 1, optional: true })
  variants?: VariantFields[]

  @Many(() => LeverRow, { what: 'rod and lever at each act', most: 1, optional: true })
  levers?: LeverRow[]

  @Many(() => AttitudeRow, { what: 'which way up for an act', most: 1, optional: true })
  attitudes?: AttitudeRow[]
}

/** A row of a list, put in the place of the one with its id, or added; without one, the row is taken out. */
export class PutRow {
  @OneOf({ what: 'list', values: ROW_LISTS })
  list!: RowList

  // what is set is named by its kind and its id
  @Text({ what: 'id of the row', min: 1, max: 80 })
  id!: string

  @One(() => OneRow, { what: 'the row, as the only one of its list; nothing takes it out', optional: true })
  now?: OneRow

  @Num({ what: 'place in the list, counted from 0', min: 0, max: 1000, optional: true })
  at?: number

  @Text({ what: 'JSON of the row as it was shown; empty where it is new', max: 50_000 })
  was!: string
}

/** A row as it was shown when somebody began to change it. */
class RowSeen {
  @Text({ what: 'id of the row', min: 1, max: 80 })
  id!: string

  @Text({ what: 'JSON of the row as it was shown', min: 2, max: 50_000 })
  was!: string
}

/** A figure of a row, as the manual prints it. */
class PrintedFigure {
  @Text({ what: 'path of the figure', min: 1, max: 200 })
  path!: string

  @Text({ what: 'as it stands in the manual, with its unit', min: 1, max: 400 })
  text!: string
}

/** Rows of one list. */
class SomeRows extends GraphFields {
  @Many(() => PartRow, { what: 'parts', most: MOST_AT_ONCE, optional: true })
  parts?: PartRow[]

  @Many(() => ServiceRow, { what: 'service', most: MOST_AT_ONCE, optional: true })
  service?: ServiceRow[]

  @Many(() => LeverRow, { what: 'rod and lever at each act', most: MOST_AT_ONCE, optional: true })
  levers?: LeverRow[]

  @Many(() => AttitudeRow, { what: 'which way up for an act', most: MOST_AT_ONCE, optional: true })
  attitudes?: AttitudeRow[]
}

/** Rows of a list, typed or pasted: all of them are put in place, or none. */
export class PutRows {
  @OneOf({ what: 'list', values: [...GRAPH_LISTS, ...UNIT_LISTS, 'service'] })
  list!: Exclude<RowList, 'adjusters' | 'bearings' | 'measures' | 'variants'>

  @One(() => SomeRows, { what: 'the rows, in their list' })
  now!: SomeRows

  @Many(() => RowSeen, { what: 'rows that were there already, as they were shown', most: MOST_AT_ONCE })
  seen!: RowSeen[]

  @Num({ what: 'place of new rows in the list, counted from 0', min: 0, max: 1000, optional: true })
  at?: number

  @OneOf({ what: 'where their figures come from', values: SOURCES, optional: true })
  source?: SourceKind

  @Text({ what: 'page, or what they were measured with', max: 120, optional: true })
  where?: string

  @Many(() => PrintedFigure, { what: 'figures as they are printed', most: 3 * MOST_AT_ONCE, optional: true })
  printed?: PrintedFigure[]
}

/** A row moved to another place of its list. */
export class MoveRow {
  @OneOf({ what: 'list', values: [...GRAPH_LISTS, ...UNIT_LISTS, 'service'] })
  list!: PutRows['list']

  @Text({ what: 'id of the row', min: 1, max: 80 })
  id!: string

  @Text({ what: 'id of the row that it goes before; empty puts it at the end', max: 80 })
  before!: string
}

/** A change of the draft taken back, whoever has typed what else meanwhile. */
export class UndoChange {
  @Whole({ what: 'number of the change', min: 1, max: 1e12 })
  change!: number
}

/** Cautions and the like: one line a caution; empty takes it away. */
export class PutRemarks {
  @One(() => UnitRemarks, { what: 'what the sheet says' })
  now!: UnitRemarks

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

export const CSV_LISTS = ['parts', 'groups', 'joints', 'spaces'] as const
export type CsvList = (typeof CSV_LISTS)[number]
export const CSV_ROWS: Record<CsvList, new () => { id: string }> = {
  parts: PartRow,
  groups: GroupRow,
  joints: JointRow,
  spaces: SpaceRow,
}

/** A list out of a table of comma-separated values: takes the place of the one that is there. */
export class ImportList {
  @OneOf({ what: 'list', values: CSV_LISTS })
  list!: CsvList

  // rows are named by number: an empty line at the top is one of them
  @Text({ what: 'the table', max: 200_000, asIs: true })
  csv!: string
}

/** Whether a row of the sheet leads to another one, as somebody saw it at the bench. */
export class SettleEdge {
  @OneOf({ what: 'list of the row', values: [...GRAPH_LISTS] })
  list!: (typeof GRAPH_LISTS)[number]

  @Text({ what: 'id of the row', min: 1, max: 80 })
  row!: string

  @Text({ what: 'what leads to the other row', min: 1, max: 40 })
  field!: string

  @Text({ what: 'id of the other row', min: 1, max: 80 })
  to!: string

  @OneOf({ what: 'what was seen', values: ['yes', 'no', 'cannot-tell'] })
  seen!: 'yes' | 'no' | 'cannot-tell'
}

export class AdoptSheet {
  @Whole({ what: 'version to use from now on', min: 1, max: 1_000_000 })
  version!: number

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}
