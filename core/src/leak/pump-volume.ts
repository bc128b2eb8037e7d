import { refuse } from '../checks/input-error.ts'
import { finite, positive, within } from '../checks/numbers.ts'

export interface PumpVolumeInput {
  strokes: number
  /** What one stroke moves, at the pressure of the air, ml. */
  strokeMl: number
  /** Gauge pressures before and after those strokes, kPa. */
  fromKpa: number
  toKpa: number
  /** Pressure of the air, kPa. */
  atmosphereKpa: number
}

/**
 * Free volume of a case from pump strokes: V = n V_stroke P_atm / (P₂ − P₁), at one temperature.
 * @throws InputError when the pressure has not risen, or a figure cannot be
 */
export function pumpVolume(input: PumpVolumeInput): { volumeMl: number } {
  const strokes = positive('strokes', input.strokes)
  const strokeMl = positive('strokeMl', input.strokeMl)
  const atmosphere = within('atmosphereKpa', input.atmosphereKpa, 50, 110)
  const rise = finite('toKpa', input.toKpa) - finite('fromKpa', input.fromKpa)
  if (!(rise > 0))
    refuse(
      'toKpa',
      `is ${input.toKpa}, not above the ${input.fromKpa} kPa before; the first strokes may not move the needle`,
    )
  return { volumeMl: (strokes * strokeMl * atmosphere) / rise }
}
