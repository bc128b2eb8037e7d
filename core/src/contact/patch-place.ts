import { refuse } from '../checks/input-error.ts'
import { finite } from '../checks/numbers.ts'
import type { Patch } from './tooth-contact.ts'

/** Where a patch lies on one flank: ξ from toe −1 to heel +1, η from root −1 to top +1. */
export interface PatchPlace {
  /** Centroid. */
  length: number
  profile: number
  /** Outermost points, where they were marked. All four, or none. */
  extents?: Patch['extents']
}

export interface PatchPair {
  drive: PatchPlace
  coast: PatchPlace
}

const EXTENTS = ['lengthMin', 'lengthMax', 'profileMin', 'profileMax'] as const

/** A place as a list of numbers; NaN for extents that were not marked. */
export function numbersOf(place: PatchPlace, withExtents: boolean): number[] {
  return [place.length, place.profile, ...(withExtents ? EXTENTS.map((e) => place.extents?.[e] ?? NaN) : [])]
}

/** Which of those numbers lie along the tooth. */
export const alongTooth = (withExtents: boolean): boolean[] => [
  true,
  false,
  ...(withExtents ? [true, true, false, false] : []),
]

export function meanPlace(places: PatchPlace[]): PatchPlace {
  const mean = (f: (p: PatchPlace) => number) => places.reduce((sum, p) => sum + f(p), 0) / places.length
  const marked = places.every((p) => p.extents)
  return {
    length: mean((p) => p.length),
    profile: mean((p) => p.profile),
    ...(marked
      ? {
          extents: Object.fromEntries(
            EXTENTS.map((e) => [e, mean((p) => p.extents![e])]),
          ) as Patch['extents'],
        }
      : {}),
  }
}

/** Largest distance between the centroids of two places round the gear, on either flank. */
export function movementOf(places: PatchPair[]): number {
  let most = 0
  for (const flank of ['drive', 'coast'] as const)
    for (const a of places)
      for (const b of places)
        most = Math.max(
          most,
          Math.hypot(a[flank].length - b[flank].length, a[flank].profile - b[flank].profile),
        )
  return most
}

/** @throws InputError on a centroid off the flank, or extents that do not hold it */
export function checkPair(at: string, pair: PatchPair): void {
  for (const flank of ['drive', 'coast'] as const) {
    const place = pair[flank]
    for (const name of ['length', 'profile'] as const)
      if (Math.abs(finite(`${at}${flank}.${name}`, place[name])) > 1)
        refuse(`${at}${flank}.${name}`, `is ${place[name]}; the flank runs from −1 to 1`)
    if (!place.extents) continue
    for (const e of EXTENTS) finite(`${at}${flank}.extents.${e}`, place.extents[e])
    const { lengthMin, lengthMax, profileMin, profileMax } = place.extents
    if (lengthMin > place.length || place.length > lengthMax)
      refuse(`${at}${flank}.extents`, `do not hold the centre along the tooth, ${place.length}`)
    if (profileMin > place.profile || place.profile > profileMax)
      refuse(`${at}${flank}.extents`, `do not hold the centre up the tooth, ${place.profile}`)
  }
}
