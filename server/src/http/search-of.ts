import { textProblem } from '@moray/contract/fields/text-rule'
import { refuse } from '@moray/core/checks/input-error'
import type { Context } from 'hono'

const MOST = 80

/** What is searched for. @throws InputError when it is too long, or nothing that anybody types */
export function searchOf(c: Context, name = 'search'): string {
  const search = (c.req.query(name) ?? '').trim()
  const bad = search.length > MOST ? `is too long; at most ${MOST} characters` : textProblem(search)
  if (bad) refuse(name, bad)
  return search
}
