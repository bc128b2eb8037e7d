import { Flag, Many, Num, One, OneOf, Texts, Whole } from '../fields/decorators.ts'
import { MeshFields } from './mesh-fields.ts'

export class SamplesFields {
  @Whole({ what: 'samples of crown angle', min: 21, max: 801 })
  rows!: number

  @Whole({ what: 'samples along the trace', min: 21, max: 401 })
  columns!: number
}

/** Crowning and compound, for both directions of the contact computation. */
class CrownFields {
  @One(() => MeshFields, { what: 'the gear pair, with addenda' })
  mesh!: MeshFields

  @Num({ what: 'lengthwise crowning at the ends', unit: 'mm', min: 0 })
  crownLengthMm!: number

  @Num({ what: 'profile crowning at the ends', unit: 'mm', min: 0 })
  crownProfileMm!: number

  @Num({ what: 'developed centre along the tooth, -1 toe to 1 heel' })
  centreLength!: number

  @Num({ what: 'developed centre up the tooth, -1 root to 1 top' })
  centreProfile!: number

  @Num({ what: 'thickness of the compound', unit: 'mm' })
  filmMm!: number
}

export class ToothContactFields extends CrownFields {
  @OneOf({ what: "flank; side times hand = 1 is the gear's concave one", values: [1, -1] })
  side!: 1 | -1

  @Num({ what: 'pinion from its place, outward positive', unit: 'mm' })
  pinionMm!: number

  @Num({ what: 'gear from its place, outward positive', unit: 'mm' })
  gearMm!: number

  @Num({ what: 'offset of the axes', unit: 'mm' })
  offsetMm!: number

  @Num({ what: 'shaft angle error, opening', unit: 'deg' })
  shaftAngleErrorDeg!: number

  @One(() => SamplesFields, { what: 'grid of the computation', optional: true })
  samples?: SamplesFields

  @Flag({ what: 'also return the patch on a grid', optional: true, default: false })
  raster?: boolean
}

export class PatchExtentsFields {
  @Num({ what: 'nearest to the toe', min: -1.5, max: 1.5 })
  lengthMin!: number

  @Num({ what: 'nearest to the heel', min: -1.5, max: 1.5 })
  lengthMax!: number

  @Num({ what: 'nearest to the root', min: -1.5, max: 1.5 })
  profileMin!: number

  @Num({ what: 'nearest to the top', min: -1.5, max: 1.5 })
  profileMax!: number
}

export class PatchPlaceFields {
  @Num({ what: 'along the tooth, -1 toe to 1 heel', min: -1, max: 1 })
  length!: number

  @Num({ what: 'up the tooth, -1 root to 1 top', min: -1, max: 1 })
  profile!: number

  @One(() => PatchExtentsFields, { what: 'outermost points of the patch', optional: true })
  extents?: PatchExtentsFields
}

export class PatchPairFields {
  @One(() => PatchPlaceFields, { what: 'patch on the drive flank' })
  drive!: PatchPlaceFields

  @One(() => PatchPlaceFields, { what: 'patch on the coast flank' })
  coast!: PatchPlaceFields
}

export class GaugedDepthFields {
  @OneOf({ what: 'part whose depth was measured', values: ['pinion', 'gear'] })
  part!: 'pinion' | 'gear'

  @Num({ what: 'how far it stands from right, outward positive', unit: 'mm', min: -5, max: 5 })
  valueMm!: number

  @Num({ what: 'its standard uncertainty, above 0', unit: 'mm', min: 0, max: 5 })
  uMm!: number
}

export class GaugedBacklashFields {
  @Num({ what: 'backlash at the outer pitch circle', unit: 'mm', min: 0, max: 10 })
  valueMm!: number

  @Num({ what: 'its standard uncertainty, above 0', unit: 'mm', min: 0, max: 5 })
  uMm!: number

  @Num({ what: 'what it is with both parts right', unit: 'mm', min: 0, max: 10 })
  targetMm!: number
}

export class EarlierPatchesFields extends PatchPairFields {
  @Num({ what: 'how much further out the pinion stood than now', unit: 'mm', min: -2, max: 2 })
  pinionMm!: number

  @Num({ what: 'how much further out the gear stood than now', unit: 'mm', min: -2, max: 2 })
  gearMm!: number
}

export class PatternReadFields extends CrownFields {
  @OneOf({ what: 'flank that drives', values: [1, -1], optional: true, default: 1 })
  driveSide?: 1 | -1

  @One(() => PatchPlaceFields, { what: 'the patch on the drive flank' })
  drive!: PatchPlaceFields

  @One(() => PatchPlaceFields, { what: 'the patch on the coast flank' })
  coast!: PatchPlaceFields

  @Many(() => PatchPairFields, { what: 'further places round the gear', most: 12, optional: true })
  otherPlaces?: PatchPairFields[]

  @One(() => PatchPairFields, { what: 'patches when the pair was known to be right', optional: true })
  reference?: PatchPairFields

  @Texts({ what: 'errors of the case to look for: offset, shaft-angle', most: 2, optional: true })
  also?: ('offset' | 'shaft-angle')[]

  @One(() => GaugedDepthFields, { what: 'what a depth gauge says of one part', optional: true })
  depth?: GaugedDepthFields

  @One(() => GaugedBacklashFields, { what: 'what the backlash is', optional: true })
  backlash?: GaugedBacklashFields

  @Many(() => EarlierPatchesFields, { what: 'earlier trials of this pair', most: 12, optional: true })
  earlier?: EarlierPatchesFields[]

  @OneOf({ what: 'pinion shim: 1 moves it outward, -1 inward', values: [1, -1], optional: true })
  pinionEffect?: 1 | -1

  @OneOf({ what: 'gear shim: 1 moves it outward, -1 inward', values: [1, -1], optional: true })
  gearEffect?: 1 | -1
}
