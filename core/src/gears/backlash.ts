import { refuse } from '../checks/input-error.ts'
import { finite, positive, within } from '../checks/numbers.ts'
import { meshGeometry, type Mesh } from './mesh.ts'

export type Member = 'pinion' | 'gear'

export interface BacklashTransferInput {
  mesh: Mesh
  /** What the indicator showed, mm. */
  readingMm: number
  /** Radius at which the plunger touches, measured from the turning member's axis, mm. */
  radiusMm: number
  /** The member that turns; the other is held. */
  member: Member
  /** Angle of the plunger to the motion at the touched point. @default 0 */
  indicatorAngleDeg?: number
}

export interface BacklashTransfer {
  /** Transverse backlash at the outer pitch circle, mm. */
  backlashMm: number
  /** Normal backlash j cos α cos β, mm. */
  normalBacklashMm: number
}

/**
 * How much one mm of backlash at the outer pitch circle shows on an indicator at `radiusMm`
 * on the turning member's shaft: ρ / r_X (both turn through the same angle).
 */
export function armFactor(mesh: Mesh, member: Member, radiusMm: number): number {
  const geometry = meshGeometry(mesh)
  const pitchRadius = member === 'pinion' ? geometry.pinionPitchRadiusMm : geometry.gearPitchRadiusMm
  return positive('radiusMm', radiusMm) / pitchRadius
}

/**
 * Backlash at the outer pitch circle from an indicator reading: j = reading · cos θ · r_X / ρ.
 * The cosine: a plunger at angle θ to the motion travels further than the face it touches.
 * @throws InputError on impossible geometry, a radius ≤ 0, or an indicator 80° or more off
 */
export function backlashTransfer(input: BacklashTransferInput): BacklashTransfer {
  finite('readingMm', input.readingMm)
  if (input.readingMm < 0) refuse('readingMm', `is ${input.readingMm}; backlash is not negative`)
  const angle = within('indicatorAngleDeg', input.indicatorAngleDeg ?? 0, -80, 80)
  if (input.member !== 'pinion' && input.member !== 'gear') refuse('member', 'is pinion or gear')
  const squared = input.readingMm * Math.cos((angle * Math.PI) / 180)
  const backlashMm = squared / armFactor(input.mesh, input.member, input.radiusMm)
  return { backlashMm, normalBacklashMm: backlashMm * meshGeometry(input.mesh).normalFactor }
}
