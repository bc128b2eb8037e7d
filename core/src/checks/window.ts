import { refuse } from './input-error.ts'
import { finite } from './numbers.ts'

/** Where a quantity must end up. One-sided when a limit is missing (runout has no smallest value). */
export interface Window {
  min?: number
  max?: number
}

/** A window with both limits. */
export interface ClosedWindow {
  min: number
  max: number
}

/**
 * Checks a window before it is used.
 * @throws InputError when both limits are missing, or the window is upside down.
 */
export function checkWindow(path: string, window: Window): void {
  const { min, max } = window
  if (min === undefined && max === undefined)
    refuse(path, 'has neither a smallest nor a largest value; give at least one')
  if (min !== undefined) finite(`${path}.min`, min)
  if (max !== undefined) finite(`${path}.max`, max)
  if (min !== undefined && max !== undefined && min >= max)
    refuse(path, `is upside down: smallest ${min}, largest ${max}; swap the two`)
}
