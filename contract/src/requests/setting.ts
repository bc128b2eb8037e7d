import { FLANKS, type Flank } from '@moray/core/gears/flank'
import { Flag, Many, Num, Numbers, OneOf, Text, Whole } from '../fields/decorators.ts'
import { LENGTH_UNITS, type LengthUnit } from './reading-units.ts'

/** One piece of a stack as found: typed in bench notation, or taken to be like a line of the drawer. */
export class FoundPiece {
  @Text({ what: 'thickness in bench notation', optional: true, max: 60 })
  text?: string

  @Text({ what: 'drawer line that the piece is like', optional: true, max: 40 })
  lineId?: string
}

export class EnterStack {
  @Text({ what: 'which stack', min: 1, max: 60 })
  location!: string

  @Many(() => FoundPiece, { what: 'the pieces found', most: 12 })
  pieces!: FoundPiece[]

  @OneOf({ what: 'unit of a bare number', values: LENGTH_UNITS })
  unit!: LengthUnit

  @Flag({ what: 'the value was questioned and is meant', optional: true })
  confirmed?: boolean

  @Text({ what: 'why an earlier entry is replaced', optional: true, max: 300 })
  reason?: string
}

export class TrialPiece {
  @Text({ what: 'id of the piece', min: 1, max: 60 })
  id!: string

  @Num({ what: 'thickness that it is peeled or ground to', unit: 'mm', min: 0, max: 50, optional: true })
  toMm?: number
}

/** One stack of a trial: ids of pieces, `d…` from the drawer, `c…` out of the case. */
export class TrialStack {
  @Text({ what: 'which stack', min: 1, max: 60 })
  location!: string

  @Many(() => TrialPiece, { what: 'the pieces; none for a carrier', most: 12 })
  pieces!: TrialPiece[]

  @Whole({
    what: 'a threaded carrier instead: steps from where it stands, in when positive, out when negative',
    min: -9999,
    max: 9999,
    optional: true,
  })
  steps?: number
}

export class TakePlan {
  @Whole({ what: 'build that the plan starts from', min: 0, max: 999 })
  fromBuild!: number

  @Many(() => TrialStack, { what: 'stacks to build in; one that is left out keeps what is in it', most: 8 })
  stacks!: TrialStack[]
}

export class MarkPattern {
  @Whole({ what: 'build whose pattern was read', min: 0, max: 999 })
  build!: number

  @Text({ what: 'which pair of gears', min: 1, max: 60 })
  mesh!: string

  @OneOf({ what: 'which flank', values: FLANKS })
  flank!: Flank

  @Whole({ what: 'place round the gear', min: 1, max: 4 })
  place!: number

  @Numbers({
    what: 'line round the patch: along from toe −1 to heel 1, up from root −1 to top 1, in turn',
    most: 120,
    least: 6,
  })
  outline!: number[]

  @Text({ what: 'note', optional: true, max: 300 })
  note?: string

  @Text({ what: 'why an earlier mark of this flank and place is replaced', optional: true, max: 300 })
  reason?: string
}

export class WithdrawAcceptance {
  @Whole({ what: 'build whose acceptance is withdrawn', min: 0, max: 999 })
  build!: number

  @Text({ what: 'why it is withdrawn', min: 3, max: 300 })
  reason!: string
}

export class AcceptBuild {
  @Whole({ what: 'build that is accepted', min: 0, max: 999 })
  build!: number

  @Text({ what: 'why it is accepted although something is not in its window', optional: true, max: 300 })
  reason?: string
}
