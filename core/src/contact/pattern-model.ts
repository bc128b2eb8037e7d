import { alongTooth, numbersOf, type PatchPair } from './patch-place.ts'
import type { Observed, Unknown } from './pattern-fit.ts'
import type { PatternReadInput } from './pattern-question.ts'
import { closeTeethInPlace, contactSolver, patchOf } from './tooth-contact.ts'

/** Standard uncertainty of one coordinate of a patch drawn by hand, in half flanks. */
const HAND_U = 0.05
/**
 * How a set of spiral teeth answers along the tooth to the pinion's depth hangs on how it was cut and developed: until a trial of the pair has
 * shown it, the lengthwise shift counts half.
 */
const UNSURE_LENGTH_U = Math.SQRT2 * HAND_U

export interface ObservedPatches extends Observed {
  /** Coordinates of the present patches: the first of `wanted`; the others are of earlier ones. */
  present: number
  /** Where among them the heights of the two centroids stand. */
  heightAt: [drive: number, coast: number]
}

/**
 * The patches as observations of how the pair stands: centroids, and extents where both flanks have them, the earlier trials after the
 * present one.
 * @param pair mean of the places round the gear
 * @param lengthwise −1 when the pattern runs along the tooth against the computed way as the pinion moves
 */
export function observedPatches(
  input: PatternReadInput,
  pair: PatchPair,
  unknowns: readonly Unknown[],
  lengthwise: 1 | -1 = 1,
): ObservedPatches {
  const side = input.driveSide ?? 1
  const withExtents = [pair.drive, pair.coast].map((p) => p.extents !== undefined)
  const solvers = ([side, -side] as (1 | -1)[]).map((s) =>
    // extents move by whole samples: with them the grid is finer
    withExtents.some(Boolean) ? contactSolver(input.mesh, s) : contactSolver(input.mesh, s, 81, 41),
  )
  const at = (x: readonly number[], name: Unknown) => x[unknowns.indexOf(name)] ?? 0
  const computed = (x: readonly number[], pinionMm: number, gearMm: number, whole: boolean) =>
    solvers.flatMap((solver, i) => {
      const shaftAngleErrorDeg = at(x, 'shaft-angle')
      closeTeethInPlace(solver, { pinionMm, gearMm, offsetMm: at(x, 'offset'), shaftAngleErrorDeg }, input)
      const { centroidLength: length, centroidProfile: profile, extents } = patchOf(solver, input.filmMm)
      return numbersOf({ length, profile, extents }, whole && withExtents[i]!)
    })
  const along = (whole: boolean) => withExtents.flatMap((e) => alongTooth(whole && e))
  /** Coordinates with pinion and gear so far out; whole with the extents that were marked, else the centroids. */
  const coordinates = (x: readonly number[], pinionMm: number, gearMm: number, whole: boolean) => {
    const there = computed(x, pinionMm, gearMm, whole)
    if (lengthwise === 1) return there
    const level = computed(x, 0, gearMm, whole)
    const isAlong = along(whole)
    return there.map((v, i) => (isAlong[i] ? 2 * level[i]! - v : v))
  }
  const list = (p: PatchPair, whole: boolean) => [
    ...numbersOf(p.drive, whole && withExtents[0]!),
    ...numbersOf(p.coast, whole && withExtents[1]!),
  ]
  /** A marked pair, counted from the computed patches without error. */
  const marked = (p: PatchPair, whole: boolean) => {
    const zero = coordinates(
      unknowns.map(() => 0),
      0,
      0,
      whole,
    )
    const { reference } = input
    const middle = reference ? list(reference, whole) : zero
    // a reference without extents says nothing of them: the computed ones stand in
    return list(p, whole).map((v, i) => (Number.isNaN(middle[i]!) ? v : v - middle[i]! + zero[i]!))
  }
  const present = marked(pair, true)
  const earlier = input.earlier ?? []
  const unsure = (input.mesh.spiralAngleDeg ?? 0) !== 0 && earlier.length === 0
  const before = earlier.flatMap((e) => marked(e, false))
  return {
    wanted: [...present, ...before],
    u: [
      ...along(true).map((isAlong) => (isAlong && unsure ? UNSURE_LENGTH_U : HAND_U)),
      ...before.map(() => HAND_U),
    ],
    model: (x) => [
      ...coordinates(x, x[0]!, x[1]!, true),
      ...earlier.flatMap((e) => coordinates(x, x[0]! + e.pinionMm, x[1]! + e.gearMm, false)),
    ],
    present: present.length,
    heightAt: [1, numbersOf(pair.drive, withExtents[0]!).length + 1],
  }
}

/** How far the present patches lie from the reference. */
export function offReference(
  { wanted, model, present, heightAt }: ObservedPatches,
  unknowns: readonly Unknown[],
): { squares: number; height: number } {
  const middle = model(unknowns.map(() => 0))
  const off = wanted.slice(0, present).map((v, i) => v - middle[i]!)
  return {
    // each coordinate over what a hand marks
    squares: off.reduce((sum, v) => sum + (v / HAND_U) ** 2, 0),
    // up the tooth, the mean of both flanks
    height: (off[heightAt[0]]! + off[heightAt[1]]!) / 2,
  }
}
