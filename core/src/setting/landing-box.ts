import { probabilityInWindow } from '../numbers/normal.ts'
import { bestLanding } from './landing.ts'
import type { ShimProblem } from './shim-problem.ts'

/** Thicknesses that are asked one by one; a longer range is cut by bounds first. */
const FEW = 6

/**
 * Scores boxes of thicknesses that are really on offer: `box` holds the first and last index for each location.
 *
 * The score bounds the joint probability of every combination in the box. A quantity on which two or more open locations
 * work is bounded over the intervals (landing.ts); one on which a single open location works is asked over that location's own
 * thicknesses, which is exact. So once no quantity hangs on two open locations, and none of those works on two quantities, the
 * quantities no longer compete: the score is the joint probability of a combination, which stands in `at`. In a gear train that is
 * so as soon as the pinion's stack is chosen, which is why the search cuts that one first (see {@link couplings}).
 */
export class LandingBox {
  /** Whether the last score is reached, by the combination `at` (joint stock not asked). */
  exact = false
  readonly at: Int32Array
  /** Probabilities computed so far. */
  asked = 0
  private readonly problem: ShimProblem
  private readonly thickness: readonly Float64Array[]
  private readonly current: Float64Array
  /** How many quantities have claimed each open location in this score. */
  private readonly claims: Int8Array

  constructor(problem: ShimProblem, thickness: readonly Float64Array[]) {
    this.problem = problem
    this.thickness = thickness
    this.current = Float64Array.from(problem.locations, (l) => l.currentMm)
    this.at = new Int32Array(thickness.length)
    this.claims = new Int8Array(thickness.length)
  }

  score(box: Int32Array): number {
    const { quantities, sensitivity, relU } = this.problem
    const L = this.at.length
    this.exact = true
    this.claims.fill(0)
    for (let l = 0; l < L; l++) this.at[l] = box[2 * l]!
    let p = 1
    for (let q = 0; q < quantities.length; q++) {
      const { measured, u, window } = quantities[q]!
      // what the chosen locations make of it, and the open ones together
      let mean = measured
      let variance = u * u
      let open = -1
      let several = false
      for (let l = 0; l < L; l++) {
        const j = sensitivity[q * L + l]!
        if (j === 0) continue
        if (box[2 * l]! !== box[2 * l + 1]!) {
          if (open >= 0) several = true
          open = l
          continue
        }
        const moved = j * (this.thickness[l]![box[2 * l]!]! - this.current[l]!)
        mean += moved
        variance += (relU[q * L + l]! * moved) ** 2
      }
      if (open < 0) {
        this.asked++
        p *= probabilityInWindow(mean, Math.sqrt(variance), window.min, window.max)
      } else if (several) {
        this.exact = false
        p *= this.overIntervals(q, box, mean, variance)
      } else {
        if (++this.claims[open]! > 1) this.exact = false
        p *= this.overOwn(q, open, box[2 * open]!, box[2 * open + 1]!, mean, variance)
      }
      if (p === 0) return 0
    }
    return p
  }

  /** Best landing when every open location may take any thickness between its first and its last. */
  private overIntervals(q: number, box: Int32Array, mean: number, variance: number): number {
    const { quantities, sensitivity, relU } = this.problem
    const L = this.at.length
    const { window } = quantities[q]!
    let [muLo, muHi, varLo, varHi] = [mean, mean, variance, variance]
    for (let l = 0; l < L; l++) {
      const j = sensitivity[q * L + l]!
      const [first, last] = [box[2 * l]!, box[2 * l + 1]!]
      if (j === 0 || first === last) continue
      const a = j * (this.thickness[l]![first]! - this.current[l]!)
      const b = j * (this.thickness[l]![last]! - this.current[l]!)
      muLo += Math.min(a, b)
      muHi += Math.max(a, b)
      const rel = relU[q * L + l]!
      if (rel === 0) continue
      varLo += a < 0 !== b < 0 ? 0 : (rel * Math.min(Math.abs(a), Math.abs(b))) ** 2
      varHi += (rel * Math.max(Math.abs(a), Math.abs(b))) ** 2
    }
    this.asked++
    return bestLanding(muLo, muHi, Math.sqrt(varLo), Math.sqrt(varHi), window.min, window.max)
  }

