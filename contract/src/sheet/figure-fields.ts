import { SOURCE_KINDS, type SourceKind } from '@moray/core/drives/own/source'
import { Day, Flag, Num, OneOf, Text } from '../fields/decorators.ts'

const SOURCES = Object.keys(SOURCE_KINDS) as SourceKind[]

/** A range; a side that is left out is open. */
export class Range {
  @Num({ what: 'smallest', optional: true })
  min?: number

  @Num({ what: 'largest', optional: true })
  max?: number
}

/** Where a figure comes from. */
export class SourceField {
  @Text({ what: 'path of the figure', min: 1, max: 200 })
  path!: string

  @OneOf({ what: 'kind of source', values: SOURCES })
  kind!: SourceKind

  @Text({ what: 'page of the manual, or what it was measured with', max: 120, optional: true })
  where?: string

  @Text({ what: 'as it stands there', max: 400, optional: true })
  as?: string

  @Text({ what: 'who entered it', max: 80, optional: true })
  by?: string

  @Day({ what: 'day on which it was entered', optional: true })
  on?: string

  @Flag({ what: 'it came with a sheet from elsewhere, and is not checked here yet', optional: true })
  unchecked?: boolean

  @Flag({ what: 'it was entered at the bench, and is not confirmed yet', optional: true })
  atBench?: boolean
}
