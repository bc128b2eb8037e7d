import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'

/**
 * How much less the threads matter than the server's own, which answers, as the operating system counts it: the database's a little, since answers
 * wait for it, a calculation much.
 */
const NICENESS = { database: 4, calculation: 10 }

/** This thread gives way to those that matter more and share the cores with it. Linux counts every thread by itself. */
export function giveWay(as: keyof typeof NICENESS): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1))
    if (Number.isInteger(thread)) setPriority(thread, NICENESS[as])
  } catch {
    // elsewhere, or where it is not allowed, all threads weigh the same
  }
}
