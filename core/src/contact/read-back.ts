import type { DriveSheet } from '../drives/sheet.ts'
import { USUAL_CROWN, type ContactPair } from './as-set.ts'
import { FLANKS, sideOf, type Flank } from './flank.ts'
import { placeOf, type Outline } from './marked.ts'
import type { PatternReadInput } from './pattern-read.ts'

/** Places round the gear: one says how it is set, three tell runout from setting. */
export const PLACES = [1, 2, 3] as const

/** What of a mark is looked at. */
export interface Seen {
  mesh: string
  flank: Flank
  place: number
  outline: Outline
  superseded: unknown
}

/** The marks that count, by place and flank. */
export type Marks<Mark extends Seen = Seen> = Record<number, Partial<Record<Flank, Mark>>>

export function marksOf<Mark extends Seen>(patterns: readonly Mark[], mesh: string): Marks<Mark> {
  const found: Marks<Mark> = {}
  for (const p of patterns) if (p.mesh === mesh && !p.superseded) (found[p.place] ??= {})[p.flank] = p
  return found
}

/** The place that wants a mark next: the first flank of the first place that has none. */
export function nextMark(marks: Marks): { place: number; flank: Flank } {
  for (const place of PLACES) for (const flank of FLANKS) if (!marks[place]?.[flank]) return { place, flank }
  return { place: 1, flank: 'drive' }
}

/** How large a patch is hangs on crowning and compound, which nobody has measured: only where it lies is read back. */
const centreOf = (outline: Outline) => {
  const { length, profile } = placeOf(outline)
  return { length, profile }
}

/**
 * The question to the pattern (pattern-read.ts): every place at which both flanks are marked, beside what the gauges say, the answer in shims.
 * @returns undefined while no place has both flanks, and where the teeth are only drawn: nobody knows then what a patch means
 */
export function readBackOf(
  sheet: DriveSheet,
  { pair, teeth, stands }: ContactPair,
  marks: Marks,
): PatternReadInput | undefined {
  if (pair.basis === 'drawn') return undefined
  const [first, ...otherPlaces] = PLACES.flatMap((n) => {
    const { drive, coast } = marks[n] ?? {}
    return drive && coast ? [{ drive: centreOf(drive.outline), coast: centreOf(coast.outline) }] : []
  })
  if (!first) return undefined
  const effectOn = (gear: string) => {
    const effect = sheet.adjusters.find((a) => a.kind === 'shim' && a.moves === gear)?.effect
    return effect === 1 || effect === -1 ? effect : undefined
  }
  const [pinionEffect, gearEffect] = [effectOn(pair.pinion), effectOn(pair.gear)]
  return {
    mesh: teeth.mesh,
    ...USUAL_CROWN,
    ...first,
    driveSide: sideOf('drive', teeth.mesh),
    ...(otherPlaces.length ? { otherPlaces } : {}),
    ...(stands
      ? {
          gauged: {
            pinionMm: stands.pinionMm,
            pinionUMm: stands.pinionUMm,
            gearMm: stands.gearMm,
            gearUMm: stands.gearUMm,
          },
        }
      : {}),
    ...(pinionEffect ? { pinionEffect } : {}),
    ...(gearEffect ? { gearEffect } : {}),
  }
}
