import { FLANKS, type Flank } from '@moray/core/contact/flank'
import { placeOf, type Outline } from '@moray/core/contact/marked'
import { USUAL_CROWN, type PairStands } from '@moray/core/contact/as-set'
import type { PatternReadInput } from '@moray/core/contact/pattern-read'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { PatternMark } from '@moray/core/job/record'
import type { ShownPair } from './pair-view.ts'

/** Places round the gear: one wanders with runout, three tell it from setting. */
export const PLACES = [1, 2, 3] as const

/** A patch by its four ends, as it is set with sliders: from toe and root, to heel and top. */
export interface Ends {
  toe: number
  heel: number
  root: number
  top: number
}

const CORNERS = 16
/** An oval between its four ends. */
export const ovalOf = ({ toe, heel, root, top }: Ends): number[] =>
  Array.from({ length: CORNERS }, (_, i) => (2 * Math.PI * i) / CORNERS).flatMap((a) => [
    (toe + heel) / 2 + ((heel - toe) / 2) * Math.cos(a),
    (root + top) / 2 + ((top - root) / 2) * Math.sin(a),
  ])

export const endsOf = (outline: Outline): Ends => {
  const { extents } = placeOf(outline)
  return {
    toe: extents!.lengthMin,
    heel: extents!.lengthMax,
    root: extents!.profileMin,
    top: extents!.profileMax,
  }
}

export const pairsUp = (flat: readonly number[]): Outline =>
  Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i]!, flat[2 * i + 1]!])

/** The marks of a pair that count, by place and flank. */
export function marksOf(
  patterns: readonly PatternMark[],
  mesh: string,
): Record<number, Partial<Record<Flank, PatternMark>>> {
  const found: Record<number, Partial<Record<Flank, PatternMark>>> = {}
  for (const p of patterns) if (p.mesh === mesh && !p.superseded) (found[p.place] ??= {})[p.flank] = p
  return found
}

/** How large a patch is hangs on crowning and compound, which nobody has measured: only where it lies is read back. */
const centreOf = (outline: Outline) => {
  const { length, profile } = placeOf(outline)
  return { length, profile }
}

/** The question that reads marked patches back; undefined while no place has both flanks. */
export function readBackOf(
  sheet: DriveSheet,
  { pair, teeth, stands }: ShownPair,
  marks: ReturnType<typeof marksOf>,
): PatternReadInput | undefined {
  const whole = PLACES.flatMap((n) => {
    const { drive, coast } = marks[n] ?? {}
    return drive && coast ? [{ drive: centreOf(drive.outline), coast: centreOf(coast.outline) }] : []
  })
  const [first, ...otherPlaces] = whole
  if (!first) return undefined
  const effectOn = (gear: string) => {
    const effect = sheet.adjusters.find((a) => a.kind === 'shim' && a.moves === gear)?.effect
    return effect === 1 || effect === -1 ? effect : undefined
  }
  const [pinionEffect, gearEffect] = [effectOn(pair.pinion), effectOn(pair.gear)]
  const side = (teeth.mesh.hand ?? 1) as 1 | -1
  return {
    mesh: teeth.mesh,
    ...USUAL_CROWN,
    ...first,
    driveSide: side,
    ...(otherPlaces.length ? { otherPlaces } : {}),
    ...(stands ? { gauged: gaugedOf(stands) } : {}),
    ...(pinionEffect ? { pinionEffect } : {}),
    ...(gearEffect ? { gearEffect } : {}),
  }
}

const gaugedOf = ({ pinionMm, pinionUMm, gearMm, gearUMm }: PairStands) => ({
  pinionMm,
  pinionUMm,
  gearMm,
  gearUMm,
})

/** The place that wants a mark next: the first flank of the first place that has none. */
export function nextMark(marks: ReturnType<typeof marksOf>): { place: number; flank: Flank } {
  for (const place of PLACES) for (const flank of FLANKS) if (!marks[place]?.[flank]) return { place, flank }
  return { place: 1, flank: 'drive' }
}
