import type { Act, Turn } from '../torque/thread-turn.ts'
import type { Quantity } from '../units/factors.ts'
import type { Condition } from './facts.ts'
import type { SchoolId } from './schools.ts'
import type { SlipId } from './slips.ts'

/** The order of work as data: stages of steps, each with what it needs, asks, and stays shut for. */
export interface Route {
  family: string
  stages: Stage[]
  steps: Step[]
}

export interface Stage {
  id: string
  label: string
}

interface AskBase {
  /** The fact that the answer becomes. */
  fact: string
  label: string
  /** What must hold once this answer is in; otherwise the step does not close. */
  must?: Condition
  /** Said when it does not hold: what is wrong, and what to do. */
  wrong?: string
  /** The slip that this question catches. */
  slip?: SlipId
  optional?: boolean
  /** Not asked for when this holds: a picture stands in for two words. */
  unless?: Condition
  /** Only asked when this holds. */
  when?: Condition
  /** Nobody goes on over a wrong answer here, whatever the reason: it could hurt somebody. */
  firm?: boolean
}

export type Ask =
  | (AskBase & { kind: 'tick' })
  /** Several of a list; the answer is their values in the list's order, with blanks between. */
  | (AskBase & {
      kind: 'list'
      options: { value: string; label: string }[]
      /** The options come from what the job has by then ({@link withLists}), not from the route. */
      from?: ListSource
    })
  | (AskBase & {
      kind: 'choice'
      options: { value: string; label: string }[]
      /** Findings of the fault table that an answer stands for, by value. */
      finds?: Record<string, string>
    })
  /** In canonical units; typed in bench notation where it has a quantity. */
  | (AskBase & {
      kind: 'number'
      unit: string
      quantity?: Quantity
      min?: number
      max?: number
      whole?: boolean
    })
  /** @property least letters that an answer has at least: one letter says nothing of what the eye saw */
  | (AskBase & { kind: 'text'; least?: number })

/** Where the options of a list come from: the orders of the job, or what was ticked at another question. */
export type ListSource = { of: 'orders' } | { of: 'answer'; fact: string }

/** A line said before the act. */
export interface Instruct {
  say: string
  /** Only then: a school, a variant, what was found. */
  when?: Condition
  /** Which way the tool turns, at the moment it goes on. */
  turn?: { what: string; act: Act; turn: Turn }
  /** The slip that it keeps from happening. */
  slip?: SlipId
}

/** Time that passes after a step is closed, before what stands on it goes on; other work goes on meanwhile. */
export interface Wait {
  kind: 'soak' | 'cure'
  minutes: number
  when?: Condition
}

export interface Gate {
  when: Condition
  /** Why it is shut, and what opens it. */
  say: string
  slip?: SlipId
  /** Nobody goes on over it, whatever the reason. */
  firm?: boolean
}

/** A figure that Moray computes at a step, shown as soon as it is known. */
export interface Figure {
  label: string
  fact: string
  unit?: string
  /** What a fact that is a word stands for. */
  words?: Record<string, string>
}

/**
 * Steps that mean something beyond the route: rings that age until the case closes over them, the closing itself, the last moment before parts go
 * back in, parts that arrive, and the end.
 */
export type StepRole = 'tightens' | 'rings-in' | 'closes' | 'ready-to-build' | 'parts-arrive' | 'hands-over'

export interface Step {
  id: string
  stage: string
  what: string
  why: string
  /** Steps that must be done before. */
  needs: string[]
  /** What to do now, in order, before anything is asked. */
  instruct?: Instruct[]
  /** It cannot be seen again once it is closed: two words or a picture of what the eye saw. */
  holdPoint?: boolean
  /** It comes up in a repair alone, and stands there from its first time on. */
  ofRepair?: boolean
  /** Work that is done elsewhere on the job: it is done as soon as its gates hold, and open again when they no longer do. */
  bySelf?: boolean
  /** It takes effect later. */
  waits?: Wait
  /** Which way up the case stands, and what falls out of it. */
  attitude?: string
  /** Place on the section drawing. */
  place?: string
  gates: Gate[]
  asks: Ask[]
  tools: string[]
  consumables: string[]
  /** What could hurt somebody at this act, each with its reason. */
  cautions?: Instruct[]
  /** Left out of this job when it does not hold. */
  appliesWhen?: Condition
  /** What its answers must come to before it counts; otherwise they are kept as an attempt, and the step stays open. */
  counts?: Gate[]
  /** It takes its time, from the moment this fact is entered: the pressure of a test. */
  timedFrom?: string
  /** How long it is held, minutes. */
  holdMin?: number
  /** What is computed here. */
  figures?: Figure[]
  /** A thread that turns another way than most, at the moment the tool goes on. */
  turn?: { what: string; act: Act; turn: Turn }
  /** What the rest of Moray knows this step as. */
  role?: StepRole
  /** It leaves the case open and bare: what was measured and accepted before it is how the case was found. */
  bares?: boolean
  /** Figures that the sheet lacks and this step works by, by path: asked for here, and put into the draft of its next version. */
  wants?: string[]
  /** Where its figures stand on the sheet, as the beginning of their paths: the page of the manual is said with it. */
  figuresAt?: string[]
  /** A picture is wanted with it. */
  picture?: boolean
  /** The school that decides how it is done. */
  school?: SchoolId
  /** Where else on the job the work is done. */
  page?: 'setting' | 'row' | 'grades' | 'estimate' | 'faults' | 'contact'
}
