import type { Mesh } from './mesh.ts'

/** Flanks as the technician names them: the one that is pushed as the drive goes ahead, and the other one. */
export const FLANKS = ['drive', 'coast'] as const
export type Flank = (typeof FLANKS)[number]

/** Flanks of a spiral gear tooth as they are shaped. */
export type GearFlank = 'concave' | 'convex'

/** Which flank of the gear is pushed; `alike` on straight teeth; undefined where nobody has said. */
export type PushedFlank = GearFlank | 'alike' | undefined

/** What tells which flank is pushed: seen by somebody, or the hand of the pinion's spiral and the way it turns, seen from its shaft. */
export interface Pushing {
  mesh: Mesh
  pushed?: GearFlank
  pinionHand?: 'left' | 'right'
  pinionTurns?: 'clockwise' | 'anticlockwise'
}

/**
 * Which flank of the gear the pinion pushes: as somebody has seen it, or from the hand of the pinion's spiral and the way it turns, seen from its
 * shaft. Left hand turning clockwise, or right hand turning anticlockwise: the pinion's concave flank leads and pushes the gear's convex one; the
 * other two push the concave one. The side on which the gear sits does not matter.
 */
export function pushedFlank(pair: Pushing): PushedFlank {
  if (!pair.mesh.spiralAngleDeg) return 'alike'
  return pair.pushed ?? pushedByTurning(pair)
}

/** The same from hand and turning alone. */
export function pushedByTurning({
  pinionHand,
  pinionTurns,
}: Pick<Pushing, 'pinionHand' | 'pinionTurns'>): GearFlank | undefined {
  if (!pinionHand || !pinionTurns) return undefined
  return (pinionHand === 'left') === (pinionTurns === 'clockwise') ? 'convex' : 'concave'
}

/** How a flank is shaped; undefined where both are alike, or nobody knows which is which. */
export function shapeOf(flank: Flank, pushed: PushedFlank): GearFlank | undefined {
  if (pushed === undefined || pushed === 'alike') return undefined
  return flank === 'drive' ? pushed : pushed === 'concave' ? 'convex' : 'concave'
}

/**
 * The side of the gear's tooth for the contact computation (tooth-contact.ts: side × hand = +1 is the concave one). Where nobody knows which
 * flank is pushed, drive stands for the concave one: what is shown then must say concave and convex, not drive and coast.
 */
export function sideOf(flank: Flank, { mesh, pushed }: { mesh: Mesh; pushed: PushedFlank }): 1 | -1 {
  const concave = mesh.hand ?? 1
  return (flank === 'drive') === (pushed !== 'convex') ? concave : concave === 1 ? -1 : 1
}
