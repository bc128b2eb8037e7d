import { uncertaintyOfMean } from './judge.ts'
import type { Window } from '../checks/window.ts'

export interface CanDecide {
  /** Expanded uncertainty (k = 2) that so many readings with this gauge come to at best, in the gauge's unit. */
  U: number
  /** A value in the middle of the window would be told to be in it; always so for a window with one limit. */
  decides: boolean
}

/**
 * What a gauge can do at best before anything is measured: readings that scatter no more than it is known to. A window narrower than 2 U is never met beyond
 * doubt with it (ISO 14253-1: the window shrunk by U on either side is empty).
 * @param gauge resolution, permissible error, repeatability, in the unit of the window
 * @param readings how many are taken, at least 1
 */
export function canDecide(
  gauge: { resolution: number; mpe: number; repeatability: number },
  { min, max }: Window,
  readings: number,
): CanDecide {
  const U = 2 * uncertaintyOfMean(0, Math.max(1, readings), gauge)
  return { U, decides: min === undefined || max === undefined || 2 * U <= max - min }
}
