import type { Condition } from './facts.ts'
import type { Ask, Gate, Step } from './route.ts'
import type { SlipId } from './slips.ts'

/** Short words for writing a route down; everything they make is plain data. */
type More = Partial<Pick<Ask, 'optional'>>

/** Has to be ticked. */
export function tick(fact: string, label: string, slip?: SlipId, wrong?: string, more: More = {}): Ask {
  return {
    kind: 'tick',
    fact,
    label,
    ...(more.optional
      ? {}
      : { must: { fact, is: true }, wrong: wrong ?? `Not ticked yet: ${label.toLowerCase()}.` }),
    ...(slip ? { slip } : {}),
    ...more,
  }
}

type Options = Record<string, string>

/** One of several; any answer closes the step. @param more.finds findings that the answers stand for */
export function pick(
  fact: string,
  label: string,
  options: Options,
  more: More & { finds?: Record<string, string> } = {},
): Ask {
  return { kind: 'choice', fact, label, options: listed(options), ...more }
}

/** One of several, of which only `right` closes the step. */
export function rightOf(
  fact: string,
  label: string,
  options: Options,
  right: string | string[],
  wrong: string,
  slip?: SlipId,
): Ask {
  const oneOf = Array.isArray(right) ? right : [right]
  return {
    kind: 'choice',
    fact,
    label,
    options: listed(options),
    must: { fact, oneOf },
    wrong,
    ...(slip ? { slip } : {}),
  }
}

/** Several of a list, each ticked by name. */
export function listOf(fact: string, label: string, options: Options, more: More = {}): Ask {
  return { kind: 'list', fact, label, options: listed(options), ...more }
}

const listed = (options: Options) => Object.entries(options).map(([value, label]) => ({ value, label }))

type NumberAsk = Extract<Ask, { kind: 'number' }>

export function number(fact: string, label: string, unit: string, more: Partial<NumberAsk> = {}): Ask {
  return { kind: 'number', fact, label, unit, min: 0, ...more }
}

export function text(fact: string, label: string, more: More = {}): Ask {
  return { kind: 'text', fact, label, ...more }
}

/** A wrong answer here stops everybody: it could hurt somebody. */
export const firmly = (ask: Ask): Ask => ({ ...ask, firm: true })

/** A question that also has to satisfy something about other facts. */
export function mustHold(ask: Ask, must: Condition, wrong: string, slip?: SlipId): Ask {
  return { ...ask, must, wrong, ...(slip ? { slip } : {}) }
}

export const gate = (when: Condition, say: string, slip?: SlipId): Gate => ({
  when,
  say,
  ...(slip ? { slip } : {}),
})

export interface StepDraft extends Partial<Omit<Step, 'id' | 'stage' | 'what' | 'why'>> {
  id: string
  what: string
  why: string
  /** Steps it needs besides the one before it. */
  needsToo?: string[]
}

/**
 * A stage's steps, one after the other unless a step names its own needs. Falsy entries are left out, so that a drive without
 * the thing has no step for it.
 * @param after the step that the first one follows
 */
export function inOrder(
  stage: string,
  after: string | undefined,
  drafts: (StepDraft | false | null | undefined)[],
): Step[] {
  let previous = after
  return drafts
    .filter((d): d is StepDraft => !!d)
    .map(({ needsToo = [], ...d }) => {
      const step: Step = {
        gates: [],
        asks: [],
        tools: [],
        consumables: [],
        ...d,
        needs: [...(d.needs ?? (previous === undefined ? [] : [previous])), ...needsToo],
        stage,
      }
      previous = step.id
      return step
    })
}
