import { Flag, Many, Num, One, OneOf, RowId, Text, Texts, Whole } from '../fields/decorators.ts'
import { NumberTable } from '../fields/tables.ts'
import { Range } from './figure-fields.ts'

/** What every row of the gear train has. */
class Row {
  @RowId({ what: 'id, for good' })
  id!: string

  @Text({ what: 'what it is called', min: 1, max: 80 })
  label!: string
}

export class AxisRow extends Row {
  @OneOf({ what: 'how it lies on the drawing', values: ['vertical', 'horizontal'] })
  line!: 'vertical' | 'horizontal'

  @Num({ what: 'one end on the drawing, from the apex', unit: 'mm', min: -3000, max: 3000, optional: true })
  fromMm?: number

  @Num({ what: 'other end on the drawing', unit: 'mm', min: -3000, max: 3000, optional: true })
  toMm?: number

  @Num({ what: 'radius of the shaft', unit: 'mm', min: 1, max: 300, optional: true })
  radiusMm?: number

  @Num({ what: 'shift aside of the apex', unit: 'mm', min: -3000, max: 3000, optional: true })
  offsetMm?: number

  @RowId({ what: 'the shaft in whose tube it runs', optional: true })
  insideOf?: string
}

export class GearRow extends Row {
  @Whole({ what: 'teeth, counted', min: 3, max: 300, optional: true })
  teeth?: number

  @RowId({ what: 'its shaft' })
  axis!: string

  @OneOf({ what: 'side of the apex: 1 up or aft, -1 down or forward', values: [1, -1] })
  side!: 1 | -1

  @Num({ what: 'outside diameter over the heel tips', unit: 'mm', min: 5, max: 1000, optional: true })
  outsideMm?: number

  @Num({ what: 'axial runout of its face at most', unit: 'mm', min: 0.001, max: 2, optional: true })
  faceTirMm?: number
}

/** A geometry as a maker's drawing gives it. */
export class DrawnMesh {
  @Whole({ what: 'teeth of the pinion', min: 3, max: 300 })
  pinionTeeth!: number

  @Whole({ what: 'teeth of the gear', min: 3, max: 300 })
  gearTeeth!: number

  @Num({ what: 'angle between the shafts', unit: 'deg', min: 1, max: 179, optional: true })
  shaftAngleDeg?: number

  @Num({ what: 'outer transverse module', unit: 'mm', min: 0.1, max: 50 })
  moduleMm!: number

  @Num({ what: 'face width', unit: 'mm', min: 0.5, max: 300 })
  faceWidthMm!: number

  @Num({ what: 'normal pressure angle', unit: 'deg', min: 5, max: 44, optional: true })
  pressureAngleDeg?: number

  @Num({ what: 'spiral angle at mid face', unit: 'deg', min: -59, max: 59, optional: true })
  spiralAngleDeg?: number

  @Num({ what: 'radius of the cutter', unit: 'mm', min: 1, max: 1000, optional: true })
  cutterRadiusMm?: number

  @OneOf({ what: 'hand of the spiral', values: [1, -1], optional: true })
  hand?: 1 | -1

  @Num({ what: 'addendum of the gear', unit: 'mm', min: 0, max: 100, optional: true })
  gearAddendumMm?: number

  @Num({ what: 'addendum of the pinion', unit: 'mm', min: 0, max: 100, optional: true })
  pinionAddendumMm?: number
}

export class MeshRow extends Row {
  @RowId({ what: 'the pinion' })
  pinion!: string

  @RowId({ what: 'the gear' })
  gear!: string

  @One(() => DrawnMesh, { what: 'its geometry, where a drawing gives it', optional: true })
  mesh?: DrawnMesh

  @OneOf({ what: 'form of the teeth', values: ['spiral', 'straight'], optional: true })
  form?: 'spiral' | 'straight'

  @Num({ what: 'face width', unit: 'mm', min: 0.5, max: 300, optional: true })
  faceWidthMm?: number

  @Num({ what: 'spiral angle at mid face', unit: 'deg', min: 0, max: 60, optional: true })
  spiralAngleDeg?: number

