import { STOP_ENDS } from '@moray/core/job/decision'
import type { StopEnd } from '@moray/core/job/record'
import { Flag, Num, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'

export class LayInRow {
  @Text({ what: 'part of the sheet', optional: true, max: 60 })
  part?: string

  @Text({ what: 'name, for a part that the sheet does not know', optional: true, max: 80 })
  name?: string

  @Text({ what: 'how it lay', optional: true, max: 80 })
  orientation?: string

  @Text({ what: 'ink code on it', optional: true, max: 40 })
  ink?: string

  @Text({ what: 'stack that it belongs to', optional: true, max: 60 })
  stack?: string

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string

  @Flag({ what: 'it came out although another part should have held it', optional: true })
  confirmed?: boolean
}

export class OrderRow {
  @Texts({ what: 'ids of all parts in the row, in their new order', least: 1, most: 200 })
  ids!: string[]
}

export class ChangeRowPart {
  @OneOf({ what: 'what happens to it', values: ['fit', 'unfit', 'leave-out', 'mark', 'remove'] })
  act!: 'fit' | 'unfit' | 'leave-out' | 'mark' | 'remove'

  @Flag({ what: 'a new one is fitted in its place', optional: true })
  renewed?: boolean

  @Text({ what: 'why', optional: true, max: 300 })
  reason?: string

  @Text({ what: 'how it lay', optional: true, max: 80 })
  orientation?: string

  @Text({ what: 'ink code on it', optional: true, max: 40 })
  ink?: string

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string
}

export class GivePartGrade {
  @Text({ what: 'which part', min: 1, max: 60 })
  part!: string

  @OneOf({
    what: 'grade',
    values: ['keep', 'keep-same', 'dress', 'replace', 'replace-set', 'send-out'],
  })
  grade!: 'keep' | 'keep-same' | 'dress' | 'replace' | 'replace-set' | 'send-out'

  @Text({ what: 'reason', min: 3, max: 300 })
  reason!: string

  @Texts({ what: 'what was seen; ids of the criteria', most: 20, optional: true })
  seen?: string[]

  @Text({ what: 'runout measured, in bench notation', optional: true, max: 60 })
  measured?: string

  @Text({ what: 'zone of the shaft where it was measured; left out, the strictest', optional: true, max: 60 })
  zone?: string
}

export class SayFinding {
  @Text({ what: 'finding of the fault table', min: 1, max: 60 })
  finding!: string

  @OneOf({ what: 'whether it is there', values: ['there', 'not', 'unknown'] })
  state!: 'there' | 'not' | 'unknown'
}

export class SayOutcome {
  @Text({ what: 'what it turned out to be; cause of the fault table', min: 1, max: 60 })
  cause!: string

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string
}

export class MakeEstimate {
  @Num({ what: 'labour per hour', min: 0, max: 100_000 })
  rate!: number

  @Num({ what: 'consumables', min: 0, max: 1_000_000 })
  consumables!: number

  @Num({ what: "hours beyond the sheet's", min: 0, max: 1000, optional: true })
  extraHours?: number
}

export class RecordApproval {
  @Whole({ what: 'estimate that was shown', min: 1, max: 2_000_000_000 })
  estimateId!: number

  @OneOf({ what: 'what the customer decided', values: ['rebuild', 'exchange', 'used', 'stop'] })
  choice!: 'rebuild' | 'exchange' | 'used' | 'stop'

  @Text({ what: 'who decided', min: 2, max: 80 })
  customer!: string

  @Text({ what: 'how: by telephone, in writing, at the bench', min: 2, max: 120 })
  how!: string

  @OneOf({ what: 'in what it ends, where it is stopped', values: Object.keys(STOP_ENDS), optional: true })
  ends?: StopEnd

  @Texts({ what: 'ids of the parts that are kept for another unit', most: 100, optional: true })
  kept?: string[]
}
