import { One, OneOf, Text, Whole } from '../fields/decorators.ts'
import { LENGTH_UNITS, type LengthUnit } from './reading-units.ts'

/** Pieces that are made thinner before they go in. */
export class LineCut {
  @OneOf({ what: 'how they are made thinner', values: ['laminated', 'ground'] })
  kind!: 'laminated' | 'ground'

  @Text({
    what: 'one layer of a laminated piece, or the step of the grinding, in bench notation',
    min: 1,
    max: 60,
  })
  step!: string

  @Text({ what: 'thinnest that may be left, in bench notation', min: 1, max: 60 })
  least!: string
}

export class AddLine {
  @Text({ what: 'measured thickness in bench notation', min: 1, max: 60 })
  text!: string

  @OneOf({ what: 'unit of a bare number', values: LENGTH_UNITS })
  unit!: LengthUnit

  @Whole({ what: 'pieces', min: 0, max: 999 })
  count!: number

  @Text({ what: 'where it lies, or how it is marked', optional: true, max: 80 })
  place?: string

  @One(() => LineCut, { what: 'for pieces that are peeled or ground to size', optional: true })
  cut?: LineCut
}

export class AddPieces {
  @Whole({ what: 'pieces put into the drawer', min: 1, max: 999 })
  pieces!: number

  @Text({ what: 'where they come from', optional: true, max: 300 })
  reason?: string
}

export class CountLine {
  @Whole({ what: 'pieces counted in the drawer', min: 0, max: 999 })
  count!: number

  @Text({ what: 'why the count differs', min: 3, max: 300 })
  reason!: string
}

export class CorrectThickness {
  @Text({ what: 'measured thickness in bench notation', min: 1, max: 60 })
  text!: string

  @OneOf({ what: 'unit of a bare number', values: LENGTH_UNITS })
  unit!: LengthUnit

  @Text({ what: 'why the old thickness was wrong', min: 3, max: 300 })
  reason!: string
}