  @Num({ what: 'normal pressure angle', unit: 'deg', min: 10, max: 40, optional: true })
  pressureAngleDeg?: number

  @Num({ what: 'angle between the shafts', unit: 'deg', min: 1, max: 179, optional: true })
  shaftAngleDeg?: number

  @OneOf({ what: "hand of the pinion's spiral", values: ['left', 'right'], optional: true })
  pinionHand?: 'left' | 'right'

  @OneOf({
    what: 'way the pinion turns as the drive goes ahead, seen from its shaft',
    values: ['clockwise', 'anticlockwise'],
    optional: true,
  })
  pinionTurns?: 'clockwise' | 'anticlockwise'

  @OneOf({
    what: 'flank of the gear that is pushed as the drive goes ahead, where somebody has seen it',
    values: ['concave', 'convex'],
    optional: true,
  })
  pushed?: 'concave' | 'convex'
}

/** Where along its shaft something sits: nudged by hand, or derived from its side and its turn. */
class AlongShaft extends Row {
  @RowId({ what: 'its shaft' })
  axis!: string

  @Num({ what: 'place on the drawing, from the apex', unit: 'mm', min: -3000, max: 3000, optional: true })
  atMm?: number

  @OneOf({ what: 'side of the apex', values: [1, -1], optional: true })
  side?: 1 | -1

  @Num({ what: 'turn outward from the gear', min: 0, max: 1000, optional: true })
  order?: number
}

export class AdjusterRow extends AlongShaft {
  @OneOf({ what: 'kind', values: ['shim', 'threaded'] })
  kind!: 'shim' | 'threaded'

  @RowId({ what: 'the gear that it moves', optional: true })
  moves?: string

  @OneOf({
    what: 'a thicker stack moves its gear: 1 away from the mesh, -1 into it, 0 not known',
    values: [1, -1, 0],
    optional: true,
  })
  effect?: 1 | -1 | 0

  @Num({ what: 'thinnest stack', unit: 'mm', min: 0, max: 100, optional: true })
  minMm?: number

  @Num({ what: 'thickest stack', unit: 'mm', min: 0, max: 100, optional: true })
  maxMm?: number

  @Whole({ what: 'pieces at most', min: 0, max: 8, optional: true })
  maxPieces?: number

  @Num({ what: 'stack to begin with', unit: 'mm', min: 0, max: 100, optional: true })
  startMm?: number

  @OneOf({
    what: 'how it is found',
    values: ['readings', 'case-and-gear', 'crush', 'preload'],
    optional: true,
  })
  setBy?: 'readings' | 'case-and-gear' | 'crush' | 'preload'

  @Num({ what: 'travel for a turn of a threaded carrier', unit: 'mm', min: 0.1, max: 20, optional: true })
  leadMm?: number

  @Whole({ what: 'notches round a threaded carrier', min: 1, max: 200, optional: true })
  notches?: number

  @NumberTable({ what: "the manual's rules: change of a measure for each mm of this stack", optional: true })
  rules?: Record<string, number>
}

export class BearingSetting {
  @OneOf({ what: 'set by', values: ['rolling-torque', 'crush'] })
  kind!: 'rolling-torque' | 'crush'

  @One(() => Range, { what: 'rolling torque of new bearings, Nm', optional: true })
  newNm?: Range

  @One(() => Range, { what: 'rolling torque of bearings that have run, Nm', optional: true })
  runInNm?: Range

  @Num({ what: 'crush', unit: 'mm', min: 0, max: 1, optional: true })
  crushMm?: number

  @Num({ what: 'what the crush may differ by', unit: 'mm', min: 0.001, max: 1, optional: true })
  toleranceMm?: number

  @RowId({ what: 'the stack that sets it', optional: true })
  by?: string

  @Flag({ what: 'its nut crushes a sleeve', optional: true })
  sleeve?: boolean

  @Num({ what: 'change of the torque for 1 mm of its stack, Nm', min: -200, max: 200, optional: true })
  nmPerMm?: number

  @OneOf({ what: 'where its shims sit', values: ['bearing', 'cover'], optional: true })
  shimsAt?: 'bearing' | 'cover'
}

