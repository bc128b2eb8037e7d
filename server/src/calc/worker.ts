import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'
import { calculate } from '@moray/contract/calculations/registry'
import { InputError } from '@moray/core/checks/input-error'
import type { Answer, Task } from './pool.ts'

/** How much less a calculation matters than an answer to a hand at the bench, as the operating system counts it. */
const NICENESS = 10

/** This thread gives way to the server's own and to the database's, which share the cores with it. Linux counts every thread by itself. */
function giveWay() {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1))
    if (Number.isInteger(thread)) setPriority(thread, NICENESS)
  } catch {
    // elsewhere, or where it is not allowed, all threads weigh the same
  }
}
giveWay()

/** One calculation in a thread of the pool. */
export default function run({ name, text }: Task): Answer {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (e) {
    return {
      refused: {
        code: 'broken-json',
        fields: [{ path: '', message: String((e as Error).message).slice(0, 120) }],
      },
    }
  }
  try {
    return { result: JSON.stringify(calculate(name, raw)) }
  } catch (e) {
    if (e instanceof InputError) return { refused: { code: e.code, fields: e.fields } }
    return { failed: { message: e instanceof Error ? (e.stack ?? e.message) : String(e) } }
  }
}
