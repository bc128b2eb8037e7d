import { USUAL_CROWN } from '@moray/core/contact/as-set'
import { FLANKS, sideOf, type Flank, type PushedFlank } from '@moray/core/gears/flank'
import {
  contactSolver,
  patchLine,
  type ContactSetting,
  type ContactSolver,
  type PatchLine,
} from '@moray/core/contact/tooth-contact'
import type { Mesh } from '@moray/core/gears/mesh'

export interface PairAsked {
  id: string
  mesh: Mesh
  pushed: PushedFlank
  setting: ContactSetting
}

/** Patches of a pair by flank; null where nothing touches. */
export type PairPatches = Record<Flank, PatchLine | null>

/** Contact patches of pairs of gears; what of a pair does not change with its setting is kept. */
export function createContactApi() {
  const known = new Map<string, Record<Flank, ContactSolver>>()
  function solversOf({ mesh, pushed }: PairAsked): Record<Flank, ContactSolver> {
    const key = JSON.stringify({ mesh, pushed })
    let solvers = known.get(key)
    if (!solvers) {
      const of = (flank: Flank) => contactSolver(mesh, sideOf(flank, { mesh, pushed }))
      known.set(key, (solvers = { drive: of('drive'), coast: of('coast') }))
    }
    return solvers
  }
  return {
    patches: (pairs: PairAsked[]): Record<string, PairPatches> =>
      Object.fromEntries(
        pairs.map((pair) => {
          const { id, setting } = pair
          const solvers = solversOf(pair)
          const [drive, coast] = FLANKS.map((f) => patchLine(solvers[f], setting, USUAL_CROWN) ?? null)
          return [id, { drive: drive!, coast: coast! }]
        }),
      ),
  }
}

export type ContactApi = ReturnType<typeof createContactApi>
