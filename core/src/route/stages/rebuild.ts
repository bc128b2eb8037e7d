import type { Condition } from '../facts.ts'

/** The owner has not decided against working on this very drive; as long as he has not decided at all, it is shown. */
const OURS: Condition = { not: { fact: 'estimate.choice', oneOf: ['exchange', 'used', 'stop'] } }

/** The owner takes a whole unit instead, or one was bought in, or it comes back from elsewhere: looked over, proved, joined, filled, run. */
export const UNIT: Condition = {
  any: [
    { fact: 'estimate.choice', oneOf: ['exchange', 'used'] },
    { fact: 'plan.mode', oneOf: ['unit', 'refit'] },
  ],
}

/** Something goes back on the boat: rebuilt here, or as a whole unit. */
export const FITTED: Condition = {
  all: [
    { not: { fact: 'estimate.choice', is: 'stop' } },
    {
      any: [
        { fact: 'plan.fits', is: true },
        { fact: 'estimate.choice', oneOf: ['exchange', 'used'] },
      ],
    },
  ],
}

const plan = (name: string): Condition => ({ fact: `plan.${name}`, is: true })

/** Parts come off, and the drive is built back by us. */
export const BUILT_BACK: Condition = { all: [OURS, plan('takes-off'), plan('fits')] }
/** The same, as far as the plan says that it is touched: `lips`, `sets`, `closes` (plan.ts). */
export const where = (...names: string[]): Condition => ({ all: [OURS, plan('fits'), ...names.map(plan)] })
/** The same before the owner decides. */
export const whereOff = (...names: string[]): Condition => ({ all: names.map(plan) })
/** A whole unit, or what the plan says of this one. */
export const unitOr = (name: string): Condition => ({
  all: [FITTED, { any: [UNIT, plan(name)] }],
})

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
