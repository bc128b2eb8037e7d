import { validate } from '@moray/contract/fields/validate'
import type { Context } from 'hono'
import { Refusal } from './refusal.ts'

/**
 * Reads a JSON body and checks it with a contract class.
 * The header is required: without it a form on a foreign page could post "text" that happens to be JSON.
 */
export async function readBody<T extends object>(c: Context, owner: new () => T): Promise<T> {
  return validate(owner, await readJson(c))
}

export async function readJson(c: Context): Promise<unknown> {
  const type = c.req.header('content-type') ?? ''
  if (!/^application\/json\s*(;|$)/i.test(type))
    throw new Refusal(415, 'not-json', `The body is "${type || 'of no type'}"; send application/json.`)
  const text = await c.req.text()
  try {
    return JSON.parse(text)
  } catch (e) {
    throw new Refusal(400, 'broken-json', `The body is not JSON: ${(e as Error).message}`)
  }
}
