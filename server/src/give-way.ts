import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'

/** Nice values: the database's thread a little below the server's own, since answers wait for it; a calculation's and a copy's far below. */
const NICENESS = { database: 4, calculation: 10, copy: 12 }

/** Lowers this thread's OS priority. Linux keeps one for each thread. */
export function giveWay(as: keyof typeof NICENESS): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1))
    if (Number.isInteger(thread)) setPriority(thread, NICENESS[as])
  } catch {
    // elsewhere, or where it is not allowed, all threads weigh the same
  }
}
