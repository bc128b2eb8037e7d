import { One, OneOf, Text, Whole, RowId } from '../fields/decorators.ts'
import { ScopeFields } from './scope.ts'

export class OpenJob {
  @RowId({ what: 'variant of the sheet', optional: true })
  variant?: string

  @Text({ what: 'drive sheet', min: 1, max: 60 })
  sheetId!: string

  @Text({ what: 'serial number', min: 1, max: 60 })
  serial!: string

  @Text({ what: 'boat', min: 1, max: 80 })
  boat!: string

  @Text({ what: 'owner', min: 1, max: 80 })
  owner!: string

  @OneOf({ what: 'water it lives in', values: ['salt', 'brackish', 'fresh'] })
  water!: 'salt' | 'brackish' | 'fresh'

  @Whole({ what: 'hours', min: 0, max: 100_000, optional: true })
  hours?: number

  @Text({ what: 'complaint; only a yearly service may come without one', min: 3, max: 600, optional: true })
  complaint?: string

  @Text({ what: 'stand', optional: true, max: 40 })
  stand?: string

  @One(() => ScopeFields, { what: 'what it is to reach; everything where left out', optional: true })
  scope?: ScopeFields
}

/** What was written down when the job was opened, put right. What is left out stays. */
export class CorrectJob {
  @Text({ what: 'serial number', min: 1, max: 60, optional: true })
  serial?: string

  @Text({ what: 'boat', min: 1, max: 80, optional: true })
  boat?: string

  @Text({ what: 'owner', min: 1, max: 80, optional: true })
  owner?: string

  @OneOf({ what: 'water it lives in', values: ['salt', 'brackish', 'fresh'], optional: true })
  water?: 'salt' | 'brackish' | 'fresh'

  @Whole({ what: 'hours', min: 0, max: 100_000, optional: true })
  hours?: number

  @Text({ what: 'complaint', min: 3, max: 600, optional: true })
  complaint?: string

  @Text({ what: 'why it is corrected', min: 3, max: 300 })
  reason!: string
}

export class ChangeLife {
  @OneOf({ what: 'what happens to the job', values: ['hold', 'resume', 'stand', 'close', 'reopen'] })
  act!: 'hold' | 'resume' | 'stand' | 'close' | 'reopen'

  @Text({ what: 'why', optional: true, max: 300 })
  reason?: string

  @Text({ what: 'stand; left out for the shelf', optional: true, max: 40 })
  stand?: string

  @Text({ what: 'step from which it is done again, when reopened', optional: true, max: 60 })
  step?: string
}
