import { refuse } from '../checks/input-error.ts'
import { notNegative } from '../checks/numbers.ts'

export interface FloatStackInput {
  /** Stack that was built in to measure the float, mm. */
  trialMm: number
  /** Float read with it, mm. */
  floatMm: number
  /** Clearance that shall be left. @default 0 */
  clearanceMm?: number
  /** Preload that shall be there instead. @default 0 */
  preloadMm?: number
}

/**
 * Stack that takes up a float: trial + float − clearance + preload.
 * @throws InputError on lengths below zero, or a stack that would be
 */
export function floatStack(input: FloatStackInput): { stackMm: number } {
  const stackMm =
    notNegative('trialMm', input.trialMm) +
    notNegative('floatMm', input.floatMm) -
    notNegative('clearanceMm', input.clearanceMm ?? 0) +
    notNegative('preloadMm', input.preloadMm ?? 0)
  if (stackMm < 0)
    refuse(
      'clearanceMm',
      `leads to a stack of ${stackMm.toFixed(3)} mm; it is larger than trial and float together`,
    )
  return { stackMm }
}
