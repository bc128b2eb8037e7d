import { InputError, refuse, type FieldProblem } from '../checks/input-error.ts'
import { factsIn, holds, type Facts, type FactValue } from './facts.ts'
import { honestOf, WANTS_WORDS, type Honest } from './honest.ts'
import { applies, progressOf, type Done } from './progress.ts'
import type { Ask, Route, Step } from './route.ts'

export type Answers = Record<string, FactValue>

/** Going on although something does not hold: possible with a reason, and where the shop says so, when the lead agrees. */
export interface Departure {
  reason: string
}

export interface Completed {
  /** Facts that the answers add. */
  answers: Answers
  /** What was departed from, in words; empty when everything held. */
  departedFrom: string[]
  /** Why the answers do not count although nothing was wrong with them: kept as an attempt, and the step stays open. */
  attempt: string[]
}

/**
 * Checks that a step may close with these answers.
 * @param derive what else follows from the facts (job-facts.ts); asked again with the answers in
 * @param departuresNeedLead the shop's rule
 * @throws InputError `gate-closed` when steps before are open or a gate is shut, `answer-missing`, `slip` when an answer says
 *   that something is wrong, `lead-needed`, `firm` when a wrong answer allows no departure
 */
export function completeStep(
  route: Route,
  facts: Facts,
  done: Done,
  stepId: string,
  answers: Answers,
  options: {
    derive?: (facts: Facts) => Facts
    departure?: Departure | undefined
    departuresNeedLead?: boolean
    /** The lead closes the step himself, or has agreed to it. */
    leadAgrees?: boolean
  } = {},
): Completed {
  const { derive = (f: Facts) => f, departure } = options
  const step = route.steps.find((s) => s.id === stepId)
  if (!step) refuse('step', `"${stepId}" is no step of this route`)
  if (done.has(stepId)) refuse('step', `"${step.what}" is done already; take it back first`, 'already-done')
  if (!applies(step, facts)) refuse('step', `"${step.what}" does not belong to this job`, 'not-here')

  const { state, why } = progressOf(route, facts, done).steps.find((s) => s.step.id === stepId)!
  if ((state === 'blocked' || state === 'waiting') && !departure)
    throw new InputError(
      'gate-closed',
      why.map((message) => ({ path: 'step', message })),
    )
  const kept = checkAnswers(step, answers)
  const after = derive({ ...facts, ...kept })
  const slips = step.asks.filter(
    (a) => isAnswered(a, kept) && !honestOf(kept[a.fact]) && a.must && !holds(a.must, after),
  )
  const missing = step.asks.filter((a) => isWanted(a, after) && !isAnswered(a, kept))
  if (missing.length && !departure)
    throw new InputError(
      'answer-missing',
      missing.map((a) => ({
        path: `answers.${a.fact}`,
        message: a.kind === 'tick' && a.wrong ? a.wrong : `${a.label}: not answered yet`,
      })),
    )
  const wanted = step.asks.filter((a) => isWanted(a, after))
  // what was not done at all is no attempt: it is closed as that, and what must rest on it stays shut
  const notDone = wanted.length > 0 && wanted.every((a) => honestOf(kept[a.fact]))
  const short = (notDone ? [] : (step.counts ?? []))
    .filter((g) => !holds(g.when, after) && !factsIn(g.when).some((f) => honestOf(kept[f])))
    .map((g) => g.say)
  const reasons: (FieldProblem & { code: string })[] = [
    ...(state === 'blocked' || state === 'waiting'
      ? why.map((message) => ({ path: 'step', message, code: 'gate-closed' }))
      : []),
    ...slips.map((a) => ({ path: `answers.${a.fact}`, message: a.wrong ?? a.label, code: 'slip' })),
    ...missing.map((a) => ({ path: `answers.${a.fact}`, message: `${a.label}: left out`, code: 'slip' })),
  ]
  if (!reasons.length) return { answers: kept, departedFrom: [], attempt: short }
  const problems = reasons.map(({ path, message }) => ({ path, message }))
  if (!departure) throw new InputError(reasons[0]!.code, problems)
  const firm = slips.filter((a) => a.firm)
  const shut = step.gates.filter((g) => g.firm && !holds(g.when, facts))
  if (firm.length || shut.length)
    throw new InputError('firm', [
      { path: 'departure', message: 'is refused: nobody goes on over this, it could hurt somebody' },
      ...firm.map((a) => ({ path: `answers.${a.fact}`, message: a.wrong ?? a.label })),
      ...shut.map((g) => ({ path: 'step', message: g.say })),
    ])
  if (departure.reason.trim().length < 3)
    refuse('departure.reason', 'is missing; say why you go on all the same', 'reason-needed')
  if (options.departuresNeedLead && !options.leadAgrees)
    refuse('departure', 'needs the lead of this shop, who has not agreed to it yet', 'lead-needed')
  return { answers: kept, departedFrom: [...reasons.map((r) => r.message), ...short], attempt: [] }
}

