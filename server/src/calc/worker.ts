import { calculate } from '@moray/contract/calculations/registry'
import { InputError } from '@moray/core/checks/input-error'
import { giveWay } from '../give-way.ts'
import { readJson } from '../http/body.ts'
import { checkBody } from './check-body.ts'
import type { Answer, Task } from './pool.ts'

giveWay('calculation')

const work = (task: Task): string =>
  'check' in task
    ? checkBody(task.check, task.text)
    : JSON.stringify(calculate(task.calculate, readJson(task.text)))

/** One task in a thread of the pool. */
export default function run(task: Task): Answer {
  try {
    return { result: work(task) }
  } catch (e) {
    if (e instanceof InputError) return { refused: { code: e.code, fields: e.fields } }
    return { failed: { message: e instanceof Error ? (e.stack ?? e.message) : String(e) } }
  }
}
