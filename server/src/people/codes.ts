import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { promisify } from 'node:util'
import { refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { hashOf, newToken } from '../request/tokens.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { mustBeLead } from '../request/rights.ts'
import { SESSION_MS } from '../request/session.ts'
import type { Who } from '../request/who.ts'

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

/** Where somebody stands who sets a code: at the machine itself, or at a device that he has paired. */
export interface CodePlace {
  machine: boolean
  device: string | undefined
}

/**
 * Gives somebody a code, or takes it away: himself, or the lead. Whoever had said the old one says the new one. The first code of a lead is set where
 * nobody else can have taken his name: whoever only picks it would shut him out of his own shop.
 */
export async function setCode(
  tx: Transaction,
  id: string,
  code: string,
  who: Who,
  place: CodePlace,
): Promise<Told> {
  if (who.id !== id) mustBeLead(who, "Somebody else's code")
  if (code !== '' && !/^\d{4}$/.test(code))
    refuse('code', 'must be four digits; empty, and none is asked for')
  const [person] = await tx.query<{ role: string; coded: boolean }>(
    'select role, code_hash is not null as coded from person where id = $1 for update',
    [id],
  )
  if (!person) throw notFound('Person', id)
  if (person.role === 'lead' && !person.coded && !(place.machine || (await isPairedBy(tx, place.device, id))))
    throw new Refusal(
      403,
      'first-code',
      'The first code of a lead is set on the machine itself, or on a device that the lead has paired.',
      [{ path: 'code', message: 'cannot be set on this device' }],
    )
  const [row] = await tx.query<{ name: string }>(
    'update person set code_hash = $2 where id = $1 returning name',
    [id, code === '' ? null : await hashed(code)],
  )
  await forgetSessions(tx, id)
  return { kind: 'shop', subject: `person:${id}`, data: { about: 'code', name: row!.name, set: code !== '' } }
}

const isPairedBy = async (tx: Transaction, device: string | undefined, id: string) =>
  device !== undefined &&
  (await tx.query('select 1 from device where id = $1::bigint and paired_by = $2', [device, id])).length > 0

/** Whoever had said a code says it again, and wrong tries of before are forgotten. */
async function forgetSessions(tx: Transaction, id: string) {
  await tx.query('delete from person_session where person_id = $1', [id])
  await tx.query('delete from code_tries where person_id = $1', [id])
}

/** Takes a code away without knowing it: on the machine itself, by whoever runs Moray there. @returns the name, undefined where nobody has it */
export async function resetCode(tx: Transaction, name: string, at: Date): Promise<string | undefined> {
  const [row] = await tx.query<{ id: string; name: string }>(
    'update person set code_hash = null where lower(name) = lower($1) or id = $1 returning id, name',
    [name],
  )
  if (!row) return undefined
  await forgetSessions(tx, row.id)
  await tx.query(
    `insert into event (at, by_person, kind, subject, data) values ($1, null, 'shop', $2, $3::jsonb)`,
    [at, `person:${row.id}`, JSON.stringify({ about: 'code', name: row.name, set: false })],
  )
  return row.name
}

/** Somebody who says his code, and on which device: wrong tries are counted for each by itself, so that nobody is kept from his name by another's guesses. */
export interface Saying {
  id: string
  code: string
  at: Date
  /** See the context's `client`. */
  device: string
  /** The token of the device's session, where it has one: several people may have said their codes on one tablet. */
  token: string
}

/**
 * Somebody says his code on a device, and is known there for a day. Wrong tries are counted with the person held, so that many at once do not count
 * as one, and stand in the history.
 * @returns the token, or how the code was refused: a refusal that is thrown would take the count back with it
 */
export async function sayCode(
  tx: Transaction,
  { id, code, at, device, token: known }: Saying,
): Promise<{ token: string; until: Date } | Refusal> {
  const [person] = await tx.query<{ name: string; code: string | null }>(
    'select name, code_hash as code from person where id = $1 and not retired for update',
    [id],
  )
  if (!person) return notFound('Person', id)
  if (person.code === null) return new Refusal(409, 'no-code', 'No code is asked for under this name.')
  const [tries] = await tx.query<{ wrong: number; wait: string | null }>(
    'select wrong, iso(wait_until) as wait from code_tries where person_id = $1 and device = $2',
    [id, device],
  )
  const left = tries?.wait ? new Date(tries.wait).getTime() - at.getTime() : 0
  // a clock that was set back must not make a wait of days out of one of minutes
  if (left > 0 && left <= LONGEST_WAIT_MS)
    return new Refusal(
      429,
      'wait',
      `Too many wrong codes: wait ${Math.ceil(left / 1000)} seconds, then try again.`,
    )
  if (!(await isRight(code, person.code))) {
    const wrong = (tries?.wrong ?? 0) + 1
    const wait =
      wrong < FREE_TRIES ? null : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - FREE_TRIES))
    await tx.query(
      `insert into code_tries (person_id, device, wrong, wait_until) values ($1, $2, $3, $4)
       on conflict (person_id, device) do update set wrong = excluded.wrong, wait_until = excluded.wait_until`,
      [id, device, wrong, wait === null ? null : new Date(at.getTime() + wait)],
    )
    await tx.query(
      `insert into event (at, by_person, kind, subject, data) values ($1, null, 'shop', $2, $3::jsonb)`,
      [at, `person:${id}`, JSON.stringify({ about: 'wrong-code', name: person.name, device, tries: wrong })],
    )
    return new Refusal(403, 'wrong-code', 'That is not the code.', [
      { path: 'code', message: 'is not the one' },
    ])
  }
  const until = new Date(at.getTime() + SESSION_MS)
  const [session] = await tx.query('select 1 from person_session where token_hash = $1 and ends_at > $2', [
    hashOf(known),
    at,
  ])
  const token = session ? known : newToken()
  await tx.query('delete from code_tries where person_id = $1 and device = $2', [id, device])
  await tx.query('delete from person_session where ends_at < $1', [at])
  await tx.query(
    `insert into person_session (token_hash, person_id, at, ends_at) values ($1, $2, $3, $4)
     on conflict (token_hash, person_id) do update set at = excluded.at, ends_at = excluded.ends_at`,
    [hashOf(token), id, at, until],
  )
  return { token, until }
}