/** Asked here and now, and not to be left out. */
export const isWanted = (ask: Ask, facts: Facts): boolean =>
  !ask.optional && isAsked(ask, facts) && !(ask.unless && holds(ask.unless, facts))

/** Belongs to this job as it stands. */
export const isAsked = (ask: Ask, facts: Facts): boolean => !ask.when || holds(ask.when, facts)

const isAnswered = (ask: Ask, answers: Answers) =>
  ask.kind === 'tick'
    ? answers[ask.fact] === true || honestOf(answers[ask.fact]) !== undefined
    : answers[ask.fact] !== undefined

/** Keeps what was answered; refuses what nobody asked, and answers that cannot be. */
function checkAnswers(step: Step, answers: Answers): Answers {
  const problems: FieldProblem[] = []
  const kept: Answers = {}
  for (const [fact, value] of Object.entries(answers)) {
    const path = `answers.${fact}`
    const ask = step.asks.find((a) => a.fact === fact)
    if (!ask) {
      problems.push({
        path,
        message: `is not asked here; asked are ${step.asks.map((a) => a.fact).join(', ') || 'no questions'}`,
      })
      continue
    }
    const said = honestOf(value)
    const message = said ? cannotSay(ask, said.kind, said.how) : cannotBe(ask, value)
    if (message) problems.push({ path, message })
    else if (!(ask.kind === 'text' && value === '')) kept[fact] = value
  }
  // a list of which nothing is ticked is answered: none
  for (const a of step.asks) if (a.kind === 'list' && !a.optional && !a.when) kept[a.fact] ??= ''
  if (problems.length) throw new InputError('invalid-input', problems)
  return kept
}

/** What an honest answer may not be. */
function cannotSay(ask: Ask, kind: Honest, how: string): string | undefined {
  if (ask.firm && kind !== 'not-done') return 'has to be read: it could hurt somebody'
  if (how.length > 300) return 'must be text of at most 300 characters'
  const words = WANTS_WORDS[kind]
  return words && how.trim().length < 3 ? `says ${words}, in a few words` : undefined
}

function outOf(
  { unit }: { unit: string },
  value: number,
  side: 'at least' | 'at most',
  limit: number,
): string {
  const shown = (v: number) => (unit ? `${v} ${unit}` : `${v}`)
  return `is ${shown(value)}; ${side} ${shown(limit)} can be: read it again, or look at the unit`
}

const letters = (text: string) => [...text].filter((c) => /\p{L}/u.test(c)).length

function cannotBe(ask: Ask, value: FactValue): string | undefined {
  switch (ask.kind) {
    case 'tick':
      return typeof value === 'boolean' ? undefined : 'is ticked or not'
    case 'choice':
      return ask.options.some((o) => o.value === value)
        ? undefined
        : `is ${JSON.stringify(value)}; one of ${ask.options.map((o) => o.value).join(', ')}`
    case 'list': {
      if (typeof value !== 'string') return 'must be text: the values chosen, in order, with blanks between'
      const known = ask.options.map((o) => o.value)
      const chosen = value.split(' ').filter((v) => v !== '')
      const kept = known.filter((v) => chosen.includes(v))
      return chosen.join(' ') === kept.join(' ')
        ? undefined
        : `is ${JSON.stringify(value)}; some of ${known.join(', ')}, each once and in this order`
    }
    case 'number':
      if (typeof value !== 'number' || !Number.isFinite(value)) return 'must be a finite number'
      if (ask.whole && !Number.isInteger(value)) return `is ${value}; count again, it is a whole number`
      if (ask.min !== undefined && value < ask.min) return outOf(ask, value, 'at least', ask.min)
      if (ask.max !== undefined && value > ask.max) return outOf(ask, value, 'at most', ask.max)
      return undefined
    case 'text':
      if (typeof value !== 'string' || value.length > 600) return 'must be text of at most 600 characters'
      return value !== '' && letters(value) < (ask.least ?? 0)
        ? `says nothing yet: what you see, in a word or two of at least ${ask.least} letters, or a picture instead`
        : undefined
  }
}
