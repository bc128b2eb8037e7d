import { isOver, type JobState } from '@moray/core/job/record'
import { Refusal } from '../http/refusal.ts'

/** A job that is over takes nothing more until somebody reopens it. @throws Refusal 409 */
export function mustBeOpen({ state, number }: { state: JobState; number: string }): void {
  if (isOver(state))
    throw new Refusal(
      409,
      state,
      `${number} is ${state === 'closed' ? 'closed' : 'handed over'}; reopen it before anything is added.`,
    )
}
