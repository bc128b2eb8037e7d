import { Flag, One, Text } from '../fields/decorators.ts'
import { AnswerTable } from '../fields/tables.ts'

/** Going on although something does not hold. Where the shop wants its lead to agree, the lead has said so before, in a request of his own. */
export class DepartureFields {
  @Text({ what: 'the reason for going on', min: 3, max: 300 })
  reason!: string

  @Flag({ what: 'the work of the step was left undone', optional: true })
  undone?: boolean
}

export class CloseStep {
  @Text({ what: 'which step', min: 1, max: 60 })
  step!: string

  @AnswerTable({ what: 'answers by fact; numbers may be text in bench notation' })
  answers!: Record<string, boolean | number | string>

  @One(() => DepartureFields, { what: 'going on although something does not hold', optional: true })
  departure?: DepartureFields
}

/** Answers of a closed step, put right: what stands on them is judged anew. */
export class CorrectStep {
  @Text({ what: 'why the answers are corrected', min: 3, max: 300 })
  reason!: string

  @AnswerTable({ what: 'all answers of the step, the corrected ones among them' })
  answers!: Record<string, boolean | number | string>

  @One(() => DepartureFields, { what: 'going on although something does not hold', optional: true })
  departure?: DepartureFields
}

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

/** What a closed step did was undone since: the work, not what was written of it. */
export class UndoStep {
  @Text({ what: 'why it was undone', min: 3, max: 300 })
  reason!: string
}

/** A line of what is checked before the unit leaves may stay as it is, by name and with a reason. */
export class AcceptLine {
  @Text({ what: 'the line, as it is listed', min: 3, max: 140 })
  line!: string

  @Text({ what: 'why it may stay so', min: 3, max: 300 })
  reason!: string
}

/** The lead agrees to a departure; only his own request counts. */
export class AgreeToDeparture {
  @Text({ what: 'which step', min: 1, max: 60 })
  step!: string

  @Text({ what: 'the reason why it may go on', min: 3, max: 300 })
  reason!: string
}

/** The changes that a newer Moray made to the route of an open job were looked at. */
export class SeeRoute {
  @Text({ what: 'hash of the route that was looked at', min: 16, max: 16 })
  hash!: string
}
