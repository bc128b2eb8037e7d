import { finite, notNegative, positive, whole } from '../checks/numbers.ts'
import { refuse } from '../checks/input-error.ts'

export interface LockAlignmentInput {
  /** Evenly spaced tabs of the washer (or holes of the nut) and slots to meet. */
  tabs: number
  slots: number
  /** How many must coincide. */
  required: number
  /** After a further turn of x, tab i stands at 360 i / tabs + x − phaseDeg, slot j at 360 j / slots. Or: */
  phaseDeg?: number
  /** how far the nearest tab stands before its slot by a straight ruler (a chord), mm, at this radius. */
  shortMm?: number
  radiusMm?: number
  /** @default 0 */
  toleranceDeg?: number
}

export interface LockAlignment {
  /** Smallest further turn that aligns enough; never backward. Missing when none does. */
  advanceDeg?: number
  /** How often the picture repeats: 360 / lcm(tabs, slots). */
  everyDeg: number
  /** Tabs that coincide there, or the most that ever do. */
  coinciding: number
  possible: boolean
}

/** For meetings that are exact but for round-off. */
const EXACT_DEG = 1e-9

/**
 * When the next tabs meet their slots. All offsets between a tab and a slot are phase plus multiples of
 * 360/lcm, so after x = 0 the number that coincide can only rise where x ≡ phase − tolerance (mod 360/lcm):
 * two candidates suffice.
 * @throws InputError on counts that are not whole, or more tabs required than there are
 */
export function lockAlignment(input: LockAlignmentInput): LockAlignment {
  const tabs = whole('tabs', input.tabs, 1, 360)
  const slots = whole('slots', input.slots, 1, 360)
  const required = whole('required', input.required, 1, 360)
  if (required > tabs) refuse('required', `is ${required}; there are only ${tabs} tabs`)
  const phase = phaseOf(input)
  const tolerance = notNegative('toleranceDeg', input.toleranceDeg ?? 0)
  const everyDeg = 360 / ((tabs / gcd(tabs, slots)) * slots)
  const next = mod(phase - tolerance, everyDeg)
  const counts = [0, next].map((x) => coinciding(x))
  const found = [0, next].find((_, i) => counts[i]! >= required)
  if (found === undefined) return { everyDeg, coinciding: Math.max(...counts), possible: false }
  return { advanceDeg: found, everyDeg, coinciding: coinciding(found), possible: true }

  function coinciding(x: number): number {
    let count = 0
    const step = 360 / slots
    for (let i = 0; i < tabs; i++) {
      const off = mod((360 * i) / tabs + x - phase, step)
      if (Math.min(off, step - off) <= tolerance + EXACT_DEG) count++
    }
    return count
  }
}

/** The phase as given, or from what a ruler says: 2 asin(short / 2 radius). */
export function phaseOf({ phaseDeg, shortMm, radiusMm }: LockAlignmentInput): number {
  if (phaseDeg !== undefined) {
    if (shortMm !== undefined) refuse('shortMm', 'and phaseDeg say the same; give one of the two')
    return finite('phaseDeg', phaseDeg)
  }
  if (shortMm === undefined) refuse('phaseDeg', 'is missing; give it, or shortMm with radiusMm')
  const short = notNegative('shortMm', shortMm)
  if (radiusMm === undefined) refuse('radiusMm', 'is missing; a ruler says nothing without the radius')
  const radius = positive('radiusMm', radiusMm)
  if (short > 2 * radius)
    refuse('shortMm', `is ${short}; on a radius of ${radius} mm no tab stands that far off`)
  return (2 * Math.asin(short / (2 * radius)) * 180) / Math.PI
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b))
const mod = (v: number, by: number) => ((v % by) + by) % by
