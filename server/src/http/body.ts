import type { Context } from 'hono'
import { Refusal } from './refusal.ts'

/**
 * Reads a JSON body.
 * The header is required: without it a form on a foreign page could post "text" that happens to be JSON.
 */
export async function readJson(c: Context): Promise<{ value: unknown; text: string }> {
  const text = await readJsonText(c)
  try {
    return { value: JSON.parse(text), text }
  } catch (e) {
    throw new Refusal(400, 'broken-json', `The body is not JSON: ${(e as Error).message.slice(0, 120)}`)
  }
}

/** The text of a body that says it is JSON. */
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
