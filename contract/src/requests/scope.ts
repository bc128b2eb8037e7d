import { CAME, type Came } from '@moray/core/route/scope'
import { REPAIR_REASONS, type RepairWhy } from '@moray/core/route/repair'
import { Flag, OneOf, Text, Texts } from '../fields/decorators.ts'

/** What a job is to reach: a usual scope by its id, or places picked by hand. */
export class ScopeFields {
  @Text({ what: 'usual scope of this drive; "own" for places picked by hand', min: 1, max: 80 })
  usual!: string

  @Texts({ what: 'ids of the parts to reach, where it is "own"', most: 200, optional: true })
  targets?: string[]

  @Flag({ what: 'the unit stays on the boat', optional: true })
  mounted?: boolean

  @OneOf({ what: 'how it came, said when the job is opened', values: Object.keys(CAME), optional: true })
  came?: Came

  @Texts({
    what: 'ids of the parts that were off already when it came',
    most: 200,
    optional: true,
  })
  lying?: string[]
}

/** A job gets another scope: it grows with what is found, or shrinks before anything came off. */
export class SetScope extends ScopeFields {
  @Text({ what: 'why it is another one', min: 3, max: 300 })
  reason!: string
}

/** Something to be settled before the job is handed over. */
export class AddOpenItem {
  @Text({ what: 'what is open', min: 3, max: 300 })
  text!: string
}

export class CloseOpenItem {
  @Text({ what: 'how it was settled, or that it is handed over in writing', min: 3, max: 300 })
  how!: string
}

/** A place is opened again after closing. */
export class OpenLoop {
  @OneOf({ what: 'what went wrong', values: Object.keys(REPAIR_REASONS) })
  why!: RepairWhy

  @Texts({ what: 'ids of the parts to reach; none where a leak has to be found first', most: 100 })
  targets!: string[]

  @Text({ what: 'what was seen, and where', min: 3, max: 300 })
  note!: string
}

/** The other case of the same unit: a sheet of its own in the same job. */
export class AddCase {
  @Text({ what: 'drive sheet of the other case', min: 1, max: 60 })
  sheetId!: string

  @Text({ what: 'serial number of the other case', min: 1, max: 60 })
  serial!: string
}

/** The stamps say that it is another drive: the job goes on with that one's sheet. */
export class MoveJob {
  @Text({ what: 'drive sheet', min: 1, max: 60 })
  sheetId!: string

  @Text({ what: 'variant of that sheet', max: 60, optional: true })
  variant?: string

  @Text({ what: 'how that was seen', min: 3, max: 300 })
  reason!: string
}
