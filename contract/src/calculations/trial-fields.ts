import { TRAITS, type Trait } from '@moray/core/inspection/fault-table'
import { Many, Num, One, Text, Texts } from '../fields/decorators.ts'
import { NumberTable } from '../fields/tables.ts'
import { ClosedWindowFields } from './shim-fields.ts'

export class LearningQuantityFields {
  @Text({ what: 'name of the quantity', min: 1, max: 60 })
  id!: string

  @NumberTable({ what: 'change per mm of each stack, before any trial' })
  sensitivity!: Record<string, number>

  @Num({ what: 'relative standard deviation of each of these' })
  relSd!: number

  @Num({ what: 'standard uncertainty of a set of readings' })
  u!: number

  @One(() => ClosedWindowFields, { what: 'where the quantity must end', optional: true })
  window?: ClosedWindowFields
}

export class BuiltTrialFields {
  @NumberTable({ what: 'thickness of every stack (mm)' })
  stacks!: Record<string, number>

  @NumberTable({ what: 'what was read, by quantity' })
  readings!: Record<string, number>
}

export class TrialUpdateFields {
  @Texts({ what: 'names of the stacks', least: 1, most: 8 })
  locations!: string[]

  @Many(() => LearningQuantityFields, { what: 'what is measured', least: 1, most: 16 })
  quantities!: LearningQuantityFields[]

  @Many(() => BuiltTrialFields, { what: 'builds in order', least: 1, most: 200 })
  trials!: BuiltTrialFields[]

  @NumberTable({ what: 'stacks of the next build (mm)', optional: true })
  next?: Record<string, number>
}

export class FaultCaseFields {
  @Text({ what: 'what it turned out to be; id from the fault table', min: 1, max: 60 })
  cause!: string

  @Texts({ what: 'what was found', most: 40 })
  findings!: string[]

  @Texts({ what: 'what was looked for and was not there', most: 40, optional: true })
  absent?: string[]
}

export class LikelihoodFields {
  @Text({ what: 'finding', min: 1, max: 60 })
  finding!: string

  @Text({ what: 'cause', min: 1, max: 60 })
  cause!: string

  @Num({ what: 'how often the finding goes with the cause', min: 0.005, max: 0.995 })
  likelihood!: number
}

export class FaultRankFields {
  @Texts({ what: 'what was found; ids from the fault table', most: 40 })
  findings!: string[]

  @Texts({ what: 'what was looked for and is not there', most: 40, optional: true })
  absent?: string[]

  @Many(() => FaultCaseFields, {
    what: "the shop's own faults, followed to their end",
    most: 2000,
    optional: true,
  })
  history?: FaultCaseFields[]

  @Many(() => LikelihoodFields, {
    what: 'likelihoods that the shop has set itself',
    most: 200,
    optional: true,
  })
  edits?: LikelihoodFields[]

  @Texts({ what: 'what the drive has', most: 20, values: [...TRAITS], optional: true })
  drive?: Trait[]
}
