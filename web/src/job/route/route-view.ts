import { propellerHeld, ringLock } from '@moray/core/drives/graph/unit-facts'
import type { Gauge } from '@moray/contract/replies'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { closingOf } from '@moray/core/job/closings'
import { isOver, type AskedThen, type Closing } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'
import type { Answers } from '@moray/core/route/complete'
import { isAsked } from '@moray/core/route/complete'
import { factsIn, holds, isKnown, type Condition, type Facts } from '@moray/core/route/facts'
import { isSeen, sameWords } from '@moray/core/job/same-words'
import { honestOf, honestWords } from '@moray/core/route/honest'
import { deriveFacts } from '@moray/core/route/job-facts'
import type { Progress, StepProgress } from '@moray/core/route/progress'
import type { Instruct, Route, Step } from '@moray/core/route/route'
import type { Window } from '@moray/core/checks/window'
import { wrenchSuits } from '@moray/core/torque/wrench'
import { readTyped } from '../../ui/both-units.ts'

export interface RouteView {
  route: Route
  progress: Progress
  stages: { id: string; label: string; steps: StepProgress[]; done: number }[]
}

/** Where the job stands on its route, stage by stage; steps that do not belong to this job are left out. */
export function routeView(job: Pick<ShownJob, 'route' | 'progress' | 'state'>): RouteView {
  const { route } = job
  // nothing is due on a job that is over, whatever was put right in its record since
  const progress: Progress = isOver(job.state)
    ? { ...job.progress, due: undefined, meanwhile: [], running: [] }
    : job.progress
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
  if (s.state === 'waiting') return 'waiting' as const
  return s.state === 'blocked' && !s.elsewhere ? ('blocked' as const) : ('open' as const)
}

type Raw = Record<string, boolean | number | string | undefined>

