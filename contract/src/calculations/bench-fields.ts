import { Flag, Many, Num, Numbers, One, OneOf, Text, Whole } from '../fields/decorators.ts'
import { MeshFields } from './mesh-fields.ts'
import { ClosedWindowFields } from './shim-fields.ts'

/** Inputs of the calculations round the bench: runout, ride height, bearings, carrier, torque, leak test, ratio. */
export class RunoutFields {
  @Numbers({ what: 'readings at equal angles round one turn (mm)', least: 6, most: 720 })
  readingsMm!: number[]

  @Num({ what: 'largest allowed total indicated reading', unit: 'mm', optional: true })
  limitMm?: number

  @Num({ what: 'smallest step of the gauge', unit: 'mm', min: 0, optional: true, default: 0 })
  resolutionMm?: number

  @Num({ what: 'largest permissible error of the gauge', unit: 'mm', min: 0, optional: true, default: 0 })
  mpeMm?: number

  @Flag({ what: 'leave blips out of the judged reading', optional: true, default: false })
  leaveOutBlips?: boolean
}

export class RidePointFields {
  @Num({ what: 'pinion position, outward positive', unit: 'mm' })
  pinionMm!: number

  @Num({ what: 'how far out the gear rides', unit: 'mm' })
  rideMm!: number
}

export class RideHeightFields {
  @One(() => MeshFields, { what: 'the gear pair' })
  mesh!: MeshFields

  @Many(() => RidePointFields, { what: 'pinion positions and ride heights', least: 4, most: 200 })
  points!: RidePointFields[]
}

export class PreloadTrialFields {
  @Num({ what: 'stack of this build', unit: 'mm' })
  stackMm!: number

  @Num({ what: 'rolling torque, seal drag included', unit: 'Nm' })
  torqueNm!: number
}

export class PreloadFields {
  @Many(() => PreloadTrialFields, { what: 'builds with preload present', least: 1, most: 100 })
  trials!: PreloadTrialFields[]

  @Num({ what: 'drag of the seals alone', unit: 'Nm', min: 0 })
  sealNm!: number

  @One(() => ClosedWindowFields, { what: 'wanted rolling torque without seal drag (Nm)' })
  window!: ClosedWindowFields

  @Num({ what: 'slope of the sheet, for a single trial', unit: 'Nm/mm', optional: true })
  slopeNmPerMm?: number
}

export class CrushFields {
  @OneOf({ what: 'where the shims sit', values: ['cover', 'bearing'] })
  shimsAt!: 'cover' | 'bearing'

  @Num({ what: 'trial stack', unit: 'mm', min: 0 })
  trialMm!: number

  @Num({ what: 'gap between cover and case', unit: 'mm', min: 0, optional: true })
  gapMm?: number

  @Num({ what: 'float under the seated cover', unit: 'mm', min: 0, optional: true })
  floatMm?: number

  @Num({ what: 'wanted crush', unit: 'mm' })
  crushMm!: number
}

export class ThreadedCarrierFields {
  @One(() => MeshFields, { what: 'the gear pair' })
  mesh!: MeshFields

  @Num({ what: 'travel per turn', unit: 'mm' })
  leadMm!: number

  @Num({ what: 'present backlash at the outer pitch circle', unit: 'mm', min: 0 })
  backlashMm!: number

  @Num({ what: 'wanted backlash', unit: 'mm', min: 0 })
  targetMm!: number

  @OneOf({ what: 'the member that the carrier moves', values: ['pinion', 'gear'] })
  member!: 'pinion' | 'gear'

  @Whole({ what: 'notches at which it can be locked', min: 1, max: 360, optional: true })
  notches?: number
}

export class TorqueAdapterFields {
  @Num({ what: 'torque wanted at the fastener', unit: 'Nm' })
  targetNm!: number

  @Num({ what: 'centre of the drive to the middle of the grip', unit: 'mm' })
  wrenchLengthMm!: number

  @Num({ what: 'centre of the drive to the fastener', unit: 'mm' })
  offsetMm!: number

  @Num({
    what: 'adapter to wrench: 0 straight out, 90 square, 180 back',
    unit: 'deg',
    optional: true,
    default: 0,
  })
  angleDeg?: number

  @Num({ what: 'full scale of the wrench', unit: 'Nm', optional: true })
  wrenchMaxNm?: number
}

