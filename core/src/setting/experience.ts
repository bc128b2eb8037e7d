import { InputError } from '../checks/input-error.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { settableAdjusters, withCarriers } from '../drives/sheet.ts'
import { assess, solverInput } from './assess.ts'
import type { BuildState } from './taken.ts'
import { learnFrom } from './learned.ts'
import { withExperience, type Experience } from './with-experience.ts'
import type { ShimPiece, ShimSolveInput } from './shim-problem.ts'

/** Fewer units than these say nothing of how units differ. */
export const FEWEST_UNITS = 4
/** Share of the model's own variance that is taken as a difference between units while few units have shown theirs. */
const BETWEEN_SHARE = 0.5
/** That share counts as much as so many units' trials. */
const BETWEEN_WEIGHT = 2

/**
 * What units that were built and accepted teach about the next one of the same sheet.
 *
 * Offsets, measure by measure: each unit's last build carried to the common stacks S̄ with the model's J, aₖ = yₖ + J (S̄ − Sₖ). A unit not seen
 * yet is drawn from the same population: mean ā, variance s² (1 + 1/n) (n − 1)/(n − 3), the variance of the predictive Student t of a normal sample
 * (Gelman et al., Bayesian Data Analysis, 2013, 3.2); s² holds the spread between units and that of the readings within. As a normal
 * distribution it is wider than the t inside any window round the middle, so that a promise made from it is kept at least as often.
 *
 * Sensitivities: each unit with several builds brings its posterior (trial-update) with the weight w = 1 − (its variance / the prior's); the mean goes over
 * by Σ w / (1 + Σ w), and for a unit not seen yet the spread between units is added.
 * @param units builds of each unit, in order, the last one accepted
 * @returns undefined with fewer than {@link FEWEST_UNITS} units that can be compared
 */
export function experienceOf(
  sheet: DriveSheet,
  units: readonly (readonly BuildState[])[],
): Experience | undefined {
  const stacks = settableAdjusters(sheet).map((a) => a.id)
  const comparable = units.flatMap((builds) => {
    const newest = builds.at(-1)
    const last = newest && { ...newest, stacks: withCarriers(sheet, newest.stacks) }
    if (!last || stacks.some((s) => last.stacks[s] === undefined)) return []
    const posed = posedOf(sheet, last)
    return posed ? [{ builds, last, posed }] : []
  })
  const n = comparable.length
  if (n < FEWEST_UNITS) return undefined
  const built = (stack: string) => comparable.map((u) => u.last.stacks[stack]!)
  const at = Object.fromEntries(stacks.map((s) => [s, mean(built(s))]))
  const sensitivity = answersOf(sheet, comparable)
  const measures: Experience['measures'] = {}
  for (const q of comparable[0]!.posed.quantities) {
    const carried = comparable.flatMap((u) => {
      const own = u.posed.quantities.find((x) => x.id === q.id)
      if (!own) return []
      const moved = Object.entries(q.sensitivity).reduce(
        (sum, [s, j]) => sum + (sensitivity[q.id]?.[s]?.mean ?? j) * (at[s]! - u.last.stacks[s]!),
        0,
      )
      return [own.measured + moved]
    })
    const k = carried.length
    if (k < FEWEST_UNITS) continue
    const middle = mean(carried)
    const variance = carried.reduce((sum, a) => sum + (a - middle) ** 2, 0) / (k - 1)
    // units can agree better than their gauges by chance; the gauge's own doubt stays
    const least =
      Math.max(...comparable.map((u) => u.posed.quantities.find((x) => x.id === q.id)?.u ?? 0)) ** 2
    const sd = Math.sqrt(Math.max(variance, least) * (1 + 1 / k) * ((k - 1) / (k - 3)))
    measures[q.id] = { mean: middle, sd, units: k }
  }
  if (!Object.keys(measures).length) return undefined
  return {
    units: n,
    at,
    spread: Object.fromEntries(stacks.map((s) => [s, standardDeviation(built(s))])),
    measures,
    sensitivity,
  }
}

interface Unit {
  builds: readonly BuildState[]
  last: BuildState
  posed: ShimSolveInput
}

function posedOf(sheet: DriveSheet, build: BuildState): ShimSolveInput | undefined {
  try {
    return assess(sheet, build).complete ? solverInput(sheet, build, []) : undefined
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return undefined
  }
}

/** Sensitivities as the units with several builds have shown them. */
function answersOf(sheet: DriveSheet, units: readonly Unit[]): Experience['sensitivity'] {
  const learned = units.flatMap((u) => {
    const update = u.builds.length > 1 ? learnFrom(sheet, u.builds) : undefined
    return update ? [update] : []
  })
  const result: Experience['sensitivity'] = {}
  for (const q of units[0]!.posed.quantities) {
    for (const [stack, prior] of Object.entries(q.sensitivity)) {
      const priorRel = q.relUByStack?.[stack] ?? q.relU ?? 0
      const seen = learned.flatMap((l) => {
        const own = l.sensitivity[q.id]?.[stack]
        const weight = own && priorRel > 0 ? 1 - Math.min(1, (own.sd / (priorRel * Math.abs(prior))) ** 2) : 0
        // a stack that hardly moved has taught nothing
        return own && weight > 0.05 ? [{ ...own, weight }] : []
      })
      const total = seen.reduce((sum, s) => sum + s.weight, 0)
      if (total === 0) continue
      const value = prior + seen.reduce((sum, s) => sum + s.weight * (s.mean - prior), 0) / (1 + total)
      const apart = seen.reduce((sum, s) => sum + s.weight * ((s.mean - value) / value) ** 2, 0)
      const between = (BETWEEN_WEIGHT * BETWEEN_SHARE * priorRel ** 2 + apart) / (BETWEEN_WEIGHT + total)
      const common = ((1 - BETWEEN_SHARE) * priorRel ** 2) / (1 + total)
      ;(result[q.id] ??= {})[stack] = {
        mean: value,
        relU: Math.sqrt(common + between),
        trials: seen.length,
      }
    }
  }
  return result
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
function standardDeviation(values: readonly number[]): number {
  const middle = mean(values)
  return Math.sqrt(values.reduce((sum, v) => sum + (v - middle) ** 2, 0) / Math.max(1, values.length - 1))
}

/**
 * The question which stacks to begin the next unit with, before anything of it is measured: from the common stacks, with what units read there and how far
 * they differ. The probability of its plans is the promise for a unit not seen yet.
 * @returns undefined where a measure that stacks move has no experience behind it
 */
export function firstQuestion(
  sheet: DriveSheet,
  experience: Experience,
  pieces: readonly ShimPiece[],
): ShimSolveInput | undefined {
  const gauge = { resolution: 0, mpe: 0, repeatability: 0 }
  const build: BuildState = {
    stacks: experience.at,
    readings: Object.fromEntries(
      sheet.measures.map((m) => [m.id, [{ value: experience.measures[m.id]?.mean ?? m.target ?? 0, gauge }]]),
    ),
  }
  const input = withExperience(solverInput(sheet, build, [...pieces]), experience)
  if (input.quantities.some((q) => experience.measures[q.id] === undefined)) return undefined
  return { ...input, quantities: input.quantities.map((q) => ({ ...q, u: experience.measures[q.id]!.sd })) }
}
