import type { Condition } from '../facts.ts'

/** From here on the drive is rebuilt; after another decision of the owner these steps do not belong to the job. */
export const REBUILD: Condition = { fact: 'estimate.choice', is: 'rebuild' }
