import { refuse } from '../checks/input-error.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'
import { chiSquare95 } from '../numbers/chi-square.ts'
import { meanPlace, movementOf, type PatchPair } from './patch-place.ts'
import {
  bestKnown,
  BOUND,
  fitPattern,
  uncertaintyOf,
  type Observed,
  type PatternFit,
  type Unknown,
} from './pattern-fit.ts'
import { patternMeaning, type PatternFinding, type PatternMeaning } from './pattern-meaning.ts'
import { observedPatches, offReference } from './pattern-model.ts'
import { checkQuestion, type PatternReadInput } from './pattern-question.ts'

/** How far pinion and gear stand from right, outward positive, mm, as far as that can be told. */
export interface PairMoves {
  /** False when the two moves cannot be told apart; there are no single moves then, only their combination. */
  separable: boolean
  /** With expanded uncertainties (k = 2). Only when separable. */
  pinionMm?: number
  gearMm?: number
  pinionUMm?: number
  gearUMm?: number
  /** What is known instead: pinion × pinionMm + gear × gearMm = value, with its standard uncertainty (k = 1). Only when not separable. */
  knownMm?: { pinion: number; gear: number; value: number; u: number }
  /**
   * Which of the two is out, by the height of the patches: +1 toward the top (pinion out or gear in), −1 toward the root (pinion in or
   * gear out), 0 where the height does not say. Only when not separable.
   */
  sign?: 1 | -1 | 0
}

export interface PatternRead extends PairMoves {
  /** Only when asked for. */
  offsetMm?: number
  shaftAngleErrorDeg?: number
  /** Root mean square of what is left unexplained of the patches, in ξ and η. */
  residual: number
  /**
   * What is seen: `centred`, the patches differ from the reference by no more than a hand marks; `setting`, moves of pinion and gear explain
   * them as well as a hand marks; `axes`, they do not: an offset or shaft angle of the case, a wrong pair, a bearing not seated, a misreading.
   */
  kind: PatternFinding
  /** True when the answer lies at the edge of what is searched. */
  atBound: boolean
  iterations: number
  /** How far the centroid wanders round the gear, in ξ and η; that is runout, not setting. Only with further places. */
  movement?: number
  /** Change of the stacks that would bring the member back, mm. Only with the effect, when separable, and when no gauge disagrees. */
  pinionShimMm?: number
  gearShimMm?: number
  /** What the patches say without the gauges, and whether gauges and patches can both be right. Only with `depth` or `backlash`. */
  againstGauges?: PairMoves & { agrees: boolean }
  /** Which way the pattern runs along the tooth: 1 as computed, −1 the other way. Only with `earlier` patches of spiral teeth. */
  lengthwise?: 1 | -1
  /** What the patches mean, and which part moves which way. */
  meaning: PatternMeaning
}

/** Above this condition number of the weighted Jacobian the two moves cannot be told apart. */
const MOST_CONDITION = 30

/**
 * Reads a real patch back into millimetres: weighted least squares for pinion and gear displacement (and, when asked for and there is more
 * to go by than unknowns, offset and shaft angle) from measured minus reference patches on both flanks and from what gauges say, by damped
 * Gauss-Newton (Levenberg 1944) from nine starts within bounds. U from the curvature at the best, widened to every start that fits as well.
 * On straight teeth both flanks answer alike: only sin δ₁ × pinion + sin δ₂ × gear is known unless one part was measured by itself.
 * A grid of 81 × 41 samples (161 × 81 with extents): a patch read by eye is far coarser.
 * @throws InputError on centroids off the flank, too little to go by, or geometry that cannot be
 */
export function patternRead(input: PatternReadInput): PatternRead {
  checkQuestion(input)
  const places = [{ drive: input.drive, coast: input.coast }, ...(input.otherPlaces ?? [])]
  const unknowns: Unknown[] = ['pinion', 'gear', ...new Set(input.also ?? [])]
  const pair = { drive: meanPlace(places.map((p) => p.drive)), coast: meanPlace(places.map((p) => p.coast)) }
  const { patches, alone, lengthwise } = fitOfPatches(input, pair, unknowns)
  if (unknowns.length >= patches.present)
    refuse(
      'also',
      `asks for ${unknowns.length} numbers out of ${patches.present}; mark the extents of the patches too, or ask for less`,
    )
  const gauges = gaugesOf(input)
  const fit = gauges.wanted.length ? fitPattern(unknowns, joined(patches, gauges)) : alone
  const { squares, height } = offReference(patches, unknowns)
  // where pinion and gear cannot be told apart, one number less bends the fit
  const determined = unknowns.length - (canSeparate(input.mesh, alone) ? 0 : 1)
  const kind: PatternFinding =
    squares <= chiSquare95(patches.present)
      ? 'centred'
      : alone.squares <= chiSquare95(patches.wanted.length - determined)
        ? 'setting'
        : 'axes'
  const moves = movesOf(input, fit, height)
  const byPatches = movesOf({ ...input, depth: undefined }, alone, height)
  const agrees = fit.squares - alone.squares <= chiSquare95(Math.max(1, gauges.wanted.length))
  const rest = alone.rest.slice(0, patches.present)
  const of = (name: Unknown) => fit.x[unknowns.indexOf(name)]!
  return {
    ...moves,
    ...(unknowns.includes('offset') ? { offsetMm: of('offset') } : {}),
    ...(unknowns.includes('shaft-angle') ? { shaftAngleErrorDeg: of('shaft-angle') } : {}),
    residual: Math.sqrt(rest.reduce((sum, r) => sum + r * r, 0) / rest.length),
    kind,
    atBound: fit.x.some((v, k) => Math.abs(v) >= BOUND[unknowns[k]!]),
    iterations: fit.iterations,
    ...(places.length > 1 ? { movement: movementOf(places) } : {}),
    ...(agrees ? shimsOf(input, moves) : {}),
    ...(fit === alone ? {} : { againstGauges: { ...byPatches, agrees } }),
    ...(lengthwise ? { lengthwise } : {}),
    meaning: patternMeaning(pair, { kind, ...(agrees ? moves : byPatches) }),
  }
}