export class BearingRow extends AlongShaft {
  @OneOf({ what: 'kind', values: ['taper', 'ball', 'needle', 'thrust'] })
  kind!: 'taper' | 'ball' | 'needle' | 'thrust'

  @One(() => BearingSetting, { what: 'how it is set', optional: true })
  setting?: BearingSetting
}

export class SealRow extends AlongShaft {}

export class Pulley {
  @RowId({ what: 'its shaft' })
  axis!: string

  @Num({ what: 'place on the drawing', unit: 'mm', min: -3000, max: 3000 })
  atMm!: number

  @Num({ what: 'radius', unit: 'mm', min: 1, max: 1000 })
  radiusMm!: number
}

export class BeltRow {
  @RowId({ what: 'id, for good' })
  id!: string

  @Many(() => Pulley, { what: 'its pulleys', most: 8 })
  pulleys!: Pulley[]

  @Num({ what: 'width', unit: 'mm', min: 1, max: 500 })
  widthMm!: number
}

export class DepthHow {
  @OneOf({ what: 'method', values: ['master-drop', 'arbor', 'feeler-block'], optional: true })
  method?: 'master-drop' | 'arbor' | 'feeler-block'

  @Num({ what: 'length of the master', unit: 'mm', min: 0, max: 500, optional: true })
  masterMm?: number

  @Flag({ what: 'the plunger goes further out than on the master', optional: true })
  extends?: boolean

  @Flag({ what: 'read to the far side of the arbor', optional: true })
  farSide?: boolean

  @Num({ what: 'diameter of the arbor', unit: 'mm', min: 0, max: 500, optional: true })
  arborDiameterMm?: number

  @Num({ what: 'clearance at the nominal depth', unit: 'mm', min: 0, max: 50, optional: true })
  nominalClearanceMm?: number

  @Num({ what: 'nominal depth', unit: 'mm', min: 0, max: 500, optional: true })
  nominalDepthMm?: number
}

export class MeasureRow extends Row {
  @OneOf({ what: 'kind', values: ['depth', 'backlash', 'end-play'] })
  kind!: 'depth' | 'backlash' | 'end-play'

  @RowId({ what: 'of a depth: the gear', optional: true })
  gear?: string

  @RowId({ what: 'of a backlash: the pair', optional: true })
  mesh?: string

  @RowId({ what: 'of an end play: the shaft', optional: true })
  axis?: string

  @OneOf({
    what: 'of a depth: the manual prints it, or it is found for each pair',
    values: ['printed', 'of-the-pair'],
    optional: true,
  })
  nominal?: 'printed' | 'of-the-pair'

  @One(() => DepthHow, { what: 'of a depth: how it is measured', optional: true })
  how?: DepthHow

  @One(() => Range, { what: 'window, mm', optional: true })
  window?: Range

  @Num({ what: 'target', unit: 'mm', min: -1000, max: 1000, optional: true })
  target?: number

  @Whole({ what: 'readings of a set', min: 1, max: 20, optional: true })
  readings?: number

  @Texts({ what: 'what has to be true before it counts', most: 12, long: 200, optional: true })
  before?: string[]

  @OneOf({ what: 'of a backlash: what is rocked', values: ['pinion', 'gear'], optional: true })
  member?: 'pinion' | 'gear'

  @Num({ what: 'of a backlash: radius at which it is read', unit: 'mm', min: 1, max: 500, optional: true })
  radiusMm?: number

  @Text({ what: 'of a backlash: what is held, and how it is loaded', max: 400, optional: true })
  hold?: string

  @OneOf({
    what: 'of a backlash: the held gear is pushed onto its own bearing',
    values: ['none', 'outward'],
    optional: true,
  })
  load?: 'none' | 'outward'
}

export class RunoutRow {
  @RowId({ what: 'id, for good', optional: true })
  id?: string

  @Text({ what: 'zone of a shaft', min: 1, max: 80 })
  zone!: string

  @Num({ what: 'total runout at most', unit: 'mm', min: 0, max: 5, optional: true })
  tirMm?: number
}
