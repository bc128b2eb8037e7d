import { refuse } from '../checks/input-error.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'

export type Point3 = [x: number, y: number, z: number]

/** A tooth of one member in its own axes: z along its axis away from the apex, the tooth about x at mid face. mm. */
export interface ToothShape {
  /** Point of a flank: along −1 toe to +1 heel, up −1 root to +1 top; side +1 or −1 as {@link sideOf} says. */
  at: (along: number, up: number, side: 1 | -1) => Point3
  /** Angle from one tooth to the next, radians. */
  pitchAngle: number
  /** Angle of the pitch cone, radians. */
  coneAngle: number
}

/** Root below the pitch line over module, beside the mate's addendum: usual clearance of bevel gears. */
const CLEARANCE = 0.188

/**
 * The shape of a bevel tooth, for looking at it: flanks straight in profile at the pressure angle, lengthwise the arc of the cutter on the pitch cone laid
 * flat (R² + S² − 2 R S cos θ = r_c², S² = R_m² + r_c² − 2 R_m r_c sin β; Stadtfeld, Handbook of Bevel and Hypoid Gears, 1993, 2), everything in
 * proportion to the cone distance. Crowning is a hundredth of this and left out: what contact computes is not taken from here.
 * @param mesh with both addenda; a cutter where the teeth are spiral
 * @throws InputError without addenda or cutter
 */
export function toothShape(mesh: Mesh, member: 'pinion' | 'gear'): ToothShape {
  const g = meshGeometry(mesh)
  const { gearAddendumMm, pinionAddendumMm, pressureAngleDeg = 20, spiralAngleDeg = 0, hand = 1 } = mesh
  if (gearAddendumMm === undefined || pinionAddendumMm === undefined)
    refuse('mesh.gearAddendumMm', 'is missing; both addenda are needed to draw a tooth')
  const gear = member === 'gear'
  const teeth = gear ? mesh.gearTeeth : mesh.pinionTeeth
  const cone = ((gear ? g.gearPitchAngleDeg : g.pinionPitchAngleDeg) * Math.PI) / 180
  const [above, below] = gear ? [gearAddendumMm, pinionAddendumMm] : [pinionAddendumMm, gearAddendumMm]
  const [R0, Rm, Ri] = [g.outerConeDistanceMm, g.meanConeDistanceMm, g.innerConeDistanceMm]
  const tan = Math.tan((pressureAngleDeg * Math.PI) / 180)
  const twist = lengthwise(mesh, Rm, spiralAngleDeg)
  // the mate's spiral runs the other way round its own axis
  const way = (gear ? 1 : -1) * hand
  return {
    pitchAngle: (2 * Math.PI) / teeth,
    coneAngle: cone,
    at: (along, up, side) => {
      const R = Ri + ((along + 1) / 2) * (R0 - Ri)
      const scale = R / R0
      const height = (up >= 0 ? up * above : up * (below + CLEARANCE * mesh.moduleMm)) * scale
      const half = (Math.PI * mesh.moduleMm * scale) / 4 - height * tan
      const onCone = R * Math.sin(cone)
      const angle = (way * twist(R)) / Math.sin(cone) + (side * half) / onCone
      const radius = onCone + height * Math.cos(cone)
      const z = R * Math.cos(cone) - height * Math.sin(cone)
      return [radius * Math.cos(angle), radius * Math.sin(angle), z]
    },
  }
}

/** Angle on the pitch cone laid flat, at a cone distance, from mid face; radians. */
function lengthwise(mesh: Mesh, Rm: number, spiralDeg: number): (R: number) => number {
  if (spiralDeg === 0) return () => 0
  const rc = mesh.cutterRadiusMm
  if (!rc) return refuse('mesh.cutterRadiusMm', 'is missing; spiral teeth are drawn by their cutter')
  const S = Math.sqrt(Rm * Rm + rc * rc - 2 * Rm * rc * Math.sin((spiralDeg * Math.PI) / 180))
  const from = (R: number) => Math.acos(Math.max(-1, Math.min(1, (R * R + S * S - rc * rc) / (2 * R * S))))
  return (R) => from(Rm) - from(R)
}
