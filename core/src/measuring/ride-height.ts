import { parabola } from '../numbers/parabola.ts'
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

/** How much the ride falls by the wedge of the cones alone, per mm of the pinion: sin δ₁/sin δ₂. */
function wedgeOf(mesh: Mesh): number {
  const g = meshGeometry(mesh)
  const rad = Math.PI / 180
  return Math.sin(g.pinionPitchAngleDeg * rad) / Math.sin(g.gearPitchAngleDeg * rad)
}

/** Rides without what the cones make of them, counted from the first place, mm: what is lowest where the flanks fit best. */
export function withoutWedge(mesh: Mesh, points: RideHeightInput['points']): number[] {
  const wedge = wedgeOf(mesh)
  return points.map((p) => p.rideMm + wedge * (p.pinionMm - points[0]!.pinionMm))
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
  const wedge = wedgeOf(input.mesh)

  const positions = points.map((p) => p.pinionMm)
  if (new Set(positions).size < 3) refuse('points', 'need at least three different pinion positions')
  const centre = positions.reduce((a, b) => a + b, 0) / positions.length
  const fit = parabola(
    positions,
    points.map((p) => p.rideMm + wedge * (p.pinionMm - centre)),
  )
  if (fit === 'close')
    return refuse('points', 'lie too close together for a parabola; spread the pinion positions')
  if (fit === 'straight')
    return refuse('points', 'show no curvature; take positions farther apart', 'no-curvature')
  return {
    vertexMm: fit.vertex,
    vertexUMm: 2 * fit.vertexSd,
    residualMm: Math.sqrt(fit.squares / points.length),
    minimum: fit.opensUp,
    inside: fit.inside,
  }
}
