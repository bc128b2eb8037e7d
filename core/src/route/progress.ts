import { holds, type Facts } from './facts.ts'
import type { Route, Step, StepRole } from './route.ts'

export type StepState = 'done' | 'open' | 'blocked' | 'not-here'

export interface StepProgress {
  step: Step
  state: StepState
  /** Why it is blocked, in words, every reason. */
  why: string[]
}

export interface Progress {
  steps: StepProgress[]
  /** The step that is due: the first open one, else the first blocked one; undefined when all is done. */
  due?: StepProgress
  done: number
  total: number
}

/** Steps that are closed, whichever way: with their answers, or departed from. */
export type Done = ReadonlySet<string>

/** A step that asks nothing is done as soon as what it waits for is, and open again when that no longer holds. */
export const closesItself = (step: Step) => step.asks.length === 0 && step.gates.length > 0

/** The step that has a role on this route; undefined where none has. */
export const stepWithRole = (route: Pick<Route, 'steps'>, role: StepRole): Step | undefined =>
  route.steps.find((s) => s.role === role)

/** Whether a step belongs to this job. */
export const applies = (step: Step, facts: Facts) => !step.appliesWhen || holds(step.appliesWhen, facts)

/**
 * Where a job stands on its route. A step that does not apply is passed over by those that need
 * it, once its own needs are done. Deterministic: same
 * route, facts and done steps, same answer.
 */
export function progressOf(route: Route, facts: Facts, done: Done): Progress {
  const byId = new Map(route.steps.map((s) => [s.id, s]))
  // a step that does not apply passes on what it needs itself: what decides whether it applies may still be open
  const passed = (id: string): boolean => {
    if (done.has(id)) return true
    const step = byId.get(id)!
    if (!step.needs.every(passed)) return false
    return !applies(step, facts) || (closesItself(step) && step.gates.every((g) => holds(g.when, facts)))
  }
  const waitsFor = (id: string): string[] =>
    passed(id) ? [] : applies(byId.get(id)!, facts) ? [id] : byId.get(id)!.needs.flatMap(waitsFor)
  const steps = route.steps.map((step): StepProgress => {
    if (done.has(step.id)) return { step, state: 'done', why: [] }
    if (!applies(step, facts)) return { step, state: 'not-here', why: [] }
    if (passed(step.id)) return { step, state: 'done', why: [] }
    const why = [
      ...step.needs.flatMap(waitsFor).map((n) => `First: ${byId.get(n)!.what}.`),
      ...step.gates.filter((g) => !holds(g.when, facts)).map((g) => g.say),
    ]
    return { step, state: why.length ? 'blocked' : 'open', why }
  })
  const here = steps.filter((s) => s.state !== 'not-here')
  const due = here.find((s) => s.state === 'open') ?? here.find((s) => s.state === 'blocked')
  return {
    steps,
    ...(due ? { due } : {}),
    done: here.filter((s) => s.state === 'done').length,
    total: here.length,
  }
}

/** Every step that cannot stay done when `id` is taken back: those that need it, and those that need them. */
export function dependentsOf(route: Route, id: string): string[] {
  const found = new Set([id])
  for (let more = true; more;) {
    more = false
    for (const s of route.steps)
      if (!found.has(s.id) && s.needs.some((n) => found.has(n))) {
        found.add(s.id)
        more = true
      }
  }
  found.delete(id)
  return route.steps.filter((s) => found.has(s.id)).map((s) => s.id)
}
