import { Flag, Num, RowId, Text } from '../fields/decorators.ts'

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
