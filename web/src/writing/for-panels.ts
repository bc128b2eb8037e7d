import { reactive } from 'vue'
import type { WireError } from '../wire/client.ts'
import type { useJobWrite } from './use-job-write.ts'

/** How a write stands that a page does for one of its panels. */
export interface WriteState {
  readonly busy: boolean
  readonly error: WireError | null
  clear: () => void
}

/** Called once a write was answered. @param done it was taken; what was refused stays in the panel's fields */
export type Answered = (done: boolean) => void

export const stateOf = ({ busy, error, clear }: ReturnType<typeof useJobWrite>): WriteState =>
  reactive({ busy, error, clear }) as WriteState

/** Tells the panel how its write was answered. @returns whether it was taken */
export async function answer(reply: Promise<unknown>, answered?: Answered): Promise<boolean> {
  const done = (await reply) !== undefined
  answered?.(done)
  return done
}
