import { leastSquares, unitCovariance } from '../numbers/least-squares.ts'
import { InputError, refuse } from '../checks/input-error.ts'
import { finite } from '../checks/numbers.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'

export interface RideHeightInput {
  mesh: Mesh
  /** Where the pinion was set and how far out the gear then rode, both outward positive, mm; at least 4. */
  points: { pinionMm: number; rideMm: number }[]
}

export interface RideHeight {
  /** Pinion position where the flanks fit best. */
  vertexMm: number
  /** Expanded uncertainty (k = 2) of the vertex from the scatter of the points. */
  vertexUMm: number
  /** Root mean square of the residuals. */
  residualMm: number
  /** True when the corrected parabola opens upward: only then is the vertex a best fit. */
  minimum: boolean
  /** True when the vertex lies between the outermost pinion positions. */
  inside: boolean
}

/**
 * Ride-height search for a pair without a known depth. The wedge of the cones makes the ride fall by
 * sin δ₁/sin δ₂ per mm of the pinion; what is left, g + p sin δ₁/sin δ₂, is lowest where the flanks fit best.
 * Quadratic by least squares, centred and scaled (positions near 50 mm would spoil the normal equations).
 * U by propagating the covariance of the coefficients to −b/2a.
 * @throws InputError on fewer than 4 points, fewer than 3 different positions, or no curvature at all
 */
export function rideHeight(input: RideHeightInput): RideHeight {
  const { points } = input
  if (!Array.isArray(points) || points.length < 4)
    throw new InputError('invalid-input', [
      { path: 'points', message: `holds ${points?.length ?? 0}; at least 4 are needed` },
    ])
  points.forEach((p, i) => {
    finite(`points[${i}].pinionMm`, p.pinionMm)
    finite(`points[${i}].rideMm`, p.rideMm)
  })
  const g = meshGeometry(input.mesh)
  const rad = Math.PI / 180
  const wedge = Math.sin(g.pinionPitchAngleDeg * rad) / Math.sin(g.gearPitchAngleDeg * rad)

  const positions = points.map((p) => p.pinionMm)
  const centre = positions.reduce((a, b) => a + b, 0) / positions.length
  const half = (Math.max(...positions) - Math.min(...positions)) / 2
  if (new Set(positions).size < 3) refuse('points', 'need at least three different pinion positions')
  const base = points[0]!.rideMm
  const xs = positions.map((p) => (p - centre) / half)
  const ys = points.map((p) => p.rideMm - base + wedge * (p.pinionMm - centre))

  const { coefficients, inverse, squares } = quadraticFit(xs, ys)
  const [, b, a] = coefficients
  const scale = Math.max(...ys.map(Math.abs), 1e-300)
  if (Math.abs(a) < 1e-12 * scale)
    refuse('points', 'show no curvature; take positions farther apart', 'no-curvature')
  const variance = points.length > 3 ? squares / (points.length - 3) : 0
  const [db, da] = [-1 / (2 * a), b / (2 * a * a)]
  const spread = db * db * inverse[1]![1]! + 2 * db * da * inverse[1]![2]! + da * da * inverse[2]![2]!
  const vertex = -b / (2 * a)
  return {
    vertexMm: centre + half * vertex,
    vertexUMm: 2 * half * Math.sqrt(Math.max(0, variance * spread)),
    residualMm: Math.sqrt(squares / points.length),
    minimum: a > 0,
    inside: Math.abs(vertex) <= 1,
  }
}

/** y = c₀ + c₁x + c₂x²; x within about ±1, so that the normal equations are well conditioned. */
function quadraticFit(
  xs: number[],
  ys: number[],
): { coefficients: [number, number, number]; inverse: number[][]; squares: number } {
  const rows = xs.map((x) => [1, x, x * x])
  const fit = leastSquares(rows, ys)
  const inverse = unitCovariance(rows)
  if (!fit || !inverse)
    return refuse('points', 'lie too close together for a parabola; spread the pinion positions')
  return { coefficients: fit.x as [number, number, number], inverse, squares: fit.squares }
}
