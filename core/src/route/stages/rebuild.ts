import type { Condition } from '../facts.ts'

/**
 * From here on the drive is rebuilt: as long as the owner has not decided otherwise, these steps belong to the job (they
 * are shut until he has decided).
 */
export const REBUILD: Condition = {
  not: { fact: 'estimate.choice', oneOf: ['exchange', 'used', 'stop'] },
}
