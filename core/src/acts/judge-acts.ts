import type { Act } from '../assembly/act.ts'
import { assemblyIndex } from '../assembly/assembly-index.ts'
import { fold, type Folded } from '../assembly/fold.ts'
import { invariants, mayLeave, type Line } from '../assembly/invariants.ts'
import { isOver } from '../job/record.ts'
import type { JudgedJob } from '../job/judged.ts'
import { actsOf } from './acts-of-record.ts'

/** What the list says of a job beside today's plan, while nothing depends on it. */
export interface Shadow extends Pick<Folded, 'inferred'> {
  acts: number
  lines: Line[]
  /** Today's plan has nothing left but handover, or not even that. */
  nothingLeft: boolean
  /** Nothing is left on the route, and something is not as it must be. */
  overlooked: boolean
}

/**
 * Judges a job by what was done to its unit. A job that was handed over is not judged by a list that did not exist then.
 * @param logged its log; without one, as for a job that nobody has written to since there are logs, what its record says
 * @returns undefined for a job that is over
 */
export function shadowOf(job: JudgedJob, logged?: readonly Act[]): Shadow | undefined {
  if (isOver(job.state)) return undefined
  const ix = assemblyIndex(job.sheet)
  const acts = logged?.length ? logged : actsOf(job)
  const { state, inferred } = fold(ix, acts)
  const lines = invariants(ix, state)
  const nothingLeft = job.progress.steps.every(
    (s) => s.state === 'done' || s.state === 'not-here' || s.step.id === 'handover',
  )
  return {
    acts: acts.length,
    inferred,
    lines,
    nothingLeft,
    overlooked: nothingLeft && !mayLeave(lines),
  }
}
