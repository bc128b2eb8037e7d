import { solveSymmetric } from './linear.ts'

/** A linear least-squares fit: y ≈ Σ xₖ · row[k]. */
export interface LinearFit {
  /** One value for each column of the rows. */
  x: number[]
  /** Σ of the squared residuals. */
  squares: number
}

/** Normal equations of rows against y: AᵀA and Aᵀy. */
function normalEquations(rows: readonly (readonly number[])[], y: readonly number[]) {
  const n = rows[0]?.length ?? 0
  const matrix = Array.from({ length: n }, () => new Array<number>(n).fill(0))
  const right = new Array<number>(n).fill(0)
  rows.forEach((row, i) => {
    for (let j = 0; j < n; j++) {
      right[j]! += row[j]! * y[i]!
      for (let k = 0; k <= j; k++) matrix[j]![k]! += row[j]! * row[k]!
    }
  })
  return { matrix, right }
}

/**
 * Least squares by the normal equations. Centre and scale the columns first, so that they are well conditioned.
 * @param rows one for each value of y, all of the same length
 * @returns undefined when the unknowns cannot be told apart, or there are fewer rows than unknowns
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  y: readonly number[],
): LinearFit | undefined {
  if (rows.length < (rows[0]?.length ?? 1)) return undefined
  const { matrix, right } = normalEquations(rows, y)
  const x = solveSymmetric(matrix, right)
  if (!x) return undefined
  const squares = rows.reduce((sum, row, i) => {
    const off = y[i]! - row.reduce((s, a, k) => s + a * x[k]!, 0)
    return sum + off * off
  }, 0)
  return { x, squares }
}

/** (AᵀA)⁻¹, the covariance of the unknowns for a unit variance of y; undefined when they cannot be told apart. */
export function unitCovariance(rows: readonly (readonly number[])[]): number[][] | undefined {
  const { matrix } = normalEquations(rows, new Array<number>(rows.length).fill(0))
  const columns = matrix.map((_, k) =>
    solveSymmetric(
      matrix,
      matrix.map((__, i) => (i === k ? 1 : 0)),
    ),
  )
  return columns.every((c) => c !== undefined) ? columns : undefined
}

export interface LineFit {
  slope: number
  /** Value of the line at the mean of x. */
  middle: number
  meanX: number
  /** Σ (x − mean)². */
  xx: number
  squares: number
}

/**
 * A straight line by least squares, about the means and from the first value, so that large values keep their digits.
 * @returns undefined when all x are the same
 */
export function lineFit(x: ArrayLike<number>, y: ArrayLike<number>): LineFit | undefined {
  const n = x.length
  let [meanX, above] = [0, 0]
  for (let i = 0; i < n; i++) {
    meanX += x[i]! / n
    above += (y[i]! - y[0]!) / n
  }
  let [xx, xy] = [0, 0]
  for (let i = 0; i < n; i++) {
    xx += (x[i]! - meanX) ** 2
    xy += (x[i]! - meanX) * (y[i]! - y[0]! - above)
  }
  if (!(xx > 0)) return undefined
  const slope = xy / xx
  let squares = 0
  for (let i = 0; i < n; i++) squares += (y[i]! - y[0]! - above - slope * (x[i]! - meanX)) ** 2
  return { slope, middle: y[0]! + above, meanX, xx, squares }
}

/** How an iteration ended. `capped`: it was still moving; its result is no fit. */
export type Ending = 'converged' | 'capped' | 'failed'

export interface NonlinearFit {
  status: Ending
  x: number[]
  squares: number
  steps: number
}

/**
 * Gauss-Newton: the least squares of residuals that are not linear in the unknowns (Björck, Numerical Methods for Least Squares Problems,
 * 1996, 9.2).
 * @param residuals at x: y − model, and the model's derivatives by each unknown, a row for each residual; undefined where the
 *   model has no meaning
 * @param settled whether a step from x by `change` is small enough to stop
 * @param mostSteps the cap
 */
export function gaussNewton(
  start: readonly number[],
  residuals: (x: readonly number[]) => { rest: number[]; rows: number[][] } | undefined,
  settled: (x: readonly number[], change: readonly number[]) => boolean,
  mostSteps: number,
): NonlinearFit {
  let x = [...start]
  const squaresOf = (rest: readonly number[]) => rest.reduce((s, r) => s + r * r, 0)
  for (let steps = 1; steps <= mostSteps; steps++) {
    const at = residuals(x)
    const change = at && leastSquares(at.rows, at.rest)?.x
    if (!change) return { status: 'failed', x, squares: NaN, steps }
    x = x.map((v, k) => v + change[k]!)
    if (!settled(x, change)) continue
    const end = residuals(x)
    return end
      ? { status: 'converged', x, squares: squaresOf(end.rest), steps }
      : { status: 'failed', x, squares: NaN, steps }
  }
  const end = residuals(x)
  return { status: 'capped', x, squares: end ? squaresOf(end.rest) : NaN, steps: mostSteps }
}

/**
 * Damped least squares within bounds (Levenberg, Quart. Appl. Math. 2, 1944, 164): a step that does not help is shortened by damping,
 * one that helps relaxes it; each unknown is held within its bound. For models that are dear and not smooth enough for the plain step.
 * @param misfit y − model at x
 * @param slopes derivatives of the model at x, a list over the residuals for each unknown
 * @param bounds largest magnitude of each unknown
 * @param still length of a step below which it has converged
 * @param mostSteps the cap
 */
export function dampedLeastSquares(
  start: readonly number[],
  misfit: (x: readonly number[]) => number[],
  slopes: (x: readonly number[]) => number[][],
  bounds: readonly number[],
  still: number,
  mostSteps: number,
): NonlinearFit & { rest: number[]; slopes: number[][] } {
  const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)
  let x = [...start]
  let rest = misfit(x)
  let slopesHere = slopes(x)
  let damping = 1e-3
  for (let steps = 1; steps <= mostSteps; steps++) {
    const normal = slopesHere.map((a) => slopesHere.map((b) => dot(a, b)))
    const pull = slopesHere.map((a) => dot(a, rest))
    let moved = 0
    for (let tries = 0; tries < MOST_TRIES && moved === 0; tries++) {
      const damped = normal.map((row, i) => row.map((v, k) => (i === k ? v * (1 + damping) : v)))
      const step = solveSymmetric(damped, pull)
      if (!step) {
        damping *= 10
        continue
      }
      const next = x.map((v, k) => Math.max(-bounds[k]!, Math.min(bounds[k]!, v + step[k]!)))
      const nextRest = misfit(next)
      if (dot(nextRest, nextRest) >= dot(rest, rest)) {
        damping *= 5
        continue
      }
      moved = Math.hypot(...next.map((v, k) => v - x[k]!))
      x = next
      rest = nextRest
      damping /= 5
    }
    // no step helps any more, or the last one was as good as none
    if (moved <= still)
      return { status: 'converged', x, squares: dot(rest, rest), steps, rest, slopes: slopesHere }
    slopesHere = slopes(x)
  }
  return { status: 'capped', x, squares: dot(rest, rest), steps: mostSteps, rest, slopes: slopesHere }
}

/** Dampings that are tried for one step before it counts as none. */
const MOST_TRIES = 6
