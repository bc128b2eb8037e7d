import { randomUUID } from 'node:crypto'
import { DEMO_EPOCH } from '@moray/contract/replies'

/** A name for a history of a shop: another one where another history begins. */
export const newEpoch = (demo: boolean): string => `${demo ? DEMO_EPOCH : ''}${randomUUID()}`
