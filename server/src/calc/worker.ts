import { calculate } from '@moray/contract/calculations/registry'
import { InputError } from '@moray/core/checks/input-error'
import type { Answer, Task } from './pool.ts'

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
