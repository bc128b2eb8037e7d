import { refuse } from '../checks/input-error.ts'
import { finite, notNegative } from '../checks/numbers.ts'

export interface CrushInput {
  /** `bearing`: shims between bearing and cover, pressing the bearing; `cover`: between case and cover, holding it off. */
  shimsAt: 'bearing' | 'cover'
  /** Trial stack, mm. */
  trialMm: number
  /** Gap between cover and case with the trial stack, mm (give this or floatMm). */
  gapMm?: number
  /** Float of the bearing under the seated cover, mm. */
  floatMm?: number
  /** Wanted interference of the cover on the bearing ring, mm. */
  crushMm: number
}

/**
 * Stack for a wanted crush k, from a trial stack t with gap G or float e:
 * shims at the bearing: t − G + k, or t + e + k; shims under the cover: t + G − k, or t − e − k.
 * @throws InputError unless exactly one of gap and float is given, or when the stack would be below zero
 */
export function crush(input: CrushInput): { stackMm: number } {
  const { shimsAt, gapMm: gap, floatMm: float } = input
  if (shimsAt !== 'bearing' && shimsAt !== 'cover') refuse('shimsAt', 'is bearing or cover')
  notNegative('trialMm', input.trialMm)
  finite('crushMm', input.crushMm)
  if ((gap === undefined) === (float === undefined))
    refuse('gapMm', 'give either the gap or the float, one of the two')
  if (gap !== undefined) notNegative('gapMm', gap)
  if (float !== undefined) notNegative('floatMm', float)
  const change = gap !== undefined ? -gap : float!
  const stackMm =
    shimsAt === 'bearing' ? input.trialMm + change + input.crushMm : input.trialMm - change - input.crushMm
  if (stackMm < 0)
    refuse(
      'trialMm',
      `leads to a stack of ${stackMm.toFixed(3)} mm; the parts do not go together, or the gap was read wrong`,
    )
  return { stackMm }
}

/** Gap between cover and case from feelers at several places: its mean, and how far the cover stands askew (mm). */
export function coverGap(feelersMm: number[]): { gapMm: number; tiltMm: number } {
  if (feelersMm.length < 3)
    refuse('feelersMm', `holds ${feelersMm.length}; measure at 3 or 4 places round the cover`)
  feelersMm.forEach((f, i) => notNegative(`feelersMm[${i}]`, f))
  return {
    gapMm: feelersMm.reduce((a, b) => a + b, 0) / feelersMm.length,
    tiltMm: Math.max(...feelersMm) - Math.min(...feelersMm),
  }
}
