import type { ClosedWindow } from '../checks/window.ts'

/** What is being measured, as far as plausibility goes. */
export type PlausibleKind =
  | 'backlash'
  | 'depth'
  | 'drop'
  | 'shim-piece'
  | 'shim-stack'
  | 'end-play'
  | 'clearance'
  | 'runout'
  | 'round-a-shaft'
  | 'ride'
  | 'rolling-torque'
  | 'dimension'

/** What is measured there, and the unit in which it is kept. */
export const quantityOf = (kind: PlausibleKind): 'length' | 'torque' =>
  kind === 'rolling-torque' ? 'torque' : 'length'

/**
 * Ranges, in mm (a torque in Nm), outside which a value is questioned, not silently taken. They are wide on purpose:
 * they catch an inch read as a millimetre, a missing decimal point or a turn of the dial, not a bad drive.
 */
export const PLAUSIBLE: Record<PlausibleKind, ClosedWindow> = {
  backlash: { min: 0, max: 3 },
  depth: { min: 5, max: 200 },
  drop: { min: 0, max: 80 },
  'shim-piece': { min: 0.02, max: 5 },
  'shim-stack': { min: 0, max: 12 },
  'end-play': { min: 0, max: 3 },
  clearance: { min: 0, max: 5 },
  runout: { min: 0, max: 3 },
  'round-a-shaft': { min: -3, max: 3 },
  ride: { min: -20, max: 200 },
  'rolling-torque': { min: 0, max: 8 },
  dimension: { min: 1, max: 400 },
}

/** True when the value lies in the plausible range of its kind (limits included). */
export function isPlausible(kind: PlausibleKind, value: number): boolean {
  const { min, max } = PLAUSIBLE[kind]
  return value >= min && value <= max
}

/** Beyond these nobody's confirmation helps: it is another unit, or a slip of the key. In the same units. */
export const POSSIBLE: Record<PlausibleKind, ClosedWindow> = {
  backlash: { min: 0, max: 20 },
  depth: { min: -50, max: 1000 },
  drop: { min: -50, max: 500 },
  'shim-piece': { min: 0, max: 50 },
  'shim-stack': { min: 0, max: 100 },
  'end-play': { min: 0, max: 20 },
  clearance: { min: 0, max: 50 },
  runout: { min: 0, max: 20 },
  'round-a-shaft': { min: -20, max: 20 },
  ride: { min: -200, max: 1000 },
  'rolling-torque': { min: 0, max: 60 },
  dimension: { min: 0, max: 2000 },
}

/** True when the value can be at all. */
export function isPossible(kind: PlausibleKind, value: number): boolean {
  const { min, max } = POSSIBLE[kind]
  return value >= min && value <= max
}
