import { closingOf } from '@moray/core/job/closings'
import type { AskedThen } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import type { Answers } from '@moray/core/route/complete'
import { factsIn, holds, type Condition, type Facts } from '@moray/core/route/facts'
import { deriveFacts } from '@moray/core/route/job-facts'
import type { Progress, StepProgress } from '@moray/core/route/progress'
import type { Route, Step } from '@moray/core/route/route'
import { readTyped } from '../../ui/both-units.ts'

export interface RouteView {
  route: Route
  progress: Progress
  stages: { id: string; label: string; steps: StepProgress[]; done: number }[]
}

/** Where the job stands on its route, stage by stage; steps that do not belong to this job are left out. */
export function routeView({ route, progress }: Pick<ShownJob, 'route' | 'progress'>): RouteView {
  const stages = route.stages
    .map((stage) => {
      const steps = progress.steps.filter((s) => s.step.stage === stage.id && s.state !== 'not-here')
      return { ...stage, steps, done: steps.filter((s) => s.state === 'done').length }
    })
    .filter((s) => s.steps.length > 0)
  return { route, progress, stages }
}

/** Which mark a step carries in the list. */
export function markOf(job: ShownJob, s: StepProgress, due: StepProgress | undefined) {
  if (s.state === 'done')
    return closingOf(job.closings, s.step.id)?.departedFrom.length ? ('departed' as const) : ('done' as const)
  if (s === due) return 'due' as const
  return s.state === 'blocked' ? ('blocked' as const) : ('open' as const)
}

type Raw = Record<string, boolean | number | string | undefined>

/** Answers as typed, with numbers in canonical units; what is not understood is left out. */
export function canonical(step: Step, raw: Raw): Answers {
  const answers: Answers = {}
  for (const ask of step.asks) {
    const value = raw[ask.fact]
    if (value === undefined) continue
    if (ask.kind !== 'number' || typeof value === 'number') {
      answers[ask.fact] = value
      continue
    }
    const typed = readTyped(String(value), ask.unit, ask.quantity)
    if (typed.state === 'value') answers[ask.fact] = typed.value
  }
  return answers
}

/** What is wrong with the answers given so far, by fact: said before Enter, with the words that would stop the step. */
export function wrongSoFar(job: ShownJob, step: Step, raw: Raw): Record<string, string> {
  const answers = canonical(step, raw)
  const facts: Facts = deriveFacts(job.sheet, { ...job.facts, ...answers })
  // a question is judged once everything that it is judged by is known
  const needed = (must: Condition) => factsIn(must).every((f) => facts[f] !== undefined)
  return Object.fromEntries(
    step.asks
      .filter((a) => answers[a.fact] !== undefined && a.must && needed(a.must) && !holds(a.must, facts))
      .map((a) => [a.fact, a.wrong ?? a.label]),
  )
}

type Asked = AskedThen['asks'][number]

/** What a step asks today, for records that an older Moray kept without their words. */
export const askedOf = (step: Step | undefined): AskedThen | null =>
  step ? { what: step.what, asks: step.asks } : null

/** An answer in words, for what is done and for print. */
export function answerWords(ask: Asked, value: boolean | number | string, text?: string): string {
  if (ask.kind === 'tick') return value === true ? 'yes' : 'no'
  if (ask.kind === 'choice') return ask.options?.find((o) => o.value === value)?.label ?? String(value)
  if (ask.kind === 'number' && typeof value === 'number') {
    const typed = readTyped(String(value), ask.unit ?? '')
    const shown = typed.state === 'value' ? typed.shown : String(value)
    return text && text !== String(value) ? `${shown} (typed ${text})` : shown
  }
  return String(value)
}
