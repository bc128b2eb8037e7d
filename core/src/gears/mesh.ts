import { InputError, type FieldProblem } from '../checks/input-error.ts'

/** One pair of bevel gears. Module is the outer transverse one, spiral angle that at mid face. */
export interface Mesh {
  pinionTeeth: number
  gearTeeth: number
  /** @default 90 */
  shaftAngleDeg?: number
  moduleMm: number
  faceWidthMm: number
  /** Normal pressure angle. @default 20 */
  pressureAngleDeg?: number
  /** At mid face; 0 for straight teeth. @default 0 */
  spiralAngleDeg?: number
  cutterRadiusMm?: number
  /** Hand of the spiral. @default 1 */
  hand?: 1 | -1
  gearAddendumMm?: number
  pinionAddendumMm?: number
}

export interface MeshGeometry {
  pinionPitchAngleDeg: number
  gearPitchAngleDeg: number
  outerConeDistanceMm: number
  meanConeDistanceMm: number
  innerConeDistanceMm: number
  pinionPitchRadiusMm: number
  gearPitchRadiusMm: number
  /** Backlash at the outer pitch circle, mm per mm of the pinion moving outward on its axis. */
  backlashPerPinionMm: number
  /** The same for the gear. */
  backlashPerGearMm: number
  /** Normal backlash over transverse backlash, cos α cos β. */
  normalFactor: number
}

const RAD = Math.PI / 180

/** @throws InputError naming every field that makes the geometry impossible */
export function checkMesh(mesh: Mesh, path = 'mesh'): void {
  const problems: FieldProblem[] = []
  const need = (field: keyof Mesh, ok: boolean, message: string) => {
    if (!ok) problems.push({ path: `${path}.${field}`, message: `is ${String(mesh[field])}; ${message}` })
  }
  const teeth = (z: number) => Number.isInteger(z) && z >= 3 && z <= 300
  need('pinionTeeth', teeth(mesh.pinionTeeth), 'a whole number from 3 to 300')
  need('gearTeeth', teeth(mesh.gearTeeth), 'a whole number from 3 to 300')
  const between = (v: number | undefined, low: number, high: number) =>
    v === undefined || (Number.isFinite(v) && v > low && v < high)
  need('shaftAngleDeg', between(mesh.shaftAngleDeg, 0, 180), 'an angle between 0 and 180 degrees')
  need('moduleMm', between(mesh.moduleMm, 0, 100) && mesh.moduleMm !== undefined, 'above 0 and below 100 mm')
  need('faceWidthMm', between(mesh.faceWidthMm, 0, 1000) && mesh.faceWidthMm !== undefined, 'above 0 mm')
  need('pressureAngleDeg', between(mesh.pressureAngleDeg, 0, 45), 'between 0 and 45 degrees')
  need('spiralAngleDeg', between(mesh.spiralAngleDeg, -60, 60), 'between −60 and 60 degrees')
  if (problems.length) throw new InputError('impossible-geometry', problems)

  const { outerConeDistance, pinionPitchAngle, gearPitchAngle } = cones(mesh)
  if (!(pinionPitchAngle > 0) || !(gearPitchAngle > 0) || gearPitchAngle >= Math.PI / 2 + 1e-12)
    throw new InputError('impossible-geometry', [
      {
        path: `${path}.shaftAngleDeg`,
        message: `is ${mesh.shaftAngleDeg ?? 90}; with these teeth it makes no outside bevel pair`,
      },
    ])
  if (mesh.faceWidthMm >= outerConeDistance)
    throw new InputError('impossible-geometry', [
      {
        path: `${path}.faceWidthMm`,
        message: `is ${mesh.faceWidthMm}; it must be smaller than the outer cone distance ${outerConeDistance.toFixed(2)} mm`,
      },
    ])
}

/**
 * Pitch cone angle of the gear, radians: tan δ₂ = sin Σ / (z₁/z₂ + cos Σ); the pinion's is what is left of the shaft angle.
 * @param shaftAngle Σ, radians
 */
export const gearPitchAngleOf = (pinionTeeth: number, gearTeeth: number, shaftAngle: number): number =>
  Math.atan2(Math.sin(shaftAngle), pinionTeeth / gearTeeth + Math.cos(shaftAngle))

/** Pitch cone angles (radians) and outer cone distance (mm). */
function cones(mesh: Mesh) {
  const sigma = (mesh.shaftAngleDeg ?? 90) * RAD
  const gearPitchAngle = gearPitchAngleOf(mesh.pinionTeeth, mesh.gearTeeth, sigma)
  const pinionPitchAngle = sigma - gearPitchAngle
  const outerConeDistance = (mesh.moduleMm * mesh.gearTeeth) / (2 * Math.sin(gearPitchAngle))
  return { pinionPitchAngle, gearPitchAngle, outerConeDistance }
}

/**
 * Pitch cones of a bevel pair and how backlash answers to axial displacement.
 *
 *     tan δ₂ = sin Σ / (z₁/z₂ + cos Σ),  R_o = m z₂ / (2 sin δ₂)          pitch cone, any textbook of bevel gears
 *     ∂j/∂p = 2 (tan α / cos β) (R_o/R_m) sin δ₁,  ∂j/∂g likewise with sin δ₂
 *
 * Derivation of the sensitivities: a displacement d along a member's axis moves both flanks' gap by d·n; the
 * two flank normals at the pitch point add to 2 sin α along the pitch-plane normal, the axis makes the angle
 * δ with the pitch plane, and the lengthwise parts cancel. The tooth bears near mid face, where β holds;
 * R_o/R_m carries the value out to the outer pitch circle where backlash is quoted.
 *
 * Signs: displacements are positive outward (away from the common apex), backlash then grows.
 * @throws InputError for geometry that cannot be cut
 */
export function meshGeometry(mesh: Mesh): MeshGeometry {
  checkMesh(mesh)
  const { pinionPitchAngle, gearPitchAngle, outerConeDistance } = cones(mesh)
  const meanConeDistance = outerConeDistance - mesh.faceWidthMm / 2
  const alpha = (mesh.pressureAngleDeg ?? 20) * RAD
  const beta = (mesh.spiralAngleDeg ?? 0) * RAD
  const perNormal = 2 * (Math.tan(alpha) / Math.cos(beta)) * (outerConeDistance / meanConeDistance)
  return {
    pinionPitchAngleDeg: pinionPitchAngle / RAD,
    gearPitchAngleDeg: gearPitchAngle / RAD,
    outerConeDistanceMm: outerConeDistance,
    meanConeDistanceMm: meanConeDistance,
    innerConeDistanceMm: outerConeDistance - mesh.faceWidthMm,
    pinionPitchRadiusMm: (mesh.moduleMm * mesh.pinionTeeth) / 2,
    gearPitchRadiusMm: (mesh.moduleMm * mesh.gearTeeth) / 2,
    backlashPerPinionMm: perNormal * Math.sin(pinionPitchAngle),
    backlashPerGearMm: perNormal * Math.sin(gearPitchAngle),
    normalFactor: Math.cos(alpha) * Math.cos(beta),
  }
}
