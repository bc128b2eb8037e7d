import { finite } from '../checks/numbers.ts'
import { refuse } from '../checks/input-error.ts'
import type { Mesh } from '../gears/mesh.ts'
import { dampedLeastSquares } from '../numbers/least-squares.ts'
import { solveSymmetric } from '../numbers/linear.ts'
import { patternMeaning, type PatternFit, type PatternMeaning } from './pattern-meaning.ts'
import {
  checkCrown,
  closeTeethInPlace,
  contactSolver,
  patchOf,
  type ContactCrown,
  type Patch,
} from './tooth-contact.ts'

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

/** What a depth gauge and an indicator say of the same setting: distance from right, outward positive, with U (k = 2). */
export interface GaugedSetting {
  pinionMm: number
  pinionUMm: number
  gearMm: number
  gearUMm: number
}

export interface PatternReadInput extends ContactCrown, PatchPair {
  mesh: Mesh
  /** Flank that drives; the other one is the coast flank. @default 1 */
  driveSide?: 1 | -1
  /** The same at further places round the gear. */
  otherPlaces?: PatchPair[]
  /** Patches of the same pair when it was known to be set right; the computed ones without error when left out. */
  reference?: PatchPair
  /** Errors of the case to look for besides pinion and gear. @default none */
  also?: ('offset' | 'shaft-angle')[]
  /** What the gauges say, to be held against the pattern. */
  gauged?: GaugedSetting
  /** +1 when more shim moves the member outward, −1 when inward; gives the answer in shims. */
  pinionEffect?: 1 | -1
  gearEffect?: 1 | -1
}

export interface PatternRead {
  /** How far the pinion and the gear stand from right, outward positive, mm, with expanded uncertainties (k = 2). */
  pinionMm: number
  gearMm: number
  /** null where the patches say nothing about it: at the edge of what is searched. */
  pinionUMm: number | null
  gearUMm: number | null
  /** Only when asked for. */
  offsetMm?: number
  shaftAngleErrorDeg?: number
  /** Root mean square of what is left unexplained, in ξ and η. */
  residual: number
  /**
   * What the fit says: `centred`, both moves within their U; `setting`, moves of pinion and gear explain the patches as well as a
   * hand marks them; `axes`, they do not: an offset or shaft angle of the case, a wrong pair, a bearing not seated, or a misreading.
   */
  kind: PatternFit
  /** True when shims alone do not explain the pattern; the same as kind `axes`. */
  disagrees: boolean
  /** True when the answer lies at the edge of what is searched. */
  atBound: boolean
  iterations: number
  /** How far the centroid wanders round the gear, in ξ and η; that is runout, not setting. Only with further places. */
  movement?: number
  /** Change of the stacks that would bring the member back, mm. Only with the effect. */
  pinionShimMm?: number
  gearShimMm?: number
  /** Pattern minus gauges, and whether they agree within both uncertainties. Only with `gauged`. */
  againstGauges?: { pinionMm: number; gearMm: number; agrees: boolean }
  /** What the patches mean, and which part moves which way. */
  meaning: PatternMeaning
}

/** Searched range: mm for pinion, gear and offset; degrees for the shaft angle. */
const BOUND = { pinion: 0.6, gear: 0.6, offset: 0.3, 'shaft-angle': 0.3 }
type Unknown = keyof typeof BOUND
/** A patch drawn by hand is good to about this much of half the flank; beyond it is a disagreement. */
const READING = 0.1
/** Standard uncertainty of one coordinate of it. */
const READING_U = READING / 2
const MOST_ITERATIONS = 25
/** Length of a step, in mm and degrees together, that is as good as none. */
const STILL = 1e-4
const H = 0.005

/**
 * Reads a real patch back into millimetres: least squares for pinion and gear displacement (and, when asked for and there
 * is more to go by than unknowns, offset and shaft angle) from measured minus reference patches on both flanks, by damped
 * Gauss-Newton (Levenberg 1944) with central differences of the forward model, within bounds. Stops when a step is below
 * 0.1 µm or does not help. U from (JᵀJ)⁻¹ and what a hand can draw. A grid of 81 × 41 samples (161 × 81 with extents): a patch
 * read by eye is far coarser.
 * @throws InputError on centroids off the flank, too little to go by, or geometry that cannot be
 */
