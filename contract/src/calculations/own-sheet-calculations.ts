import { floatStack } from '@moray/core/bearings/float-stack'
import { gearFromMeasures } from '@moray/core/gears/gear-from-measures'
import { sensitivityUncertainty } from '@moray/core/gears/sensitivity-uncertainty'
import { pumpVolume } from '@moray/core/leak/pump-volume'
import { swing } from '@moray/core/measuring/swing'
import { reach } from '@moray/core/route/reach'
import { serviceDue } from '@moray/core/service/service-due'
import { clampLoad } from '@moray/core/torque/clamp-load'
import { Flag, Many, Num, One, OneOf, Text, Texts, Whole } from '../fields/decorators.ts'
import { calculationOf, type Calculation } from './calculation.ts'
import { MeshFields } from './mesh-fields.ts'

/** What a drive of one's own is made of: teeth and diameters into a gear, its uncertainty, what comes off, when it is due. */
export class GearFromMeasuresFields {
  @Whole({ what: 'teeth of the pinion, counted', min: 3, max: 300 })
  pinionTeeth!: number

  @Whole({ what: 'teeth of the gear, counted', min: 3, max: 300 })
  gearTeeth!: number

  @Num({ what: 'angle between the axes', unit: 'deg', optional: true, default: 90 })
  shaftAngleDeg?: number

  @OneOf({ what: 'form of the teeth', values: ['spiral', 'straight'] })
  form!: 'spiral' | 'straight'

  @Num({ what: 'outside diameter of the gear over the heel tips', unit: 'mm', optional: true })
  gearOutsideMm?: number

  @Num({ what: 'outside diameter of the pinion over the heel tips', unit: 'mm', optional: true })
  pinionOutsideMm?: number

  @Num({ what: 'standard uncertainty of a diameter', unit: 'mm', optional: true, default: 0.1 })
  uOutsideMm?: number
}

export class SensitivityUFields {
  @Num({ what: 'of the pressure angle', unit: 'deg', min: 0, optional: true, default: 0 })
  pressureAngleDeg?: number

  @Num({ what: 'of the spiral angle', unit: 'deg', min: 0, optional: true, default: 0 })
  spiralAngleDeg?: number

  @Num({ what: 'of the face width', unit: 'mm', min: 0, optional: true, default: 0 })
  faceWidthMm?: number

  @Num({ what: 'of the module, relative', min: 0, optional: true, default: 0 })
  moduleRel?: number

  @Num({ what: 'of the radius at which it is read, relative', min: 0, optional: true, default: 0 })
  radiusRel?: number

  @Flag({ what: 'read at an arm and not at the pitch circle' })
  atArm!: boolean
}

export class SensitivityUncertaintyFields {
  @One(() => MeshFields, { what: 'the gear pair' })
  mesh!: MeshFields

  @One(() => SensitivityUFields, { what: 'standard uncertainties of what was counted, measured or assumed' })
  u!: SensitivityUFields
}

export class FloatStackFields {
  @Num({ what: 'stack with which the float was read', unit: 'mm', min: 0 })
  trialMm!: number

  @Num({ what: 'float', unit: 'mm', min: 0 })
  floatMm!: number

  @Num({ what: 'clearance that is left', unit: 'mm', min: 0, optional: true, default: 0 })
  clearanceMm?: number

  @Num({ what: 'preload that shall be there', unit: 'mm', min: 0, optional: true, default: 0 })
  preloadMm?: number
}

export class ClampLoadFields {
  @Num({ what: 'torque', unit: 'Nm' })
  torqueNm!: number

  @Num({ what: 'nominal diameter of the thread', unit: 'mm' })
  diameterMm!: number

  @Num({ what: 'nut factor of the treatment that the torque is given for' })
  kFrom!: number

  @Num({ what: 'nut factor of the treatment that is used' })
  kTo!: number
}

export class PumpVolumeFields {
  @Num({ what: 'strokes of the pump' })
  strokes!: number

  @Num({ what: 'what one stroke moves', unit: 'ml' })
  strokeMl!: number

  @Num({ what: 'gauge pressure before', unit: 'kPa' })
  fromKpa!: number

  @Num({ what: 'gauge pressure after', unit: 'kPa' })
  toKpa!: number

  @Num({ what: 'pressure of the air', unit: 'kPa' })
  atmosphereKpa!: number
}

