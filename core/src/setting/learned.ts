import { InputError } from '../checks/input-error.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { solverInput } from './assess.ts'
import type { BuildState } from './taken.ts'
import type { ShimPiece, ShimSolveInput } from './shim-problem.ts'
import { withExperience, type Experience } from './with-experience.ts'
import { trialUpdate, type TrialUpdate } from './trial-update.ts'

/**
 * How much wider than the sheet's model claims the prior may be. Which one is taken is decided by the readings: the one
 * under which they were most probable (evidence; Bishop, Pattern Recognition and Machine Learning, 2006, 3.5). A pair
 * that answers quite unlike its geometry is then believed after one trial, not after four.
 */
const PRIOR_SCALES = [1, 2, 4]

/**
 * What a job's builds have taught: the Bayesian update over every build that is measured, with the sheet's model as prior.
 * @param builds in order, the newest last; builds that are not complete are left out
 * @returns undefined while fewer than two builds are measured: then there is nothing to learn from
 */
export function learnFrom(
  sheet: DriveSheet,
  builds: readonly BuildState[],
  next?: Record<string, number>,
  experience?: Experience,
): TrialUpdate | undefined {
  const posed = builds.flatMap((b) => {
    try {
      return [{ ...withExperience(solverInput(sheet, b, []), experience), carried: b.carried ?? [] }]
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      // a build that was left before it was measured teaches nothing
      return []
    }
  })
  const newest = posed.at(-1)
  if (!newest || posed.length < 2) return undefined
  const asked = new Set(newest.quantities.map((q) => q.id))
  const update = (scale: number) =>
    trialUpdate({
      locations: newest.locations.map((l) => l.id),
      quantities: newest.quantities.map((q) => ({
        id: q.id,
        sensitivity: q.sensitivity,
        relSd: scale * Math.max(...Object.values(q.relUByStack ?? {}), 0.01),
        // the worst of the sets, so that no build is believed more than its gauge deserves
        u: Math.max(...posed.map((p) => p.quantities.find((x) => x.id === q.id)?.u ?? 0)),
        window: q.window,
      })),
      trials: posed.map((p) => ({
        stacks: Object.fromEntries(p.locations.map((l) => [l.id, l.currentMm])),
        // what was taken over from an earlier build is no second witness
        readings: Object.fromEntries(
          p.quantities
            .filter((q) => !p.carried.includes(q.id) && asked.has(q.id))
            .map((q) => [q.id, q.measured]),
        ),
      })),
      ...(next ? { next } : {}),
    })
  return PRIOR_SCALES.map(update).reduce((best, u) => (u.logEvidence > best.logEvidence ? u : best))
}

/**
 * The question to the solver with all that the builds have taught: sensitivities, their uncertainties and the present values
 * are those of the posterior. With a single build it is {@link solverInput} itself.
 * @param builds in order, the newest last and complete
 * @param experience of units that were built before; their sensitivities are the prior
 */
export function learnedSolverInput(
  sheet: DriveSheet,
  builds: readonly BuildState[],
  pieces: ShimPiece[],
  free?: string[],
  experience?: Experience,
): ShimSolveInput {
  const input = withExperience(solverInput(sheet, builds.at(-1)!, pieces, free), experience)
  const learned = learnFrom(sheet, builds, undefined, experience)
  if (!learned) return input
  return {
    ...input,
    quantities: input.quantities.map((q) => {
      const posterior = learned.sensitivity[q.id]!
      const { mean, sd } = learned.newest[q.id]!
      const entries = Object.entries(posterior).filter(([, j]) => j.mean !== 0)
      return {
        ...q,
        measured: mean,
        u: sd,
        sensitivity: Object.fromEntries(entries.map(([l, j]) => [l, j.mean])),
        relUByStack: Object.fromEntries(entries.map(([l, j]) => [l, Math.min(1, j.sd / Math.abs(j.mean))])),
      }
    }),
  }
}