/** Answers as typed, with numbers in canonical units; what is not understood is left out. */
export function canonical(step: Step, raw: Raw): Answers {
  const answers: Answers = {}
  for (const ask of step.asks) {
    const value = raw[ask.fact]
    if (value === undefined) continue
    if (ask.kind !== 'number' || typeof value === 'number' || honestOf(value)) {
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
      .filter((a) => isKnown(answers[a.fact]) && a.must && needed(a.must) && !holds(a.must, facts))
      .map((a) => [a.fact, a.wrong ?? a.label]),
  )
}

/** The step as it is asked by now: questions that belong to the answers so far; what a picture stands in for may be left out. */
export function askedNow(job: ShownJob, step: Step, raw: Raw): Step {
  const facts = deriveFacts(job.sheet, { ...job.facts, ...canonical(step, raw) })
  return {
    ...step,
    asks: step.asks
      .filter((a) => isAsked(a, facts))
      .map((a) => (a.unless && holds(a.unless, facts) ? { ...a, optional: true } : a)),
  }
}

/** What is said at a step on this job: by its schools, its variant, what was found. */
export const saidNow = (job: ShownJob, step: Step): Instruct[] =>
  (step.instruct ?? []).filter((i) => !i.when || holds(i.when, job.facts))

/** What could hurt somebody at a step of this job. */
export const cautionsNow = (job: ShownJob, step: Step): Instruct[] =>
  (step.cautions ?? []).filter((i) => !i.when || holds(i.when, job.facts))

/** Pages of the technician's own manual that the figures of a step stand on, as the sheet's sources name them. */
export function manualPages(sheet: DriveSheet, step: Step): string[] {
  const own = (sheet.sources ?? []).filter(
    (s) =>
      s.kind === 'manual' &&
      s.where &&
      step.figuresAt?.some((p) => s.path === p || s.path.startsWith(`${p}.`)),
  )
  return [...new Set(own.map((s) => s.where!))]
}

export interface ShownFigure {
  label: string
  text: string
}

/** What Moray computes at a step from the answers so far, for the eye; what is not known yet is left out. */
export function figuresOf(
  job: ShownJob,
  step: Step,
  raw: Raw,
  show: (value: number, unit: string) => string,
): ShownFigure[] {
  if (!step.figures?.length) return []
  const facts = deriveFacts(job.sheet, { ...job.facts, ...canonical(step, raw) })
  return step.figures.flatMap(({ label, fact, unit, words }) => {
    const value = facts[fact]
    if (value === undefined) return []
    const text =
      typeof value === 'number' ? show(value, unit ?? '') : (words?.[String(value)] ?? String(value))
    return [{ label, text }]
  })
}

/** What is pointed out beside an answer, and stops nobody: words that stand at many inspection points say nothing of this one. */
export function hintsOf(job: ShownJob, step: Step, raw: Raw): Record<string, string> {
  return Object.fromEntries(
    step.asks.flatMap((a) => {
      const same = isSeen(a) ? sameWords(job, step.id, String(raw[a.fact] ?? '')) : 0
      return same
        ? [
            [
              a.fact,
              `The same words stand at ${same} other inspection points. What do you see at this one? A picture says it in one tap.`,
            ],
          ]
        : []
    }),
  )
}

/** Closings of a step that never counted, with the reason: attempts, newest first. */
export function attemptsOf(
  closings: readonly Closing[],
  step: string,
): { id: number; by: string; why: string }[] {
  return closings
    .filter(
      (c) => c.step === step && c.takenBack && c.takenBack.at === c.at && c.takenBack.replacedBy === null,
    )
    .map((c) => ({ id: c.id, by: c.by, why: c.takenBack!.reason }))
    .reverse()
}

type Asked = AskedThen['asks'][number]

/** What a step asks today, for records that an older Moray kept without their words. */
export const askedOf = (step: Step | undefined): AskedThen | null =>
  step ? { what: step.what, asks: step.asks } : null

/** An answer in words, for what is done and for print. */
export function answerWords(ask: Asked, value: boolean | number | string, text?: string): string {
  const other = honestWords(value)
  if (other) return other
  if (ask.kind === 'tick') return value === true ? 'yes' : 'no'
  if (ask.kind === 'choice') return ask.options?.find((o) => o.value === value)?.label ?? String(value)
  if (ask.kind === 'list') {
    const chosen = String(value)
      .split(' ')
      .filter((v) => v !== '')
    const names = chosen.map((v) => ask.options?.find((o) => o.value === v)?.label ?? v)
    return names.join('; ') || 'none'
  }
  if (ask.kind === 'number' && typeof value === 'number') {
    const typed = readTyped(String(value), ask.unit ?? '')
    const shown = typed.state === 'value' ? typed.shown : String(value)
    return text && text !== String(value) ? `${shown} (typed ${text})` : shown
  }
  return String(value)
}

/** Windows of torque by the beginning of their facts: of the big nut, and of the propeller. */
const torqueOf = ({ graph }: DriveSheet, step: Step): Window | undefined => {
  if (step.asks.some((a) => a.fact === 'close.setting')) return ringLock(graph)?.torqueNm
  const held = propellerHeld(graph)
  return step.asks.some((a) => a.fact === 'prop.setting') && held?.kind === 'tabs' ? held.torqueNm : undefined
}

/** Wrenches that can be trusted over the torque that a step asks for, the shortest range first: it shows most of it. */
export function wrenchesFor(sheet: DriveSheet, step: Step, gauges: readonly Gauge[]): Gauge[] {
  const window = torqueOf(sheet, step)
  if (!window) return []
  return gauges
    .filter((g) => !g.retired && g.wrench !== null && wrenchSuits(g.wrench, window))
    .sort((a, b) => a.wrench!.toNm - b.wrench!.toNm)
}

/** Lengths that are known of the wrench and its adapter, offered where they are asked for. */
export function wrenchOffers(
  step: Step,
  wrenches: readonly Gauge[],
): Record<string, { label: string; value: string }> {
  const known = wrenches.find((w) => w.wrench?.lengthMm !== undefined)
  const { lengthMm, adapters } = known?.wrench ?? {}
  const offer = (end: string, label: string, mm: number | undefined) =>
    step.asks.flatMap((a) =>
      mm !== undefined && a.fact.endsWith(end) ? [[a.fact, { label, value: `${mm} mm` }] as const] : [],
    )
  return Object.fromEntries([
    ...offer('.wrench', `${known?.name}: ${lengthMm} mm. Take it over`, lengthMm),
    ...offer(
      '.offset',
      `${adapters?.[0]?.label}: ${adapters?.[0]?.lengthMm} mm. Take it over`,
      adapters?.[0]?.lengthMm,
    ),
  ])
}
