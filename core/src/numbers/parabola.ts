import { leastSquares, unitCovariance } from './least-squares.ts'

export interface Parabola {
  /** Where it turns, in the units of x, and what it is there. */
  vertex: number
  value: number
  /** Standard uncertainties of both from the scatter of the points; 0 with three points, which leave none. */
  vertexSd: number
  valueSd: number
  /** True when it opens upward. */
  opensUp: boolean
  /** The vertex lies between the outermost x. */
  inside: boolean
  /** Σ of the squared residuals. */
  squares: number
}

/**
 * A parabola by least squares, x centred and scaled to ±1 and y counted from its first value, so that positions near 50 mm keep their
 * digits. Uncertainties by propagating the covariance of y = c + bx + ax² to −b/2a and c − b²/4a.
 * @returns `'close'` when the x cannot be told apart, `'straight'` when there is no curvature
 */
export function parabola(x: readonly number[], y: readonly number[]): Parabola | 'close' | 'straight' {
  const centre = x.reduce((a, b) => a + b, 0) / x.length
  const half = (Math.max(...x) - Math.min(...x)) / 2
  if (!(half > 0)) return 'close'
  const base = y[0]!
  const rows = x.map((v) => {
    const s = (v - centre) / half
    return [1, s, s * s]
  })
  const above = y.map((v) => v - base)
  const fit = leastSquares(rows, above)
  const inverse = unitCovariance(rows)
  if (!fit || !inverse) return 'close'
  const [c, b, a] = fit.x as [number, number, number]
  if (Math.abs(a) < 1e-12 * Math.max(...above.map(Math.abs), 1e-300)) return 'straight'
  const variance = x.length > 3 ? fit.squares / (x.length - 3) : 0
  const spread = (by: [number, number, number]) => {
    let sum = 0
    for (let i = 0; i < 3; i++) for (let k = 0; k < 3; k++) sum += by[i]! * by[k]! * inverse[i]![k]!
    return Math.sqrt(Math.max(0, variance * sum))
  }
  const turn = -b / (2 * a)
  return {
    vertex: centre + half * turn,
    value: base + c - (b * b) / (4 * a),
    vertexSd: half * spread([0, -1 / (2 * a), b / (2 * a * a)]),
    valueSd: spread([1, turn, turn * turn]),
    opensUp: a > 0,
    inside: Math.abs(turn) <= 1,
    squares: fit.squares,
  }
}
