import type { DoneStep, JobDetail } from '@moray/contract/replies'
import type { Answers } from '@moray/core/route/complete'
import { factsIn, holds, type Condition, type Facts } from '@moray/core/route/facts'
import { deriveFacts } from '@moray/core/route/job-facts'
import { progressOf, type Progress, type StepProgress } from '@moray/core/route/progress'
import type { Ask, Route, Step } from '@moray/core/route/route'
import { routeOf } from '@moray/core/route/route-of'
import { readTyped } from '../../parts/both-units.ts'

export interface RouteView {
  route: Route
  progress: Progress
  stages: { id: string; label: string; steps: StepProgress[]; done: number }[]
}

/** The closing of a step that counts. */
export const closingOf = (job: JobDetail, step: string): DoneStep | undefined =>
  job.work.steps.find((s) => s.step === step && !s.takenBack)

/** Where the job stands on its route, stage by stage; steps that do not belong to this job are left out. */
export function routeView(job: JobDetail): RouteView {
  const route = routeOf(job.sheet)
  const done = new Set(job.work.steps.filter((s) => !s.takenBack).map((s) => s.step))
  const progress = progressOf(route, job.work.facts, done)
  const stages = route.stages
    .map((stage) => {
      const steps = progress.steps.filter((s) => s.step.stage === stage.id && s.state !== 'not-here')
      return { ...stage, steps, done: steps.filter((s) => s.state === 'done').length }
    })
    .filter((s) => s.steps.length > 0)
  return { route, progress, stages }
}

/** Which mark a step carries in the list. */
export function markOf(job: JobDetail, s: StepProgress, due: StepProgress | undefined) {
  if (s.state === 'done')
    return closingOf(job, s.step.id)?.departedFrom.length ? ('departed' as const) : ('done' as const)
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
export function wrongSoFar(job: JobDetail, step: Step, raw: Raw): Record<string, string> {
  const answers = canonical(step, raw)
  const facts: Facts = deriveFacts(job.sheet, { ...job.work.facts, ...answers })
  // a question is judged once everything that it is judged by is known
  const needed = (must: Condition) => factsIn(must).every((f) => facts[f] !== undefined)
  return Object.fromEntries(
    step.asks
      .filter((a) => answers[a.fact] !== undefined && a.must && needed(a.must) && !holds(a.must, facts))
      .map((a) => [a.fact, a.wrong ?? a.label]),
  )
}

/** An answer in words, for what is done and for print. */
export function answerWords(ask: Ask, value: boolean | number | string, text?: string): string {
  if (ask.kind === 'tick') return value === true ? 'yes' : 'no'
  if (ask.kind === 'choice') return ask.options.find((o) => o.value === value)?.label ?? String(value)
  if (ask.kind === 'number' && typeof value === 'number') {
    const typed = readTyped(String(value), ask.unit)
    const shown = typed.state === 'value' ? typed.shown : String(value)
    return text && text !== String(value) ? `${shown} (typed ${text})` : shown
  }
  return String(value)
}
