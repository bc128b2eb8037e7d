import { finite, notNegative, positive } from '../checks/numbers.ts'
import { refuse } from '../checks/input-error.ts'

/** Linear expansion per kelvin; handbook values for the alloys of cases and shafts. */
export const ALUMINIUM_PER_K = 23.1e-6
export const STEEL_PER_K = 11.5e-6
/** Lengths are stated at this temperature; ISO 1:2022. */
export const REFERENCE_C = 20

export interface TemperatureEffectInput {
  /** Length over which case and shaft run side by side, mm. */
  lengthMm: number
  /** Temperature of case and shaft, °C. */
  tempC: number
  /** Half width within which that temperature is known, °C. @default 2 */
  halfWidthC?: number
  /**
   * Where the cups are held. `outer`: shouldered on their outer sides, they loosen as the case warms (the clearance
   * grows); `between`: shouldered between the bearings, they tighten.
   */
  shouldered: 'outer' | 'between'
  /** @default aluminium */
  casePerK?: number
  /** @default steel */
  shaftPerK?: number
}

export interface TemperatureEffect {
  /** What the clearance reads more at this temperature than at 20 °C, mm; negative when it tightens. */
  clearanceChangeMm: number
  /** Standard uncertainty of that change from not knowing the temperature better, mm. */
  uMm: number
  /** Change per kelvin, mm. */
  perKelvinMm: number
}

/**
 * How temperature changes a clearance between an aluminium case and a steel shaft:
 * Δ = ±(α_case − α_shaft) · L · (T − 20 °C). The temperature is taken as anywhere within its half width (rectangular,
 * JCGM 100:2008, 4.3.7), hence u = |α_case − α_shaft| · L · halfWidth / √3.
 * @throws InputError on a length ≤ 0, a temperature below absolute zero or non-finite numbers
 */
export function temperatureEffect(input: TemperatureEffectInput): TemperatureEffect {
  const length = positive('lengthMm', input.lengthMm)
  const temp = finite('tempC', input.tempC)
  if (temp < -60 || temp > 150)
    refuse('tempC', `is ${temp} °C; a case on the bench is between −60 and 150 °C`)
  const halfWidth = notNegative('halfWidthC', input.halfWidthC ?? 2)
  if (input.shouldered !== 'outer' && input.shouldered !== 'between')
    refuse('shouldered', 'is outer or between')
  const difference =
    notNegative('casePerK', input.casePerK ?? ALUMINIUM_PER_K) -
    notNegative('shaftPerK', input.shaftPerK ?? STEEL_PER_K)
  const perKelvinMm = (input.shouldered === 'outer' ? 1 : -1) * difference * length
  return {
    clearanceChangeMm: perKelvinMm * (temp - REFERENCE_C),
    uMm: (Math.abs(perKelvinMm) * halfWidth) / Math.sqrt(3),
    perKelvinMm,
  }
}
