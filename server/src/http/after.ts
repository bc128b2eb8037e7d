import { refuse } from '@moray/core/checks/input-error'
import type { Context } from 'hono'

/** The event after which something is asked for. */
export function afterOf(c: Context): number {
  const text = c.req.query('after') ?? '0'
  if (!/^\d{1,15}$/.test(text)) refuse('after', 'is not the number of an event')
  return Number(text)
}