/** The fit to what is seen; where earlier trials can tell which way the pair runs along the tooth, the way that fits better. */
function fitOfPatches(input: PatternReadInput, pair: PatchPair, unknowns: readonly Unknown[]) {
  const fitted = (lengthwise: 1 | -1) => {
    const patches = observedPatches(input, pair, unknowns, lengthwise)
    return { patches, alone: fitPattern(unknowns, patches), lengthwise }
  }
  const asComputed = fitted(1)
  if (!isSpiral(input.mesh) || !input.earlier?.length) return { ...asComputed, lengthwise: undefined }
  const against = fitted(-1)
  return against.alone.squares < asComputed.alone.squares ? against : asComputed
}

const isSpiral = (mesh: Mesh) => (mesh.spiralAngleDeg ?? 0) !== 0

/** Depth and backlash as further observations: j − j₀ = c₁ p + c₂ g at the outer pitch circle. */
function gaugesOf({ mesh, depth, backlash }: PatternReadInput): Observed {
  const { backlashPerPinionMm: c1, backlashPerGearMm: c2 } = meshGeometry(mesh)
  return {
    wanted: [...(depth ? [depth.valueMm] : []), ...(backlash ? [backlash.valueMm - backlash.targetMm] : [])],
    u: [...(depth ? [depth.uMm] : []), ...(backlash ? [backlash.uMm] : [])],
    model: ([p, g]) => [
      ...(depth ? [depth.part === 'pinion' ? p! : g!] : []),
      ...(backlash ? [c1 * p! + c2 * g!] : []),
    ],
  }
}

const joined = (a: Observed, b: Observed): Observed => ({
  wanted: [...a.wanted, ...b.wanted],
  u: [...a.u, ...b.u],
  model: (x) => [...a.model(x), ...b.model(x)],
})

/** Changes of the stacks that take the moves back. */
function shimsOf({ pinionEffect, gearEffect }: PatternReadInput, { pinionMm, gearMm }: PairMoves) {
  return {
    ...(pinionEffect && pinionMm !== undefined ? { pinionShimMm: -pinionMm * pinionEffect } : {}),
    ...(gearEffect && gearMm !== undefined ? { gearShimMm: -gearMm * gearEffect } : {}),
  }
}

/** Whether the patches alone tell pinion from gear. */
const canSeparate = (mesh: Mesh, fit: PatternFit) => isSpiral(mesh) && fit.condition <= MOST_CONDITION

/** A height beyond this of half the flank says top or root: two standard uncertainties of the mean of two flanks. */
const HEIGHT_SAYS = 0.07

function movesOf({ mesh, depth }: PatternReadInput, fit: PatternFit, height: number): PairMoves {
  const separable = depth ? fit.condition <= MOST_CONDITION : canSeparate(mesh, fit)
  const others = fit.x.slice(2).map(() => 0)
  if (separable)
    return {
      separable,
      pinionMm: fit.x[0]!,
      gearMm: fit.x[1]!,
      pinionUMm: 2 * uncertaintyOf(fit, [1, 0, ...others]),
      gearUMm: 2 * uncertaintyOf(fit, [0, 1, ...others]),
    }
  const { pinionPitchAngleDeg, gearPitchAngleDeg } = meshGeometry(mesh)
  const sine = (deg: number) => Math.sin((deg * Math.PI) / 180)
  const [pinion, gear] = isSpiral(mesh)
    ? bestKnown(fit)
    : [sine(pinionPitchAngleDeg), sine(gearPitchAngleDeg)]
  const value = pinion * fit.x[0]! + gear * fit.x[1]!
  const u = uncertaintyOf(fit, [pinion, gear, ...others])
  return {
    separable,
    knownMm: { pinion, gear, value, u },
    sign: Math.abs(height) <= HEIGHT_SAYS ? 0 : height > 0 ? 1 : -1,
  }
}
