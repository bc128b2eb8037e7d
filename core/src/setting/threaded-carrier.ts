import { refuse } from '../checks/input-error.ts'
import { notNegative, positive, whole } from '../checks/numbers.ts'
import type { Member } from '../gears/backlash.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'

export interface ThreadedCarrierInput {
  mesh: Mesh
  /** Travel per turn, mm. */
  leadMm: number
  /** Present and wanted backlash at the outer pitch circle, mm. */
  backlashMm: number
  targetMm: number
  /** The member that the carrier moves. */
  member: Member
  /** Holes or notches round the carrier at which it can be locked. */
  notches?: number
}

export interface ThreadedCarrier {
  /** Turns inward; negative means outward, so loosen beyond and come back in. */
  turns: number
  degrees: number
  /** Nearest whole number of notches, and the backlash there. */
  notchSteps?: number
  backlashAtNotchMm?: number
  /** True when the target lies outward: the thread's play must end on the tight side. */
  loosenFirst: boolean
}

/**
 * Turns of a threaded carrier: backlash closes by lead × c per turn, c = ∂j/∂(axial) of the member moved.
 * Approach from loose to tight, so that the thread's play is always on the same side.
 * @throws InputError on impossible geometry, a lead ≤ 0 or a negative backlash
 */
export function threadedCarrier(input: ThreadedCarrierInput): ThreadedCarrier {
  const geometry = meshGeometry(input.mesh)
  if (input.member !== 'pinion' && input.member !== 'gear') refuse('member', 'is pinion or gear')
  const c = input.member === 'pinion' ? geometry.backlashPerPinionMm : geometry.backlashPerGearMm
  const perTurn = positive('leadMm', input.leadMm) * c
  const turns =
    (notNegative('backlashMm', input.backlashMm) - notNegative('targetMm', input.targetMm)) / perTurn
  const result: ThreadedCarrier = { turns, degrees: 360 * turns, loosenFirst: turns < 0 }
  if (input.notches === undefined) return result
  whole('notches', input.notches, 1, 360)
  const notchSteps = Math.round(turns * input.notches)
  return {
    ...result,
    notchSteps,
    backlashAtNotchMm: input.backlashMm - (perTurn * notchSteps) / input.notches,
  }
}