export class SwingSampleFields {
  @Num({ what: 'where the gauge stood' })
  at!: number

  @Num({ what: 'what it read', unit: 'mm' })
  readingMm!: number
}

export class SwingFields {
  @Many(() => SwingSampleFields, { what: 'readings along the sweep', least: 3, most: 1000 })
  samples!: SwingSampleFields[]

  @OneOf({ what: 'which turning point is the measure', values: ['highest', 'lowest'] })
  extreme!: 'highest' | 'lowest'
}

export class ReachPartFields {
  @Text({ what: 'id of the part', min: 1, max: 60 })
  id!: string

  @Texts({ what: 'parts that must be off before', most: 200 })
  after!: string[]

  @Texts({ what: 'settings that it carries or sets', most: 60, optional: true })
  sets?: string[]
}

export class ReachFields {
  @Many(() => ReachPartFields, { what: 'parts of the drive, in the order of the list', least: 1, most: 1000 })
  parts!: ReachPartFields[]

  @Texts({ what: 'parts to be reached', least: 1, most: 1000 })
  targets!: string[]
}

export class HoursEntryFields {
  @Text({ what: 'day, like 2025-10-08', min: 10, max: 10 })
  on!: string

  @Num({ what: 'hours read that day', min: 0 })
  hours!: number
}

export class ServiceDueFields {
  @Text({ what: 'day of the last service, like 2025-10-08', min: 10, max: 10 })
  lastOn!: string

  @Num({ what: 'hours then', min: 0 })
  lastHours!: number

  @Whole({ what: 'interval in months', min: 1, max: 600, optional: true })
  months?: number

  @Num({ what: 'interval in hours', min: 0, optional: true })
  hours?: number

  @Many(() => HoursEntryFields, { what: 'hours as they were read since', most: 2000 })
  log!: HoursEntryFields[]

  @Num({ what: 'shortens both intervals: 0.5 in salt', min: 0, optional: true, default: 1 })
  factor?: number
}

export const ownSheetCalculations: Calculation[] = [
  calculationOf(
    'gear-from-measures',
    'Module and addenda from teeth and diameters',
    GearFromMeasuresFields,
    gearFromMeasures,
    [
      ['moduleMm', 'mm', 'outer transverse module'],
      ['moduleUMm', 'mm', 'its expanded uncertainty'],
      ['gearAddendumMm', 'mm', 'addendum of the gear'],
      ['pinionAddendumMm', 'mm', 'addendum of the pinion'],
      ['agree', '', 'whether both diameters say the same'],
    ],
  ),
  calculationOf(
    'sensitivity-uncertainty',
    'How well a sensitivity is known',
    SensitivityUncertaintyFields,
    sensitivityUncertainty,
    [['relU', 'share', 'relative standard uncertainty']],
  ),
  calculationOf('float-stack', 'Stack that takes up a float', FloatStackFields, floatStack, [
    ['stackMm', 'mm', 'stack to fit'],
  ]),
  calculationOf('clamp-load', 'What another grease does to a joint', ClampLoadFields, clampLoad, [
    ['fromKn', 'kN', 'clamp load as the torque is given'],
    ['toKn', 'kN', 'clamp load as it is greased'],
    ['changePercent', '%', 'change of the clamp load'],
    ['sameLoadNm', 'Nm', 'torque for the same clamp load'],
  ]),
  calculationOf('pump-volume', 'Free volume of a case from pump strokes', PumpVolumeFields, pumpVolume, [
    ['volumeMl', 'ml', 'free volume'],
  ]),
  calculationOf('swing', 'Reading at the turning point of a swung gauge', SwingFields, swing, [
    ['atVertex', '', 'where it turns'],
    ['valueMm', 'mm', 'what it reads there'],
    ['valueUMm', 'mm', 'its expanded uncertainty, from the scatter'],
    ['trusted', '', 'the sweep passed its turning point'],
  ]),
  calculationOf('reach', 'What comes off to get at a part, and what that disturbs', ReachFields, reach, [
    ['order', '', 'all that comes off, in order'],
    ['disturbed', '', 'settings that are disturbed'],
  ]),
  calculationOf('service-due', 'When a service is due', ServiceDueFields, serviceDue, [
    ['dueOn', '', 'the day'],
    ['by', '', 'date or hours: which comes first'],
    ['hoursPerDay', 'h', 'running hours a day'],
  ]),
]
