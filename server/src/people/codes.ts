import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { promisify } from 'node:util'
import { refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { hashOf, newToken } from '../devices/tokens.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { mustBeLead } from '../http/write.ts'
import { SESSION_MS } from './session.ts'
import type { Who } from '../http/who.ts'

const derive = promisify(scrypt) as (code: string, salt: Buffer, length: number) => Promise<Buffer>
/** Wrong tries that cost nothing; then each makes the next wait twice as long, up to a quarter of an hour. */
const FREE_TRIES = 3
const FIRST_WAIT_MS = 5000
const LONGEST_WAIT_MS = 15 * 60_000

async function hashed(code: string, salt = randomBytes(16)): Promise<string> {
  return `${salt.toString('base64')}.${(await derive(code, salt, 32)).toString('base64')}`
}

async function isRight(code: string, kept: string): Promise<boolean> {
  const [salt, hash] = kept.split('.').map((part) => Buffer.from(part, 'base64'))
  return timingSafeEqual(await derive(code, salt!, 32), hash!)
}

/** Gives somebody a code, or takes it away: himself, or the lead. Whoever had said the old one says the new one. */
export async function setCode(tx: Transaction, id: string, code: string, who: Who): Promise<Told> {
  if (who.id !== id) mustBeLead(who, "Somebody else's code")
  if (code !== '' && !/^\d{4}$/.test(code))
    refuse('code', 'must be four digits; empty, and none is asked for')
  const [row] = await tx.query<{ name: string }>(
    'update person set code_hash = $2, wrong_codes = 0, code_wait_until = null where id = $1 returning name',
    [id, code === '' ? null : await hashed(code)],
  )
  if (!row) throw notFound('Person', id)
  await tx.query('delete from person_session where person_id = $1', [id])
  return { kind: 'shop', subject: `person:${id}`, data: { about: 'code', name: row.name, set: code !== '' } }
}

/**
 * Somebody says his code on a device, and is known there for a day. Wrong tries are counted with the person held, so that many at once do not count
 * as one.
 * @returns the token, or how the code was refused: a refusal that is thrown would take the count back with it
 */
export async function sayCode(
  tx: Transaction,
  id: string,
  code: string,
  at: Date,
): Promise<{ token: string; until: Date } | Refusal> {
  const [person] = await tx.query<{ code: string | null; wrong: number; wait: string | null }>(
    'select code_hash as code, wrong_codes as wrong, iso(code_wait_until) as wait from person where id = $1 and not retired for update',
    [id],
  )
  if (!person) return notFound('Person', id)
  if (person.code === null) return new Refusal(409, 'no-code', 'No code is asked for under this name.')
  const left = person.wait === null ? 0 : new Date(person.wait).getTime() - at.getTime()
  if (left > 0)
    return new Refusal(
      429,
      'wait',
      `Too many wrong codes: wait ${Math.ceil(left / 1000)} seconds, then try again.`,
    )
  if (!(await isRight(code, person.code))) {
    const wrong = person.wrong + 1
    const wait =
      wrong < FREE_TRIES ? null : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - FREE_TRIES))
    await tx.query('update person set wrong_codes = $2, code_wait_until = $3 where id = $1', [
      id,
      wrong,
      wait === null ? null : new Date(at.getTime() + wait),
    ])
    return new Refusal(403, 'wrong-code', 'That is not the code.', [
      { path: 'code', message: 'is not the one' },
    ])
  }
  const [token, until] = [newToken(), new Date(at.getTime() + SESSION_MS)]
  await tx.query('update person set wrong_codes = 0, code_wait_until = null where id = $1', [id])
  await tx.query('delete from person_session where ends_at < $1', [at])
  await tx.query('insert into person_session (token_hash, person_id, at, ends_at) values ($1, $2, $3, $4)', [
    hashOf(token),
    id,
    at,
    until,
  ])
  return { token, until }
}
