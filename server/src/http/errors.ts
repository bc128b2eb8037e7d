import { InputError } from '@moray/core/checks/input-error'
import { errorBody } from '@moray/contract/errors'
import type { Context } from 'hono'
import { HTTPException } from 'hono/http-exception'
import {
  codeOf,
  constraintOf,
  DAMAGED,
  isCollision,
  isLineDown,
  RESULT_UNKNOWN,
  STORAGE,
} from '../db/sqlstate.ts'
import { BROKEN_JSON } from './body.ts'
import { Refusal } from './refusal.ts'

/** Constraints that two people may meet who do the same at once, and what the second is told. */
const CONSTRAINTS: Record<string, () => Refusal> = {
  stock_not_negative: () => new Refusal(409, 'stock', 'The drawer does not hold that many pieces any more.'),
  job_on_stand: () =>
    new Refusal(409, 'stand-taken', 'Another drive is on that stand. Clear it first, or choose another.', [
      { path: 'stand', message: 'is taken' },
    ]),
  shim_line_once: () =>
    new Refusal(
      409,
      'line-exists',
      'The drawer has a line of that thickness there already; add pieces to it.',
      [{ path: 'text', message: 'there is a line of this thickness already' }],
    ),
  person_name_once: () =>
    new Refusal(409, 'name-taken', 'Somebody of that name works here already; add something to the name.', [
      { path: 'name', message: 'is there already' },
    ]),
  gauge_name_once: () =>
    new Refusal(409, 'name-taken', 'The shop has a gauge of that name; give this one another.', [
      { path: 'name', message: 'is there already' },
    ]),
  drive_pkey: () =>
    new Refusal(409, 'name-taken', 'There is a drive of that name already; add something to this one.', [
      { path: 'name', message: 'is there already' },
    ]),
  step_closed_once: () => new Refusal(409, 'already-done', 'That step was closed a moment ago.'),
  row_part_once: () => new Refusal(409, 'in-the-row', 'That part lies in the row already.'),
  build_job_id_number_key: () =>
    new Refusal(409, 'stale-build', 'Somebody has built the next trial a moment ago.'),
  build_accepted_once: () => new Refusal(409, 'already-accepted', 'This build was accepted a moment ago.'),
}

/** Shapes every error into the one error body. */
export function answerError(e: unknown, c: Context, log: (message: string, e: unknown) => void): Response {
  if (e instanceof InputError && e.code === BROKEN_JSON)
    return c.json(errorBody(e.code, `The body is not JSON: ${e.fields[0]!.message}`), 400)
  if (e instanceof InputError) return c.json(errorBody(e.code, e.message, e.fields), 422)
  if (e instanceof Refusal) {
    // the rest of a body that is too large would be taken for the next request
    if (e.status === 413) c.header('connection', 'close')
    return c.json(errorBody(e.code, e.message, e.fields), e.status)
  }
  if (e instanceof HTTPException) return c.json(errorBody('refused', e.message), e.status)
  const constraint = CONSTRAINTS[constraintOf(e)]
  if (constraint) return answerError(constraint(), c, log)
  if (isCollision(e))
    return answerError(
      new Refusal(
        409,
        'collision',
        'Somebody changed the same thing at the same moment, again and again. Send it again.',
      ),
      c,
      log,
    )
  // whoever asked has left amid his question: nobody reads an answer, and nothing is wrong here
  if (c.req.raw.signal.aborted) return c.body(null, 400)
  const code = codeOf(e)
  const storage = STORAGE[code]
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
  if (DAMAGED.has(code)) {
    log('the database is damaged', e)
    return c.json(
      errorBody(
        'damaged',
        'This part of the database does not read as it was written; nothing was stored. Stop the server, run "npm run check", and restore a copy.',
      ),
      500,
    )
  }
  if (code === RESULT_UNKNOWN) {
    log('the database did not answer to a commit', code)
    return c.json(
      errorBody(
        'not-known',
        'The database stopped answering at the last moment: it is not known whether this was stored. Send it again; it is stored once.',
      ),
      503,
    )
  }
  if (isLineDown(code)) {
    log('the database does not answer', code)
    return c.json(
      errorBody(
        'no-database',
        'The database does not answer; nothing was stored. Send it again in a moment.',
      ),
      503,
    )
  }
  log('unexpected error', e)
  return c.json(
    errorBody('internal', 'Something went wrong on the server; nothing was stored. The log says more.'),
    500,
  )
}
