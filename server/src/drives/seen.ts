import { refuse } from '@moray/core/checks/input-error'
import { same } from '@moray/core/drives/own/same'
import { Refusal } from '../http/refusal.ts'

/** What somebody saw when he began to type. */
export function seenOf(was: string): unknown {
  if (was === '') return undefined
  try {
    return JSON.parse(was)
  } catch {
    return refuse('was', 'is not JSON')
  }
}

/** @throws Refusal 409 where what stands there is neither what the writer saw nor what he writes */
export function notChanged(stands: unknown, was: string, now: unknown) {
  if (same(stands, seenOf(was)) || same(stands, now)) return
  throw new Refusal(
    409,
    'changed-meanwhile',
    'Somebody has changed this row meanwhile. Look at it, then enter yours again.',
  )
}
