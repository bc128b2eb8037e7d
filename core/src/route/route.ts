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
}

export type Ask =
  | (AskBase & { kind: 'tick' })
  | (AskBase & { kind: 'choice'; options: { value: string; label: string }[] })
  /** In canonical units; typed in bench notation where it has a quantity. */
  | (AskBase & { kind: 'number'; unit: string; quantity?: Quantity; min?: number; max?: number })
  | (AskBase & { kind: 'text' })

export interface Gate {
  when: Condition
  /** Why it is shut, and what opens it. */
  say: string
  slip?: SlipId
}

export interface Step {
  id: string
  stage: string
  what: string
  why: string
  /** Steps that must be done before. */
  needs: string[]
  /** Place on the section drawing. */
  place?: string
  gates: Gate[]
  asks: Ask[]
  tools: string[]
  consumables: string[]
  caution?: string
  /** Left out of this job when it does not hold. */
  appliesWhen?: Condition
  /** No departure, whatever the reason: it could hurt somebody. */
  firm?: boolean
  /** It takes its time, from the first answer on: a pressure test. */
  timed?: boolean
  /** A picture is wanted with it. */
  picture?: boolean
  /** The school that decides how it is done. */
  school?: SchoolId
  /** Where else on the job the work is done. */
  page?: 'setting' | 'row' | 'grades' | 'estimate' | 'faults'
}
