import { dampedLeastSquares, unitCovariance } from '../numbers/least-squares.ts'

/** Searched range: mm for pinion, gear and offset; degrees for the shaft angle. */
export const BOUND = { pinion: 0.6, gear: 0.6, offset: 0.3, 'shaft-angle': 0.3 }
export type Unknown = keyof typeof BOUND

/** What was seen or measured, each with its standard uncertainty, and what the model makes of the unknowns. */
export interface Observed {
  wanted: readonly number[]
  u: readonly number[]
  model: (x: readonly number[]) => number[]
}

export interface PatternFit {
  x: number[]
  /** Covariance of the unknowns, the searched range taken as all that was known before. */
  covariance: number[][]
  /** Wanted minus model at the best. */
  rest: number[]
  /** Sum of the squared residuals over their uncertainties. */
  squares: number
  /** Of pinion and gear by what was seen: largest over smallest singular value of the weighted Jacobian. */
  condition: number
  /** Other answers that fit as well. */
  rivals: number[][]
  iterations: number
}

const MOST_ITERATIONS = 25
/** Length of a step, in mm and degrees together, that is as good as none. */
const STILL = 1e-4
/** Step of the central differences, mm and degrees: patches end at whole samples, so a shorter one sees their steps. */
const H = 0.02
/** The same for U, over about as far as U reaches: the height of a patch answers within hundredths and then no more. */
const H_OF_U = 0.03
/** Pinion and gear are searched from these places: patches saturate at the edges, so there can be more than one valley. */
const STARTS = [-0.3, 0, 0.3]
/** A fit whose squares are no further than this above the best fits as well: two standard deviations of one unknown. */
const AS_WELL = 4

/**
 * Weighted least squares by damped Gauss-Newton from nine starts.
 * @param unknowns pinion and gear first
 */
export function fitPattern(unknowns: readonly Unknown[], seen: Observed): PatternFit {
  const scaled = (values: readonly number[]) => values.map((v, i) => v / seen.u[i]!)
  const misfit = (x: readonly number[]) => scaled(seen.model(x).map((v, i) => seen.wanted[i]! - v))
  const slopesAt = (x: readonly number[], h = H) =>
    unknowns.map((_, k) => {
      const [after, before] = [1, -1].map((s) => seen.model(x.map((v, i) => (i === k ? v + s * h : v))))
      return scaled(after!.map((v, i) => (v - before![i]!) / (2 * h)))
    })
  const bounds = unknowns.map((name) => BOUND[name])
  const fits = STARTS.flatMap((pinion) =>
    STARTS.map((gear) =>
      dampedLeastSquares(
        [pinion, gear, ...unknowns.slice(2).map(() => 0)],
        misfit,
        (x) => slopesAt(x),
        bounds,
        STILL,
        MOST_ITERATIONS,
      ),
    ),
  )
  const best = fits.reduce((a, b) => (b.squares < a.squares ? b : a))
  const slopes = slopesAt(best.x, H_OF_U)
  return {
    x: best.x,
    covariance: covarianceOf(slopes, bounds),
    rest: best.rest.map((r, i) => r * seen.u[i]!),
    squares: best.squares,
    condition: conditionOf(slopes[0]!, slopes[1]!),
    rivals: fits.filter((f) => f !== best && f.squares <= best.squares + AS_WELL).map((f) => f.x),
    iterations: fits.reduce((sum, f) => sum + f.steps, 0),
  }
}

/** Standard uncertainty of a combination of the unknowns, widened to hold every answer that fits as well. */
export function uncertaintyOf(fit: PatternFit, along: readonly number[]): number {
  const variance = along.reduce(
    (sum, a, i) => sum + along.reduce((s, b, k) => s + a * b * fit.covariance[i]![k]!, 0),
    0,
  )
  const away = fit.rivals.map((x) => Math.abs(along.reduce((s, a, i) => s + a * (x[i]! - fit.x[i]!), 0)))
  // a rival lies within U (k = 2)
  return Math.max(Math.sqrt(Math.max(0, variance)), ...away.map((d) => d / 2))
}

/** The combination of pinion and gear that was seen best: unit eigenvector of the larger eigenvalue of their covariance's inverse. */
export function bestKnown(fit: PatternFit): [pinion: number, gear: number] {
  const [[a, b], [, d]] = fit.covariance as [[number, number], [number, number]]
  // the covariance's long axis lies at this angle; what is known lies square to it
  const long = Math.atan2(2 * b, a - d) / 2
  const [pinion, gear] = [-Math.sin(long), Math.cos(long)]
  return gear < 0 ? [-pinion, -gear] : [pinion, gear]
}

function covarianceOf(slopes: readonly number[][], bounds: readonly number[]): number[][] {
  const observed = slopes[0]!.map((_, i) => slopes.map((s) => s[i]!))
  // evenly anywhere in the searched range: a variance of a third of its half width squared
  const searched = bounds.map((b, i) => bounds.map((_, k) => (i === k ? Math.sqrt(3) / b : 0)))
  return unitCovariance([...observed, ...searched])!
}

function conditionOf(pinion: readonly number[], gear: readonly number[]): number {
  const [a, b, d] = [dot(pinion, pinion), dot(pinion, gear), dot(gear, gear)]
  const half = Math.hypot(a - d, 2 * b)
  const [large, small] = [a + d + half, a + d - half]
  return small > 0 ? Math.sqrt(large / small) : Infinity
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)
