import type { Mesh } from '../gears/mesh.ts'

/** Flanks as the technician names them, and which side of the gear's tooth each is: the drive flank is taken as the gear's concave one. */
export const FLANKS = ['drive', 'coast'] as const
export type Flank = (typeof FLANKS)[number]
export const sideOf = (flank: Flank, mesh: Mesh): 1 | -1 => {
  const concave = mesh.hand ?? 1
  return flank === 'drive' ? concave : concave === 1 ? -1 : 1
}
