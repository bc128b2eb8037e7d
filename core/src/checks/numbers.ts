import { refuse } from './input-error.ts'

/** @throws InputError when `value` is not a finite number. */
export function finite(path: string, value: number): number {
  if (typeof value !== 'number' || !Number.isFinite(value))
    refuse(path, `must be a finite number, not ${String(value)}`)
  return value
}

/** @throws InputError unless `value` > 0. */
export function positive(path: string, value: number): number {
  if (finite(path, value) <= 0) refuse(path, `is ${value}; it must be above 0`)
  return value
}

/** @throws InputError unless `value` ≥ 0. */
export function notNegative(path: string, value: number): number {
  if (finite(path, value) < 0) refuse(path, `is ${value}; it must not be below 0`)
  return value
}

/** @throws InputError unless `min` ≤ value ≤ `max`. */
export function within(path: string, value: number, min: number, max: number): number {
  finite(path, value)
  if (value < min || value > max) refuse(path, `is ${value}; allowed is ${min} to ${max}`)
  return value
}

/** @throws InputError unless `value` is a whole number of at least `min`. */
export function whole(path: string, value: number, min: number, max = Number.MAX_SAFE_INTEGER): number {
  within(path, value, min, max)
  if (!Number.isInteger(value)) refuse(path, `is ${value}; it must be a whole number`)
  return value
}
