import { refuse } from '@moray/core/checks/input-error'
import type { DepthInput } from '@moray/core/measuring/depth'
import { isObject } from '../fields/instantiate.ts'
import { show } from '../fields/show.ts'
import { Flag, Many, Num, Numbers, One, OneOf, Text } from '../fields/decorators.ts'

export class ParseReadingFields {
  @Text({ what: 'what was said or scribbled', max: 60 })
  text!: string

  @OneOf({ what: 'what is measured', values: ['length', 'torque', 'pressure', 'temperature', 'angle'] })
  quantity!: 'length' | 'torque' | 'pressure' | 'temperature' | 'angle'

  @Text({ what: 'unit of a bare number', optional: true, max: 12 })
  unit?: string

  @Num({ what: 'travel of one turn of the dial', unit: 'mm', optional: true })
  dialPerTurnMm?: number
}

export class WindowFields {
  @Num({ what: 'smallest allowed value', optional: true })
  min?: number

  @Num({ what: 'largest allowed value', optional: true })
  max?: number
}

export class TemperatureFields {
  @Num({ what: 'length over which case and shaft run side by side', unit: 'mm' })
  lengthMm!: number

  @Num({ what: 'temperature of case and shaft', unit: 'C' })
  tempC!: number

  @Num({ what: 'half width within which it is known (K)', min: 0, optional: true, default: 2 })
  halfWidthC?: number

  @OneOf({ what: 'where the cups are held: outer loosens with warmth', values: ['outer', 'between'] })
  shouldered!: 'outer' | 'between'

  @Num({ what: 'expansion of the case per kelvin', min: 0, optional: true, default: 23.1e-6 })
  casePerK?: number

  @Num({ what: 'expansion of the shaft per kelvin', min: 0, optional: true, default: 11.5e-6 })
  shaftPerK?: number
}

export class BacklashPlaceFields {
  @Num({ what: 'where round the gear', unit: 'deg' })
  deg!: number

  @Numbers({ what: 'readings there (mm)', least: 1, most: 100 })
  readings!: number[]
}

export class BacklashRoundFields {
  @Many(() => BacklashPlaceFields, { what: 'three or more places', least: 3, most: 72 })
  places!: BacklashPlaceFields[]

  @Num({ what: 'smallest step of the gauge', unit: 'mm', min: 0 })
  resolution!: number

  @Num({ what: 'largest permissible error of the gauge', unit: 'mm', min: 0 })
  mpe!: number

  @Num({ what: 'known scatter (standard deviation)', unit: 'mm', min: 0, optional: true, default: 0 })
  repeatability?: number

  @One(() => WindowFields, { what: 'where backlash must lie at every place (mm)' })
  window!: WindowFields

  @Num({ what: 'largest allowed difference between places', unit: 'mm', optional: true })
  variationLimitMm?: number
}

export class StationFields {
  @Num({ what: 'place along the shaft', unit: 'mm' })
  atMm!: number

  @Numbers({ what: 'readings at equal angles round one turn (mm)', least: 6, most: 72 })
  readingsMm!: number[]
}

export class ShaftRunoutFields {
  @Many(() => StationFields, { what: 'stations in order along the shaft', least: 2, most: 20 })
  stations!: StationFields[]

  @Num({ what: 'what is taken for nothing', unit: 'mm', optional: true, default: 0.01 })
  noiseMm?: number
}

export class JudgeFields {
  @Numbers({ what: 'readings of one thing', least: 1, most: 1000 })
  readings!: number[]

  @Num({ what: 'smallest step of the gauge', min: 0 })
  resolution!: number

  @Num({ what: 'largest permissible error of the gauge', min: 0 })
  mpe!: number

  @Num({
    what: 'known scatter of repeated readings (standard deviation)',
    min: 0,
    optional: true,
    default: 0,
  })
  repeatability?: number

  @One(() => WindowFields, { what: 'where the value must lie' })
  window!: WindowFields

  @One(() => TemperatureFields, { what: 'temperature, when the case is not at 20 °C', optional: true })
  temperature?: TemperatureFields
}

export class MasterDropFields {
  @OneOf({ what: 'way of measuring', values: ['master-drop'] })
  method!: 'master-drop'

  @Num({ what: 'measured length of the master', unit: 'mm' })
  masterMm!: number

  @Num({ what: 'travel of the plunger from the master', unit: 'mm' })
  dropMm!: number

  @Flag({ what: 'true when the plunger extends, false when it retracts' })
  extends!: boolean
}

export class ArborFields {
  @OneOf({ what: 'way of measuring', values: ['arbor'] })
  method!: 'arbor'

  @Num({ what: 'reading to the arbor', unit: 'mm' })
  readingMm!: number

  @Num({ what: 'diameter of the arbor', unit: 'mm' })
  arborDiameterMm!: number

  @Flag({ what: 'true when read from the far side of the arbor' })
  farSide!: boolean
}

export class FeelerBlockFields {
  @OneOf({ what: 'way of measuring', values: ['feeler-block'] })
  method!: 'feeler-block'

  @Num({ what: 'clearance by feeler', unit: 'mm' })
  clearanceMm!: number

  @Num({ what: 'nominal clearance of the block', unit: 'mm' })
  nominalClearanceMm!: number

  @Num({ what: 'depth that the nominal clearance stands for', unit: 'mm' })
  nominalDepthMm!: number
}

export class CaseAndGearFields {
  @OneOf({ what: 'way of measuring', values: ['case-and-gear'] })
  method!: 'case-and-gear'

  @Num({ what: 'case, from the mesh centre to the shim seat', unit: 'mm' })
  caseMm!: number

  @Num({ what: 'gear and bearing, from shim face to reference face', unit: 'mm' })
  assemblyMm!: number

  @Num({ what: 'nominal mounting distance', unit: 'mm' })
  nominalMm!: number

  @OneOf({
    what: '−1: more shim pushes the gear inward; +1: outward',
    values: [1, -1],
    optional: true,
    default: -1,
  })
  effect?: 1 | -1
}

const byMethod = {
  'master-drop': MasterDropFields,
  arbor: ArborFields,
  'feeler-block': FeelerBlockFields,
  'case-and-gear': CaseAndGearFields,
}

/** Which class a depth input is checked with: each method has its own fields, and no others. @throws InputError */
export function depthClass(raw: unknown): new () => DepthInput {
  if (!isObject(raw)) return MasterDropFields
  const { method } = raw
  if (typeof method === 'string' && Object.hasOwn(byMethod, method))
    return byMethod[method as keyof typeof byMethod]
  return refuse('method', `is ${show(method)}; one of ${Object.keys(byMethod).join(', ')}`)
}

export const depthClasses: (new () => DepthInput)[] = Object.values(byMethod)