export class PositionFields {
  @Num({ what: 'place across' })
  x!: number

  @Num({ what: 'place along' })
  y!: number
}

export class TorqueOrderFields {
  @Whole({ what: 'fasteners, evenly on a circle', min: 1, max: 200, optional: true })
  count?: number

  @Many(() => PositionFields, { what: 'places of the fasteners', most: 200, optional: true })
  positions?: PositionFields[]

  @Numbers({ what: 'fractions of the final torque, rising to 1', least: 1, most: 20 })
  stages!: number[]
}

export class LockAlignmentFields {
  @Whole({ what: 'tabs of the washer, or holes of the nut', min: 1, max: 360 })
  tabs!: number

  @Whole({ what: 'slots', min: 1, max: 360 })
  slots!: number

  @Whole({ what: 'tabs that must meet a slot', min: 1, max: 360 })
  required!: number

  @Num({ what: 'how far tab 0 stands behind slot 0', unit: 'deg', optional: true })
  phaseDeg?: number

  @Num({
    what: 'or: how far the nearest tab stands before its slot, by a straight ruler',
    unit: 'mm',
    min: 0,
    optional: true,
  })
  shortMm?: number

  @Num({ what: 'radius at which the ruler was held', unit: 'mm', optional: true })
  radiusMm?: number

  @OneOf({
    what: 'hand of the thread, for the drawing',
    values: ['right', 'left'],
    optional: true,
    default: 'right',
  })
  hand?: 'right' | 'left'

  @Num({ what: 'how far off still counts', unit: 'deg', min: 0, optional: true, default: 0 })
  toleranceDeg?: number
}

export class LeakReadingFields {
  @Num({ what: 'time', unit: 's' })
  s!: number

  @Num({ what: 'gauge pressure', unit: 'kPa' })
  gaugeKpa!: number

  @Num({ what: 'temperature of the case', unit: 'C', optional: true })
  tempC?: number
}

export class LeakDropFields {
  @Num({ what: 'not more than; 0 is no drop', unit: 'kPa', min: 0 })
  kpa!: number

  @Num({ what: 'in so many minutes', unit: 'min', min: 0 })
  minutes!: number

  @Num({
    what: 'step of the needle that is meant; that of the gauge where left out',
    unit: 'kPa',
    min: 0,
    optional: true,
  })
  needleKpa?: number
}

export class LeakTestFields {
  @Many(() => LeakReadingFields, { what: 'readings in rising time', least: 2, most: 20_000 })
  readings!: LeakReadingFields[]

  @Num({ what: 'pressure of the air', unit: 'kPa' })
  atmosphereKpa!: number

  @Num({ what: 'free volume of the case', unit: 'ml' })
  volumeMl!: number

  @Num({ what: 'pressure of the air at the end', unit: 'kPa', optional: true })
  atmosphereEndKpa?: number

  @Num({ what: 'allowed leak rate, standard; this or the drop, or both', unit: 'ml/min', optional: true })
  allowedMlPerMin?: number

  @One(() => LeakDropFields, { what: 'allowed drop, as a manual prints it', optional: true })
  allowedDrop?: LeakDropFields

  @Num({ what: 'smallest step of the gauge', unit: 'kPa' })
  gaugeResolutionKpa!: number

  @Flag({ what: 'judge only from where the pressure has settled', optional: true, default: false })
  skipSettling?: boolean
}

export class GearPairFields {
  @Text({ what: 'name of the pair', min: 1, max: 60 })
  id!: string

  @Whole({ what: 'teeth of the driver', min: 3, max: 300 })
  driver!: number

  @Whole({ what: 'teeth of the driven gear', min: 3, max: 300 })
  driven!: number
}

export class RatioFields {
  @Num({ what: 'ratio by the stamp', optional: true })
  overall?: number

  @Many(() => GearPairFields, { what: 'pairs that the upper may have', most: 50, optional: true })
  upperPairs?: GearPairFields[]

  @Many(() => GearPairFields, { what: 'pairs that the lower may have', least: 1, most: 50 })
  lowerPairs!: GearPairFields[]

  @Num({ what: 'turns counted at the input', optional: true })
  inputTurns?: number

  @Num({ what: 'turns counted at the output', optional: true })
  outputTurns?: number

  @Num({ what: 'largest error of each count, in turns', min: 0, optional: true, default: 0.05 })
  countErrorTurns?: number
}
