import { calculate } from '@moray/contract/calculations/registry'
import { InputError } from '@moray/core/checks/input-error'
import { giveWay } from '../give-way.ts'
import { checkBody } from './check-body.ts'
import type { Answer, Task } from './pool.ts'

giveWay('calculation')

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