export function patternRead(input: PatternReadInput): PatternRead {
  checkCrown(input)
  const side = input.driveSide ?? 1
  if (side !== 1 && side !== -1) refuse('driveSide', 'is 1 or −1')
  const places = [{ drive: input.drive, coast: input.coast }, ...(input.otherPlaces ?? [])]
  places.forEach((p, i) => checkPair(i === 0 ? '' : `otherPlaces[${i - 1}].`, p))
  if (input.reference) checkPair('reference.', input.reference)
  for (const name of input.also ?? [])
    if (name !== 'offset' && name !== 'shaft-angle')
      refuse('also', `holds "${String(name)}"; there are offset and shaft-angle`)
  const unknowns: Unknown[] = ['pinion', 'gear', ...new Set(input.also ?? [])]
  const [drive, coast] = [meanPlace(places.map((p) => p.drive)), meanPlace(places.map((p) => p.coast))]
  const withExtents = [drive, coast].map((p) => p.extents !== undefined)
  const count = 4 + 4 * withExtents.filter(Boolean).length
  if (unknowns.length >= count)
    refuse(
      'also',
      `asks for ${unknowns.length} numbers out of ${count}; mark the extents of the patches too, or ask for less`,
    )

  const solvers = ([side, -side] as (1 | -1)[]).map((s) =>
    // extents move by whole samples: with them the grid is finer
    withExtents.some(Boolean) ? contactSolver(input.mesh, s) : contactSolver(input.mesh, s, 81, 41),
  )
  /** Centroid (and extents, where they were marked) of the model on drive and coast. */
  const model = (x: readonly number[]): number[] =>
    solvers.flatMap((solver, i) => {
      closeTeethInPlace(
        solver,
        {
          pinionMm: x[0]!,
          gearMm: x[1]!,
          offsetMm: at(x, 'offset'),
          shaftAngleErrorDeg: at(x, 'shaft-angle'),
        },
        input,
      )
      const patch = patchOf(solver, input.filmMm)
      const place = { length: patch.centroidLength, profile: patch.centroidProfile, extents: patch.extents }
      return numbersOf(place, withExtents[i]!)
    })
  const at = (x: readonly number[], name: Unknown) => x[unknowns.indexOf(name)] ?? 0
  const zero = model(unknowns.map(() => 0))
  const list = (pair: PatchPair) => [
    ...numbersOf(pair.drive, withExtents[0]!),
    ...numbersOf(pair.coast, withExtents[1]!),
  ]
  const reference = input.reference ? list(input.reference) : zero
  // a reference without extents says nothing of them: the computed ones stand in
  const wanted = list({ drive, coast }).map((v, i) =>
    Number.isNaN(reference[i]!) ? v : v - reference[i]! + zero[i]!,
  )
  const misfit = (x: readonly number[]) => model(x).map((v, i) => wanted[i]! - v)
  const slopesAt = (x: readonly number[]) =>
    unknowns.map((_, k) => {
      const [after, before] = [1, -1].map((s) => model(x.map((v, i) => (i === k ? v + s * H : v))))
      return after!.map((v, i) => (v - before![i]!) / (2 * H))
    })

  const fit = dampedLeastSquares(
    unknowns.map(() => 0),
    misfit,
    slopesAt,
    unknowns.map((name) => BOUND[name]),
    STILL,
    MOST_ITERATIONS,
  )
  const { x, rest, slopes, steps: iterations } = fit
  const residual = Math.sqrt(dot(rest, rest) / count)
  const normal = slopes.map((a) => slopes.map((b) => dot(a, b)))
  const U = unknowns.map((_, k) => {
    const column = solveSymmetric(
      normal,
      unknowns.map((__, i) => (i === k ? 1 : 0)),
    )
    return column ? 2 * Math.max(READING_U, residual) * Math.sqrt(Math.max(0, column[k]!)) : Infinity
  })
  const [pinionMm, gearMm] = [x[0]!, x[1]!]
  const disagrees = residual > READING
  const moved = Math.abs(pinionMm) > U[0]! || Math.abs(gearMm) > U[1]!
  const kind: PatternFit = disagrees ? 'axes' : moved ? 'setting' : 'centred'
  const off = input.gauged && {
    pinionMm: pinionMm - input.gauged.pinionMm,
    gearMm: gearMm - input.gauged.gearMm,
  }
  return {
    pinionMm,
    gearMm,
    pinionUMm: finiteOrNull(U[0]!),
    gearUMm: finiteOrNull(U[1]!),
    ...(unknowns.includes('offset') ? { offsetMm: at(x, 'offset') } : {}),
    ...(unknowns.includes('shaft-angle') ? { shaftAngleErrorDeg: at(x, 'shaft-angle') } : {}),
    residual,
    kind,
    disagrees,
    atBound: x.some((v, k) => Math.abs(v) >= BOUND[unknowns[k]!]),
    iterations,
    ...(places.length > 1 ? { movement: movementOf(places) } : {}),
    ...(input.pinionEffect ? { pinionShimMm: -pinionMm * input.pinionEffect } : {}),
    ...(input.gearEffect ? { gearShimMm: -gearMm * input.gearEffect } : {}),
    ...(off
      ? {
          againstGauges: {
            ...off,
            agrees:
              Math.abs(off.pinionMm) <= Math.hypot(U[0]!, input.gauged!.pinionUMm) &&
              Math.abs(off.gearMm) <= Math.hypot(U[1]!, input.gauged!.gearUMm),
          },
        }
      : {}),
    meaning: patternMeaning({ drive, coast }, { kind, pinionMm, gearMm }),
  }
}

const finiteOrNull = (v: number) => (Number.isFinite(v) ? v : null)

const dot = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)

const EXTENTS = ['lengthMin', 'lengthMax', 'profileMin', 'profileMax'] as const

/** A place as a list of numbers; NaN for extents that were not marked. */
function numbersOf(place: PatchPlace, withExtents: boolean): number[] {
  return [place.length, place.profile, ...(withExtents ? EXTENTS.map((e) => place.extents?.[e] ?? NaN) : [])]
}

function meanPlace(places: PatchPlace[]): PatchPlace {
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
function movementOf(places: PatchPair[]): number {
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

function checkPair(at: string, pair: PatchPair) {
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
