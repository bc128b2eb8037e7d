import { AnswerTable, Flag, Num, One, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'

export class DepartureFields {
  @Text({ what: 'why it goes on all the same', min: 3, max: 300 })
  reason!: string

  @Text({ what: 'lead who agreed', optional: true, max: 40 })
  lead?: string
}

export class CloseStep {
  @Text({ what: 'which step', min: 1, max: 60 })
  step!: string

  @AnswerTable({ what: 'answers by fact; numbers may be text in bench notation' })
  answers!: Record<string, boolean | number | string>

  @One(() => DepartureFields, { what: 'going on although something does not hold', optional: true })
  departure?: DepartureFields
}

/** Answers so far; an empty table throws the draft away. */
export class KeepDraft {
  @Text({ what: 'which step', min: 1, max: 60 })
  step!: string

  @AnswerTable({ what: 'answers as typed' })
  answers!: Record<string, boolean | number | string>
}

export class TakeBack {
  @Text({ what: 'why the step is taken back', min: 3, max: 300 })
  reason!: string
}

export class LayOnTray {
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

export class OrderTray {
  @Texts({ what: 'ids of all parts in the row, in their new order', least: 1, most: 200 })
  ids!: string[]
}

export class ChangeTrayPart {
  @OneOf({ what: 'what happens to it', values: ['fit', 'unfit', 'leave-out', 'mark', 'remove'] })
  act!: 'fit' | 'unfit' | 'leave-out' | 'mark' | 'remove'

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
}

export class ChooseSchool {
  @Text({ what: 'school', min: 1, max: 40 })
  school!: string

  @Text({ what: 'choice', min: 1, max: 40 })
  choice!: string

  @Text({ what: 'why this job does it differently', optional: true, max: 300 })
  reason?: string
}

export class SetShopRules {
  @Flag({ what: 'a departure needs the lead' })
  departuresNeedLead!: boolean

  @Num({ what: 'labour per hour', min: 0, max: 100_000 })
  rate!: number

  @Num({ what: 'consumables of a usual job', min: 0, max: 1_000_000 })
  consumables!: number

  @Text({ what: 'currency', min: 1, max: 12 })
  currency!: string

  @Texts({ what: 'stands of the shop', least: 1, most: 40 })
  stands!: string[]
}

export class SetLikelihood {
  @Text({ what: 'finding', min: 1, max: 60 })
  finding!: string

  @Text({ what: 'cause', min: 1, max: 60 })
  cause!: string

  @Num({
    what: 'how often the finding goes with the cause; left out, as in the table',
    min: 0.005,
    max: 0.995,
    optional: true,
  })
  likelihood?: number

  @Text({ what: 'why', min: 3, max: 300 })
  reason!: string
}

export class OpenJob {
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

  @Text({ what: 'complaint', min: 3, max: 600 })
  complaint!: string

  @Text({ what: 'stand', optional: true, max: 40 })
  stand?: string
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
