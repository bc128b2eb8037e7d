import type { End } from '../assembly/act.ts'
import type { Facts, FactValue } from './facts.ts'
import type { Plan } from './plan.ts'
import type { ActClass } from './step-acts.ts'

/**
 * What the work comes to, as facts of the route: `work.` and the class of every act that was done or is left, whether a joint of the case is opened, what kind of a job
 * it is, whether it came whole, and in what it ends.
 */
export function workFacts(
  { scope }: Pick<Plan, 'scope'>,
  end: End,
  acts: ReadonlySet<ActClass>,
  { opens, whole }: { opens: boolean; whole: boolean },
): Facts {
  const facts: Record<string, FactValue> = {
    'job.mode': scope.mode,
    'job.scope': scope.usual,
    'job.mounted': scope.mounted,
    'job.end': end,
    'job.whole': whole,
    'work.opens': opens,
  }
  for (const a of acts) facts[`work.${a}`] = true
  return facts
}
