import { InputError } from '@moray/core/checks/input-error'
import { errorBody } from '@moray/contract/errors'
import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'
import { Refusal } from './refusal.ts'

/** Errors of PostgreSQL and of the file system that mean: the disk would not take it. */
const STORAGE_CODES: Record<string, string> = {
  '53100': 'the disk is full',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk quota is used up',
  '25006': 'the data folder is read-only',
  EROFS: 'the data folder is read-only',
  EACCES: 'the data folder may not be written',
  '58030': 'the data folder could not be written',
}

function codeOf(e: unknown): string {
  return String((e as { code?: unknown })?.code ?? '')
}

/** Shapes every error into the one error body. */
export function answerError(e: unknown, c: Context, log: (message: string, e: unknown) => void): Response {
  if (e instanceof InputError) return c.json(errorBody(e.code, e.message, e.fields), 422)
  if (e instanceof Refusal) return c.json(errorBody(e.code, e.message, e.fields), e.status)
  if (e instanceof HTTPException) return c.json(errorBody('refused', e.message), e.status)
  const storage = STORAGE_CODES[codeOf(e)]
  if (storage) {
    log(`write failed: ${storage}`, e)
    return c.json(
      errorBody(
        'storage',
        `Nothing was stored: ${storage}. What is stored already is safe. Make room, then send it again.`,
      ),
      507,
    )
  }
  if (codeOf(e) === '23514' && String((e as Error).message).includes('stock_not_negative'))
    return c.json(errorBody('stock', 'The drawer does not hold that many pieces any more.'), 409)
  log('unexpected error', e)
  return c.json(
    errorBody('internal', 'Something went wrong on the server; nothing was stored. The log says more.'),
    500,
  )
}
