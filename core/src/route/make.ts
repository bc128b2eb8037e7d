import type { DriveSheet } from '../drives/sheet.ts'
import type { DriveStepId } from './step-ids.ts'
import type { Condition } from './facts.ts'
import type { Ask, Gate, Instruct, ListSource, Step } from './route.ts'
import type { SchoolId } from './schools.ts'
import type { SlipId } from './slips.ts'

/** Short words for writing a route down; everything they make is plain data. */
type More = Partial<Pick<Ask, 'optional' | 'when' | 'unless'>>

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

/** Several of a list, each ticked by name. */
export function listOf(fact: string, label: string, options: Options, more: More = {}): Ask {
  return { kind: 'list', fact, label, options: listed(options), ...more }
}

/** A list whose options the job has by then. */
export function listFrom(fact: string, label: string, from: ListSource, more: More = {}): Ask {
  return { kind: 'list', fact, label, options: [], from, ...more }
}

/** Says something before the act. @param slip what it keeps from happening */
export function say(words: string, slip?: SlipId, when?: Condition): Instruct {
  return { say: words, ...(slip ? { slip } : {}), ...(when ? { when } : {}) }
}

/** The same, where the shop works by this school. */
export const bySchool = (school: SchoolId, choice: string, words: string): Instruct => ({
  say: words,
  when: { fact: `school.${school}`, is: choice },
})

/** How turns are counted: in a gear, where there is a neutral. */
export const inGear = ({ graph }: Pick<DriveSheet, 'graph'>): Instruct[] =>
  graph.unit?.shifts
    ? [
        say(
          'Engage forward before you count: in neutral nothing turns at the output. Count reverse as well where its gear has other teeth.',
        ),
      ]
    : []

/** What a hold point wants: two words of what the eye saw, or a picture at the step. */
export const seen = (step: string, what: string): Ask => ({
  kind: 'text',
  fact: `${step}.seen`,
  label: `What you see: ${what}`,
  unless: { fact: `picture.${step}`, is: true },
  least: 3,
})

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

/** @typeParam Id the steps that there are: those of a drive's route where nothing else is said */
export interface StepDraft<Id extends string = DriveStepId> extends Partial<
  Omit<Step, 'id' | 'stage' | 'what' | 'why' | 'needs'>
> {
  id: Id
  what: string
  why: string
  /** Steps that must be done before; the one before it where nothing is said. */
  needs?: Id[]
  /** Steps it needs besides the one before it. */
  needsToo?: Id[]
}

/** Steps that are needed where something is so. */
export const neededIf = (is: unknown, ...steps: DriveStepId[]): DriveStepId[] => (is ? steps : [])

/**
 * A stage's steps, one after the other unless a step names its own needs. Falsy entries are left out, so that a drive without
 * the thing has no step for it.
 * @param after the step that the first one follows
 */
export function inOrder<Id extends string = DriveStepId>(
  stage: string,
  after: Id | undefined,
  drafts: (StepDraft<Id> | false | null | undefined)[],
): Step[] {
  let previous: Id | undefined = after
  return drafts
    .filter((d): d is StepDraft<Id> => !!d)
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
      previous = d.id
      return step
    })
}
