import { probabilityInWindow } from '../numbers/normal.ts'
import type { ShimProblem } from './shim-problem.ts'

/**
 * Largest probability of landing in [min, max] for any mean in [muLo, muHi] and any standard deviation in
 * [sLo, sHi]. Exact, not merely a bound: for every σ the best mean is the one nearest the window's middle; with
 * that mean inside the window a smaller σ is better; with it outside at distance d from the near edge (window
 * width w) P(σ) = Φ((d+w)/σ) − Φ(d/σ) has its one maximum where σ² = ((d+w)² − d²) / (2 ln((d+w)/d)).
 */
export function bestLanding(
  muLo: number,
  muHi: number,
  sLo: number,
  sHi: number,
  min: number,
  max: number,
): number {
  const centre = (min + max) / 2
  const mu = centre < muLo ? muLo : centre > muHi ? muHi : centre
  let sigma = sLo
  if (sHi > sLo) {
    const d = mu < min ? min - mu : mu > max ? mu - max : 0
    if (d > 0) {
      const far = d + (max - min)
      const peak = Math.sqrt((far * far - d * d) / (2 * Math.log(far / d)))
      sigma = peak < sLo ? sLo : peak > sHi ? sHi : peak
    }
  }
  return probabilityInWindow(mu, sigma, min, max)
}

/** Scores a box of stacks: `lo` and `hi` are thicknesses in mm, one for each location. */
export type BoxScore = (lo: Float64Array, hi: Float64Array) => number

/**
 * Upper bound of the joint probability over a box of stack thicknesses; for a point (lo = hi) it is the
 * joint probability itself: Π over quantities of P(min ≤ N(μ, σ²) ≤ max), μ = measured + Σ J ΔS,
 * σ² = u² + Σ (relU J ΔS)², quantities taken as independent.
 */
export function landingBound(problem: ShimProblem): BoxScore {
  const { quantities, sensitivity, relU, locations } = problem
  const L = locations.length
  const current = Float64Array.from(locations, (l) => l.currentMm)
  return (lo, hi) => {
    let p = 1
    for (let q = 0; q < quantities.length; q++) {
      const quantity = quantities[q]!
      let muLo = quantity.measured
      let muHi = quantity.measured
      let varLo = quantity.u * quantity.u
      let varHi = varLo
      for (let l = 0; l < L; l++) {
        const j = sensitivity[q * L + l]!
        if (j === 0) continue
        const a = j * (lo[l]! - current[l]!)
        const b = j * (hi[l]! - current[l]!)
        muLo += a < b ? a : b
        muHi += a < b ? b : a
        const rel = relU[q * L + l]!
        if (rel > 0) {
          const big = Math.max(Math.abs(a), Math.abs(b)) * rel
          const small = a < 0 !== b < 0 ? 0 : Math.min(Math.abs(a), Math.abs(b)) * rel
          varLo += small * small
          varHi += big * big
        }
      }
      p *= bestLanding(
        muLo,
        muHi,
        Math.sqrt(varLo),
        Math.sqrt(varHi),
        quantity.window.min,
        quantity.window.max,
      )
      if (p === 0) return 0
    }
    return p
  }
}

/** Minus the least Σ((predicted − target) / half window)² over a box: what the search maximises when nothing fits. */
export function closenessBound(problem: ShimProblem): BoxScore {
  const { quantities, sensitivity, locations } = problem
  const L = locations.length
  return (lo, hi) => {
    let sum = 0
    for (let q = 0; q < quantities.length; q++) {
      const { measured, window, target } = quantities[q]!
      let muLo = measured
      let muHi = measured
      for (let l = 0; l < L; l++) {
        const j = sensitivity[q * L + l]!
        const a = j * (lo[l]! - locations[l]!.currentMm)
        const b = j * (hi[l]! - locations[l]!.currentMm)
        muLo += a < b ? a : b
        muHi += a < b ? b : a
      }
      const off =
        (target < muLo ? muLo - target : target > muHi ? target - muHi : 0) / ((window.max - window.min) / 2)
      sum += off * off
    }
    return -sum
  }
}

/** Mean and standard deviation of quantity `q` when the stacks are `thickness` (mm, one for each location). */
export function predict(
  problem: ShimProblem,
  q: number,
  thickness: ArrayLike<number>,
): { value: number; sigma: number } {
  const L = problem.locations.length
  const quantity = problem.quantities[q]!
  let value = quantity.measured
  let variance = quantity.u * quantity.u
  for (let l = 0; l < L; l++) {
    const change = problem.sensitivity[q * L + l]! * (thickness[l]! - problem.locations[l]!.currentMm)
    value += change
    variance += (problem.relU[q * L + l]! * change) ** 2
  }
  return { value, sigma: Math.sqrt(variance) }
}
