import type { DriveSheet } from '../drives/sheet.ts'
import { USUAL_CROWN, type ContactPair } from './as-set.ts'
import { FLANKS, sideOf, type Flank } from '../gears/flank.ts'
import { placeOf, type Outline } from './marked.ts'
import type { EarlierPatches, PatternReadInput } from './pattern-question.ts'
import { gearTravel } from '../setting/train.ts'

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
 * The question to the pattern (pattern-read.ts): every place at which both flanks are marked, what the gauges say, earlier builds, and how the
 * shims answer.
 * @returns undefined while no place has both flanks; where the teeth are only drawn, or nobody knows which flank is pushed: what a patch means is
 *   not known then
 */
export function readBackOf(
  sheet: DriveSheet,
  { pair, teeth, stands }: ContactPair,
  marks: Marks,
  earlier: EarlierPatches[] = [],
): PatternReadInput | undefined {
  if (pair.basis === 'drawn' || teeth.pushed === undefined) return undefined
  const [first, ...otherPlaces] = wholePlaces(marks)
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
    driveSide: sideOf('drive', teeth),
    ...(otherPlaces.length ? { otherPlaces } : {}),
    ...(stands ? { backlash: stands.backlash } : {}),
    ...(stands?.depthKnown
      ? { depth: { part: 'pinion' as const, valueMm: stands.pinionMm, uMm: stands.pinionUMm / 2 } }
      : {}),
    ...(earlier.length ? { earlier } : {}),
    ...(pinionEffect ? { pinionEffect } : {}),
    ...(gearEffect ? { gearEffect } : {}),
  }
}

/** Every place round the gear at which both flanks are marked. */
const wholePlaces = (marks: Marks) =>
  PLACES.flatMap((n) => {
    const { drive, coast } = marks[n] ?? {}
    return drive && coast ? [{ drive: centreOf(drive.outline), coast: centreOf(coast.outline) }] : []
  })

/** What of a build is looked at: its stacks, and what was seen on it. */
export interface TrialSeen {
  /** Stack id → mm, as far as it is known. */
  stacks: Readonly<Record<string, number | undefined>>
  patterns: readonly Seen[]
}

/** The first whole place of each earlier build, with how much further out pinion and gear stood then by its stacks. */
export function earlierOf(
  sheet: DriveSheet,
  { pair }: ContactPair,
  now: TrialSeen,
  before: readonly TrialSeen[],
): EarlierPatches[] {
  return before.flatMap((trial) => {
    const [first] = wholePlaces(marksOf(trial.patterns, pair.id))
    const change: Record<string, number> = {}
    for (const [id, here] of Object.entries(now.stacks)) {
      const then = trial.stacks[id]
      if (then !== undefined && here !== undefined) change[id] = then - here
    }
    const travel = gearTravel(sheet, change)
    return first ? [{ ...first, pinionMm: travel[pair.pinion] ?? 0, gearMm: travel[pair.gear] ?? 0 }] : []
  })
}