  /**
   * Highest probability of quantity q over the thicknesses first … last of location l, the others standing; its index goes to `at`.
   * The thickness that brings the mean nearest to the window's middle is asked first; what is left on either side is asked only as far as
   * its bound is above that: a thickness nearer to the present one brings a smaller uncertainty with it.
   */
  private overOwn(q: number, l: number, first: number, last: number, mean: number, variance: number): number {
    const { quantities, sensitivity, relU } = this.problem
    const { window } = quantities[q]!
    const t = this.thickness[l]!
    const j = sensitivity[q * this.at.length + l]!
    const rel = relU[q * this.at.length + l]!
    const current = this.current[l]!
    let best = -1
    const ask = (k: number) => {
      const moved = j * (t[k]! - current)
      this.asked++
      const p = probabilityInWindow(
        mean + moved,
        Math.sqrt(variance + (rel * moved) ** 2),
        window.min,
        window.max,
      )
      if (p <= best) return
      best = p
      this.at[l] = k
    }
    const wanted = current + ((window.min + window.max) / 2 - mean) / j
    const k = lowerBound(t, wanted, first, last)
    ask(k)
    if (k > first) ask(k - 1)
    if (rel === 0) return best
    const within = (from: number, to: number) => {
      if (to < from) return
      if (to - from < FEW) {
        for (let i = from; i <= to; i++) ask(i)
        return
      }
      const a = j * (t[from]! - current)
      const b = j * (t[to]! - current)
      const near = a < 0 !== b < 0 ? 0 : Math.min(Math.abs(a), Math.abs(b))
      const far = Math.max(Math.abs(a), Math.abs(b))
      this.asked++
      const bound = bestLanding(
        mean + Math.min(a, b),
        mean + Math.max(a, b),
        Math.sqrt(variance + (rel * near) ** 2),
        Math.sqrt(variance + (rel * far) ** 2),
        window.min,
        window.max,
      )
      if (bound <= best) return
      const middle = (from + to) >> 1
      // the half that lies nearer to the first guess first: it is likelier to raise what the other has to beat
      if (k <= middle) {
        within(from, middle)
        within(middle + 1, to)
      } else {
        within(middle + 1, to)
        within(from, middle)
      }
    }
    within(first, last)
    return best
  }
}

/** Index of the first value at or above `wanted` between first and last; last when none is. */
function lowerBound(values: Float64Array, wanted: number, first: number, last: number): number {
  let [lo, hi] = [first, last]
  while (lo < hi) {
    const middle = (lo + hi) >> 1
    if (values[middle]! < wanted) lo = middle + 1
    else hi = middle
  }
  return lo
}

/** Index of the value nearest to `wanted` between first and last, of rising values. */
export function nearestIndex(values: Float64Array, wanted: number, first: number, last: number): number {
  const k = lowerBound(values, wanted, first, last)
  return k > first && wanted - values[k - 1]! < Math.abs(values[k]! - wanted) ? k - 1 : k
}

/**
 * For a box the location to cut next, or −1 when it is a single combination: the one on which most quantities hang together with
 * another open location, since choosing it sets the others free of each other; among equals the one whose range moves the quantities most.
 * @param weight how much a mm at each location matters
 */
export function couplings(
  problem: Pick<ShimProblem, 'quantities' | 'sensitivity'>,
  thickness: readonly Float64Array[],
  weight: Float64Array,
): (box: Int32Array) => number {
  const L = thickness.length
  const shared = new Int32Array(L)
  return (box) => {
    shared.fill(0)
    for (let q = 0; q < problem.quantities.length; q++) {
      let open = 0
      for (let l = 0; l < L; l++)
        if (problem.sensitivity[q * L + l]! !== 0 && box[2 * l]! !== box[2 * l + 1]!) open++
      if (open < 2) continue
      for (let l = 0; l < L; l++) if (problem.sensitivity[q * L + l]! !== 0) shared[l]!++
    }
    let cut = -1
    let most = -1
    for (let l = 0; l < L; l++) {
      const [a, b] = [box[2 * l]!, box[2 * l + 1]!]
      if (a === b) continue
      const matters = weight[l]! * (thickness[l]![b]! - thickness[l]![a]!)
      if (cut >= 0 && (shared[l]! < shared[cut]! || (shared[l] === shared[cut] && matters <= most))) continue
      cut = l
      most = matters
    }
    return cut
  }
}
