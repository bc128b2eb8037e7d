import { InputError } from '@moray/core/checks/input-error'
import type { Context } from 'hono'
import { Refusal } from './refusal.ts'

/**
 * The text of a body that says it is JSON.
 * The header is required: without it a form on a foreign page could post "text" that happens to be JSON.
 */
export async function readJsonText(c: Context): Promise<string> {
  const type = c.req.header('content-type') ?? ''
  if (!/^application\/json\s*(;|$)/i.test(type))
    throw new Refusal(
      415,
      'not-json',
      `The body is "${type.slice(0, 60) || 'of no type'}"; send application/json.`,
    )
  return c.req.text()
}

/** Code of a body that is no JSON: not something that is wrong in it, but nothing that could be read. */
export const BROKEN_JSON = 'broken-json'

/** @throws InputError {@link BROKEN_JSON} */
export function readJson(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch (e) {
    throw new InputError(BROKEN_JSON, [{ path: '', message: (e as Error).message.slice(0, 120) }])
  }
}
