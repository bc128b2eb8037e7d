import { holds, type Condition, type Facts } from '../route/facts.ts'
import { completeStep, type Answers, type Completed, type Departure } from '../route/complete.ts'
import { deriveFacts } from '../route/job-facts.ts'
import type { Route, Step } from '../route/route.ts'
import { refuse } from '../checks/input-error.ts'
import { counted, doneSteps } from './closings.ts'
import type { JudgedJob } from './judged.ts'
import { workOf } from './job-work.ts'
import { knownFacts } from './known-facts.ts'
import type { Closing } from './record.ts'

export interface Correction {
  /** The step with its corrected answers, checked like a first closing. */
  closed: Completed
  /** Ids of other closings that stood on what has changed: they are done again. */
  fallen: number[]
}

/**
 * Corrects the answers of a closed step: the new ones are checked as if the step were closed now, and of all that came later only
 * what stood on a changed fact falls (a gate, an answer or a count that held before and no longer does), with what stood on that
 * in turn. Everything else stays done.
 * @param closing one that counts
 * @param now for what waits
 * @throws InputError as closing the step would; `same` when nothing is corrected; `attempt` when the answers would not count
 */
export function correctStep(
  job: JudgedJob,
  closing: Closing,
  answers: Answers,
  now: Date,
  options: { departure?: Departure | undefined; departuresNeedLead?: boolean; leadAgrees?: boolean } = {},
): Correction {
  const standing = counted(job.closings)
  const others = standing.filter((c) => c.id !== closing.id)
  const { sheet, ways, plan, builds } = job
  const factsOf = (closings: Closing[]) => {
    const record = { ...job, closings }
    return knownFacts(record, sheet, ways, now, { plan, builds, work: workOf(record, sheet, plan) })
  }
  const closed = completeStep(
    asClosed(job.route, closing.step),
    factsOf(others),
    doneSteps(others),
    closing.step,
    answers,
    {
      ...options,
      derive: (facts) => deriveFacts(job.sheet, facts),
    },
  )
  if (closed.attempt.length)
    refuse(
      'answers',
      `would not count: ${closed.attempt.join(' ')} Take the step back and do it again.`,
      'attempt',
    )
  if (sameAnswers(closed.answers, closing.answers))
    refuse('answers', 'are the same as before; change what is wrong', 'same')
  const corrected: Closing = { ...closing, answers: closed.answers }
  const stoodOn = new Map(job.route.steps.map((s) => [s.id, conditionsOf(s)]))
  const fallen = new Set<number>()
  for (let more = true; more;) {
    more = false
    const after = factsOf([corrected, ...others.filter((c) => !fallen.has(c.id))])
    for (const c of others)
      if (!fallen.has(c.id) && breaks(stoodOn.get(c.step) ?? [], job.facts, after)) {
        fallen.add(c.id)
        more = true
      }
  }
  return { closed, fallen: [...fallen] }
}

/** The route with a step that belongs to the job because it was closed, whatever is left to do without it. */
const asClosed = (route: Route, step: string): Route => ({
  ...route,
  steps: route.steps.map((s) => {
    if (s.id !== step) return s
    const { appliesWhen: _, ...rest } = s
    return rest
  }),
})

/**
 * The same of a job that is over: only the record is put right. Nothing is proved, asked or done anew: what was handed over on the old answer was.
 * @throws InputError `same` when nothing is corrected
 */
export function correctRecord(closing: Closing, answers: Answers): Correction {
  if (sameAnswers(answers, closing.answers))
    refuse('answers', 'are the same as before; change what is wrong', 'same')
  return { closed: { answers, departedFrom: closing.departedFrom, attempt: [] }, fallen: [] }
}

/** What a step stands on once it is closed. */
function conditionsOf(step: Step): Condition[] {
  return [
    ...step.gates.map((g) => g.when),
    ...(step.counts ?? []).map((g) => g.when),
    ...step.asks.flatMap((a) => a.must ?? []),
  ]
}

const breaks = (conditions: Condition[], before: Facts, after: Facts) =>
  conditions.some((c) => holds(c, before) && !holds(c, after))

const sameAnswers = (a: Answers, b: Answers) =>
  Object.keys({ ...a, ...b }).every((fact) => a[fact] === b[fact])
