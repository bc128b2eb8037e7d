import { holds, type Facts } from './facts.ts'
import { baseOf, timeOf } from './occurrence.ts'
import type { Route, Step, StepRole, Wait } from './route.ts'

export type StepState = 'done' | 'open' | 'waiting' | 'blocked' | 'not-here'

export interface StepProgress {
  step: Step
  state: StepState
  /** Why it is blocked, in words, every reason. */
  why: string[]
  /** It is shut only by work that is done on another page of the job, and that work can go on now. */
  elsewhere?: true
  /** Time that still has to pass: a soak, a cure. */
  wait?: { step: string; kind: Wait['kind']; minutes: number }
}

export interface Progress {
  steps: StepProgress[]
  /** The step that is due: the first that can be worked on, here or on its page, else one that only waits, else the first blocked one; undefined when all is done. */
  due?: StepProgress
  /** What else can go on now, in other hands or while something soaks. */
  meanwhile: StepProgress[]
  /** What works by itself: closed steps whose soak or cure is not over. */
  running: { step: Step; kind: Wait['kind']; minutes: number }[]
  done: number
  total: number
}

/** Steps that are closed, whichever way: with their answers, or departed from. */
export type Done = ReadonlySet<string>

/** Done as soon as its gates hold: the work itself is done on another page of the job. */
export const closesItself = (step: Step) => step.bySelf === true

/** The step that has a role on this route, at the last time that it comes up; undefined where none has. */
export const stepWithRole = (route: Pick<Route, 'steps'>, role: StepRole): Step | undefined =>
  route.steps
    .filter((s) => s.role === role)
    .reduce<Step | undefined>((a, b) => (a && timeOf(a.id) > timeOf(b.id) ? a : b), undefined)

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
  const passed = remembered((id): boolean => {
    if (done.has(id)) return true
    const step = byId.get(id)!
    if (!step.needs.every(passed)) return false
    return !applies(step, facts) || (closesItself(step) && step.gates.every((g) => holds(g.when, facts)))
  })
  // each name once: what two needs lead back to would otherwise double with every step that does not apply
  const waitsFor = remembered((id): readonly string[] => {
    if (passed(id)) return []
    const step = byId.get(id)!
    return applies(step, facts) ? [id] : firstOf(step)
  })
  const firstOf = (step: Step) => [...new Set(step.needs.flatMap(waitsFor))]
  const waitsOn = remembered((id): StepProgress['wait'] => {
    const step = byId.get(id)!
    // what a step that does not apply, or closes itself, waits for is waited for through it
    if (!done.has(id)) return step.needs.map(waitsOn).find((w) => w)
    const left = minutesLeft(step, facts)
    return left > 0 ? { step: id, kind: step.waits!.kind, minutes: left } : undefined
  })
  const steps = route.steps.map((step): StepProgress => {
    if (done.has(step.id)) return { step, state: 'done', why: [] }
    if (!applies(step, facts)) return { step, state: 'not-here', why: [] }
    if (passed(step.id)) return { step, state: 'done', why: [] }
    const why = [
      ...firstOf(step).map((n) => `First: ${byId.get(n)!.what}.`),
      ...step.gates.filter((g) => !holds(g.when, facts)).map((g) => g.say),
    ]
    if (why.length)
      return {
        step,
        state: 'blocked',
        why,
        ...(step.page && step.needs.every(passed) ? { elsewhere: true as const } : {}),
      }
    const wait = step.needs.map(waitsOn).find((w) => w)
    if (!wait) return { step, state: 'open', why }
    const what = byId.get(wait.step)!.what
    return { step, state: 'waiting', why: [`${what}: ${wait.minutes} min more.`], wait }
  })
  const here = steps.filter((s) => s.state !== 'not-here')
  const open = here.filter((s) => s.state === 'open' || s.elsewhere)
  const due = open[0] ?? here.find((s) => s.state === 'waiting') ?? here.find((s) => s.state === 'blocked')
  return {
    steps,
    ...(due ? { due } : {}),
    meanwhile: open.filter((s) => s !== due),
    running: steps.flatMap(({ step }) => {
      const minutes = done.has(step.id) && applies(step, facts) ? minutesLeft(step, facts) : 0
      return minutes > 0 ? [{ step, kind: step.waits!.kind, minutes }] : []
    }),
    done: here.filter((s) => s.state === 'done').length,
    total: here.length,
  }
}

/** Each step is asked once: many stand on the same ones. */
function remembered<T>(of: (id: string) => T): (id: string) => T {
  const known = new Map<string, T>()
  return (id) => {
    if (!known.has(id)) known.set(id, of(id))
    return known.get(id)!
  }
}

/** Minutes that a closed step still has to work; `waited.<step>` are those that have passed (job-facts). */
function minutesLeft(step: Step, facts: Facts): number {
  const { waits } = step
  if (!waits || (waits.when && !holds(waits.when, facts))) return 0
  const passed = facts[`waited.${baseOf(step.id)}`]
  return typeof passed === 'number' ? Math.max(0, Math.ceil(waits.minutes - passed)) : waits.minutes
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
