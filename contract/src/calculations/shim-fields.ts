import { refuse } from '@moray/core/checks/input-error'
import type { PieceCut, ShimSolveInput } from '@moray/core/setting/shim-problem'
import { Flag, Many, Num, Numbers, One, OneOf, Text, Whole } from '../fields/decorators.ts'
import { NumberTable } from '../fields/tables.ts'

export class ShimLocationFields {
  @Text({ what: 'name of the stack', min: 1, max: 60 })
  id!: string

  @Num({ what: 'thickness with which the quantities were measured', unit: 'mm' })
  currentMm!: number

  @Num({ what: 'smallest stack', unit: 'mm' })
  minMm!: number

  @Num({ what: 'largest stack', unit: 'mm' })
  maxMm!: number

  @Whole({ what: 'most pieces in the stack', min: 0, max: 8 })
  maxPieces!: number

  @Flag({ what: 'leave this stack as it is', optional: true, default: false })
  fixed?: boolean

  @Num({
    what: 'a carrier in its thread instead of a stack: moved in whole steps of this, without pieces',
    unit: 'mm',
    optional: true,
  })
  stepMm?: number
}

export class ClosedWindowFields {
  @Num({ what: 'smallest allowed value' })
  min!: number

  @Num({ what: 'largest allowed value' })
  max!: number
}

export class ShimQuantityFields {
  @Text({ what: 'name of the quantity', min: 1, max: 60 })
  id!: string

  @Num({ what: 'measured value' })
  measured!: number

  @Num({ what: 'standard uncertainty of the measured value' })
  u!: number

  @One(() => ClosedWindowFields, { what: 'where the quantity must end' })
  window!: ClosedWindowFields

  @Num({ what: 'where it should best end' })
  target!: number

  @NumberTable({ what: 'change of the quantity per mm of each stack' })
  sensitivity!: Record<string, number>

  @Num({ what: 'relative uncertainty of these sensitivities', optional: true })
  relU?: number

  @NumberTable({ what: 'relative uncertainty for single stacks', optional: true })
  relUByStack?: Record<string, number>
}

export class PieceCutFields {
  @OneOf({ what: 'how it is made thinner', values: ['laminated', 'ground'] })
  kind!: 'laminated' | 'ground'

  @Num({ what: 'thickness of one layer, of a laminated piece', unit: 'mm', optional: true })
  layerMm?: number

  @Num({ what: 'step of the grinding, of a ground piece', unit: 'mm', optional: true })
  stepMm?: number

  @Num({ what: 'thinnest that may be left', unit: 'mm' })
  minMm!: number
}

export class ShimPieceFields {
  @Text({ what: 'name of the drawer line', min: 1, max: 60 })
  id!: string

  @Num({ what: 'measured thickness of a piece', unit: 'mm' })
  thicknessMm!: number

  @Whole({ what: 'pieces in the drawer', min: 0, max: 10_000 })
  count!: number

  @One(() => PieceCutFields, { what: 'for pieces that are peeled or ground to size', optional: true })
  cut?: PieceCutFields
}

export class ShimSolveFields {
  @Many(() => ShimLocationFields, { what: 'the stacks', least: 1, most: 8 })
  locations!: ShimLocationFields[]

  @Many(() => ShimQuantityFields, { what: 'what must end in a window', least: 1, most: 16 })
  quantities!: ShimQuantityFields[]

  @Many(() => ShimPieceFields, { what: 'the drawer', most: 400 })
  pieces!: ShimPieceFields[]

  @Num({ what: 'relative uncertainty of every sensitivity', optional: true, default: 0 })
  sensitivityRelU?: number

  @Whole({ what: 'plans wanted', min: 1, max: 10, optional: true, default: 3 })
  plans?: number

  @Numbers({ what: 'thicknesses that can be ordered (mm)', most: 60, optional: true })
  orderSeriesMm?: number[]

  @Whole({
    what: 'stop after so many search nodes',
    min: 1,
    max: 50_000_000,
    optional: true,
    default: 5_000_000,
  })
  maxNodes?: number
}

/** The solver's input: a cut has its layers or its steps, whichever its kind needs. @throws InputError when they are missing */
export function shimSolveInput(fields: ShimSolveFields): ShimSolveInput {
  return {
    ...fields,
    pieces: fields.pieces.map(({ cut, ...piece }, i) =>
      cut ? { ...piece, cut: pieceCut(cut, `pieces[${i}].cut`) } : piece,
    ),
  }
}

function pieceCut({ kind, layerMm, stepMm, minMm }: PieceCutFields, path: string): PieceCut {
  if (kind === 'laminated')
    return {
      kind,
      minMm,
      layerMm: layerMm ?? refuse(`${path}.layerMm`, 'is missing; a laminated piece has layers'),
    }
  return { kind, minMm, stepMm: stepMm ?? refuse(`${path}.stepMm`, 'is missing; a ground piece has steps') }
}
