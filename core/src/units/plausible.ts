import type { ClosedWindow } from '../measuring/window.ts'

/** What is being measured, as far as plausibility goes. */
export type PlausibleKind =
  'backlash' | 'depth' | 'drop' | 'shim-piece' | 'shim-stack' | 'end-play' | 'clearance'

/**
 * Ranges in mm outside which a value is questioned, not silently taken. They are wide on purpose:
 * they catch an inch read as a millimetre, a missing decimal point or a turn of the dial, not a bad drive.
 */
export const PLAUSIBLE_MM: Record<PlausibleKind, ClosedWindow> = {
  backlash: { min: 0, max: 3 },
  depth: { min: 5, max: 200 },
  drop: { min: 0, max: 80 },
  'shim-piece': { min: 0.02, max: 5 },
  'shim-stack': { min: 0, max: 12 },
  'end-play': { min: 0, max: 3 },
  clearance: { min: 0, max: 5 },
}

/** True when the value lies in the plausible range of its kind (limits included). */
export function isPlausible(kind: PlausibleKind, mm: number): boolean {
  const { min, max } = PLAUSIBLE_MM[kind]
  return mm >= min && mm <= max
}
