import { finite } from '../checks/numbers.ts'
import { refuse } from '../checks/input-error.ts'
import type { Mesh } from '../gears/mesh.ts'
import { checkCrown, closeTeethInPlace, contactSolver, patchOf, type ContactCrown } from './tooth-contact.ts'

/** Centroid of a patch on one flank: ξ from toe −1 to heel +1, η from root −1 to top +1. */
export interface PatchPlace {
  length: number
  profile: number
}

export interface PatternReadInput extends ContactCrown {
  mesh: Mesh
  /** Flank that drives; the other one is the coast flank. @default 1 */
  driveSide?: 1 | -1
  drive: PatchPlace
  coast: PatchPlace
  /** Patches of the same pair when it was known to be set right; the computed ones without error when left out. */
  reference?: { drive: PatchPlace; coast: PatchPlace }
}

export interface PatternRead {
  /** How far the pinion and the gear stand from right, outward positive, mm. */
  pinionMm: number
  gearMm: number
  /** Root mean square of what pinion and gear leave unexplained, in ξ and η. */
  residual: number
  /** True when shims alone do not explain the pattern: case misaligned, wrong pair, bearing not seated, misread. */
  disagrees: boolean
  /** True when the answer lies at the edge of what is searched. */
  atBound: boolean
  iterations: number
}

/** Searched range of both displacements, mm. */
const BOUND = 0.6
/** A patch drawn by hand is good to about this much of half the flank. */
const READING = 0.1
const MOST_ITERATIONS = 25
const H = 0.005

/**
 * Reads a real patch back into millimetres: least squares for pinion and gear displacement from measured minus
 * reference centroids on both flanks (four numbers, two unknowns), by damped Gauss-Newton (Levenberg 1944) with
 * central differences of the forward model, within bounds. Stops when a step is below 0.1 µm or does not help.
 * A grid of 81 × 41 samples: a patch read by eye is far coarser.
 * @throws InputError on centroids off the flank or geometry that cannot be
 */
export function patternRead(input: PatternReadInput): PatternRead {
  checkCrown(input)
  const side = input.driveSide ?? 1
  if (side !== 1 && side !== -1) refuse('driveSide', 'is 1 or −1')
  for (const [path, place] of [
    ['drive', input.drive],
    ['coast', input.coast],
    ['reference.drive', input.reference?.drive],
    ['reference.coast', input.reference?.coast],
  ] as const)
    if (place) checkPlace(path, place)
  const solvers = ([side, -side] as (1 | -1)[]).map((s) => contactSolver(input.mesh, s, 81, 41))

  /** [ξ drive, η drive, ξ coast, η coast] of the model; undefined where the teeth do not meet. */
  const model = (p: number, g: number): number[] =>
    solvers.flatMap((solver) => {
      closeTeethInPlace(solver, { pinionMm: p, gearMm: g, offsetMm: 0, shaftAngleErrorDeg: 0 }, input)
      const patch = patchOf(solver, input.filmMm)
      return [patch.centroidLength, patch.centroidProfile]
    })
  const zero = model(0, 0)
  const list = (d: PatchPlace, c: PatchPlace) => [d.length, d.profile, c.length, c.profile]
  const reference = input.reference ? list(input.reference.drive, input.reference.coast) : zero
  const wanted = list(input.drive, input.coast).map((v, i) => v - reference[i]! + zero[i]!)
  const misfit = (p: number, g: number) => model(p, g).map((v, i) => wanted[i]! - v)
  const squares = (r: number[]) => r.reduce((sum, v) => sum + v * v, 0)
  const clamp = (v: number) => Math.max(-BOUND, Math.min(BOUND, v))

  let [p, g] = [0, 0]
  let rest = misfit(p, g)
  let damping = 1e-3
  let iterations = 0
  while (iterations < MOST_ITERATIONS) {
    iterations++
    const byPinion = slope(model(p + H, g), model(p - H, g))
    const byGear = slope(model(p, g + H), model(p, g - H))
    const [pp, pg, gg] = [dot(byPinion, byPinion), dot(byPinion, byGear), dot(byGear, byGear)]
    const [rp, rg] = [dot(byPinion, rest), dot(byGear, rest)]
    let moved = false
    for (let tries = 0; tries < 6 && !moved; tries++) {
      const [a, d] = [pp * (1 + damping), gg * (1 + damping)]
      const determinant = a * d - pg * pg
      if (!(determinant > 1e-12 * a * d)) {
        damping *= 10
        continue
      }
      const nextP = clamp(p + (rp * d - rg * pg) / determinant)
      const nextG = clamp(g + (rg * a - rp * pg) / determinant)
      const next = misfit(nextP, nextG)
      if (squares(next) < squares(rest)) {
        moved = Math.hypot(nextP - p, nextG - g) > 1e-4
        ;[p, g, rest] = [nextP, nextG, next]
        damping /= 5
        if (!moved) break
      } else damping *= 5
    }
    if (!moved) break
  }
  const residual = Math.sqrt(squares(rest) / 4)
  return {
    pinionMm: p,
    gearMm: g,
    residual,
    disagrees: residual > READING,
    atBound: Math.max(Math.abs(p), Math.abs(g)) >= BOUND,
    iterations,
  }
}

const dot = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)
const slope = (after: number[], before: number[]) => after.map((v, i) => (v - before[i]!) / (2 * H))

function checkPlace(path: string, place: PatchPlace) {
  for (const name of ['length', 'profile'] as const)
    if (Math.abs(finite(`${path}.${name}`, place[name])) > 1)
      refuse(`${path}.${name}`, `is ${place[name]}; the flank runs from −1 to 1`)
}
