import type { Condition } from '../facts.ts'
import type { ScopeMode } from '../scope.ts'

/** The owner takes a whole unit instead, or one was bought in, or it comes back from elsewhere: looked over, proved, joined, filled, run. */
export const UNIT: Condition = {
  any: [
    { fact: 'estimate.choice', oneOf: ['exchange', 'used'] },
    { fact: 'job.mode', oneOf: ['unit', 'refit'] },
  ],
}

/** The work has such an act, done or left: see step-acts.ts for their names. */
export const does = (...acts: string[]): Condition =>
  acts.length === 1
    ? { fact: `work.${acts[0]}`, is: true }
    : { any: acts.map((a) => ({ fact: `work.${a}`, is: true })) }
/** A joint of the case is opened; what is done before anything is closed again. */
export const OPENS: Condition = { fact: 'work.opens', is: true }
/** Nobody had opened it before it came. */
export const WHOLE: Condition = { fact: 'job.whole', is: true }
/** A job of such a kind. */
export const inMode = (...modes: ScopeMode[]): Condition => ({ fact: 'job.mode', oneOf: modes })
/** Modes in which what came off is graded, and the owner decides. */
export const JUDGED: Condition = inMode('rebuild', 'look', 'strike')
/** It is closed again by us. */
export const CLOSES: Condition = { all: [OPENS, does('fit.inside')] }

/** Of a unit in two cases this one waits for the other: joining, joined test, filling and run are on the other's route. */
export const FOLLOWS: Condition = { fact: 'unit.follows', is: true }
/** What is done once for the unit, on this route. */
export const LEADS: Condition = { not: FOLLOWS }
/** The other case, where there is one, is closed and proved. */
export const OTHER_READY: Condition = {
  any: [
    { not: { fact: 'unit.cases', is: 2 } },
    { fact: 'partner.done.leak-case', is: true },
    {
      all: [
        { fact: 'partner.has-test', is: false },
        { fact: 'partner.done.turn-closed', is: true },
      ],
    },
  ],
}
