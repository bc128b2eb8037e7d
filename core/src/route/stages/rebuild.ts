import type { Condition } from '../facts.ts'

/**
 * From here on the drive is rebuilt: as long as the owner has not decided otherwise, these steps belong to the job (they
 * are shut until he has decided).
 */
export const REBUILD: Condition = {
  not: { fact: 'estimate.choice', oneOf: ['exchange', 'used', 'stop'] },
}

/** The owner takes a whole unit instead: it is looked over, proved, joined, filled and run like any other. */
export const UNIT: Condition = { fact: 'estimate.choice', oneOf: ['exchange', 'used'] }

/** Something goes back on the boat, rebuilt here or bought as a whole. */
export const FITTED: Condition = { not: { fact: 'estimate.choice', is: 'stop' } }
