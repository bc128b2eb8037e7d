import { Num, OneOf, One, Whole } from '../fields/decorators.ts'

export class MeshFields {
  @Whole({ what: 'teeth of the pinion', min: 3, max: 300 })
  pinionTeeth!: number

  @Whole({ what: 'teeth of the gear', min: 3, max: 300 })
  gearTeeth!: number

  @Num({ what: 'angle between the axes', unit: 'deg', optional: true, default: 90 })
  shaftAngleDeg?: number

  @Num({ what: 'outer transverse module', unit: 'mm' })
  moduleMm!: number

  @Num({ what: 'face width', unit: 'mm' })
  faceWidthMm!: number

  @Num({ what: 'normal pressure angle', unit: 'deg', optional: true, default: 20 })
  pressureAngleDeg?: number

  @Num({ what: 'spiral angle at mid face', unit: 'deg', optional: true, default: 0 })
  spiralAngleDeg?: number

  @Num({ what: 'cutter radius', unit: 'mm', optional: true })
  cutterRadiusMm?: number

  @OneOf({ what: 'hand of the spiral', values: [1, -1], optional: true, default: 1 })
  hand?: 1 | -1

  @Num({ what: 'addendum of the gear', unit: 'mm', optional: true })
  gearAddendumMm?: number

  @Num({ what: 'addendum of the pinion', unit: 'mm', optional: true })
  pinionAddendumMm?: number
}

export class MeshGeometryInput {
  @One(() => MeshFields, { what: 'the gear pair' })
  mesh!: MeshFields
}

export class BacklashTransferInput extends MeshGeometryInput {
  @Num({ what: 'what the indicator showed', unit: 'mm', min: 0 })
  readingMm!: number

  @Num({ what: 'radius of the touched point from the turning axis', unit: 'mm' })
  radiusMm!: number

  @OneOf({ what: 'the member that turns; the other is held', values: ['pinion', 'gear'] })
  member!: 'pinion' | 'gear'

  @Num({ what: 'angle of the plunger to the motion', unit: 'deg', optional: true, default: 0 })
  indicatorAngleDeg?: number
}
