import { notNegative } from '../checks/numbers.ts'
import { meshGeometry, type Mesh } from './mesh.ts'

export interface SensitivityUncertaintyInput {
  mesh: Mesh
  /** Standard uncertainties of what was counted, measured or assumed. */
  u: {
    pressureAngleDeg?: number
    spiralAngleDeg?: number
    faceWidthMm?: number
    /** Relative. */
    moduleRel?: number
    /** Relative, of the radius at which the indicator stands. */
    radiusRel?: number
    /** The backlash is read at an arm: the module enters once more through the pitch radius. */
    atArm: boolean
  }
}

const RAD = Math.PI / 180

/**
 * Relative standard uncertainty of a sensitivity c = 2 tan α / cos β · R_o/R_m · sin δ (at an arm × ρ/r), first order:
 * ∂ln c/∂α = 1/(sin α cos α), ∂ln c/∂β = tan β, ∂ln c/∂F = 1/(2 R_m), ∂ln c/∂ln m = 1 − R_o/R_m, less 1 at an arm, where the
 * radius adds its own.
 * @throws InputError for geometry that cannot be cut, or uncertainties below zero
 */
export function sensitivityUncertainty({ mesh, u }: SensitivityUncertaintyInput): { relU: number } {
  const { outerConeDistanceMm, meanConeDistanceMm } = meshGeometry(mesh)
  const of = (name: Exclude<keyof typeof u, 'atArm'>) => notNegative(`u.${name}`, u[name] ?? 0)
  const alpha = (mesh.pressureAngleDeg ?? 20) * RAD
  const beta = (mesh.spiralAngleDeg ?? 0) * RAD
  const byModule = 1 - outerConeDistanceMm / meanConeDistanceMm - (u.atArm ? 1 : 0)
  return {
    relU: Math.hypot(
      (of('pressureAngleDeg') * RAD) / (Math.sin(alpha) * Math.cos(alpha)),
      Math.tan(beta) * of('spiralAngleDeg') * RAD,
      of('faceWidthMm') / (2 * meanConeDistanceMm),
      byModule * of('moduleRel'),
      u.atArm ? of('radiusRel') : 0,
    ),
  }
}
