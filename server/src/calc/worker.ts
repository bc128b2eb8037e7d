import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'
import { calculate } from '@moray/contract/calculations/registry'
import { InputError } from '@moray/core/checks/input-error'
import { checkBody } from './check-body.ts'
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

const work = (task: Task): string =>
  'check' in task
    ? checkBody(task.check, task.text)
    : JSON.stringify(calculate(task.calculate, JSON.parse(task.text)))

/** One task in a thread of the pool. */
export default function run(task: Task): Answer {
  try {
    return { result: work(task) }
  } catch (e) {
    if (e instanceof InputError) return { refused: { code: e.code, fields: e.fields } }
    if (e instanceof SyntaxError)
      return { refused: { code: 'broken-json', fields: [{ path: '', message: e.message.slice(0, 120) }] } }
    return { failed: { message: e instanceof Error ? (e.stack ?? e.message) : String(e) } }
  }
}
