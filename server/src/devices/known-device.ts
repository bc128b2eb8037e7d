import { getConnInfo } from '@hono/node-server/conninfo'
import { DEVICE_COOKIE, endpoints } from '@moray/contract/endpoints'
import type { Context, MiddlewareHandler } from 'hono'
import { getCookie } from 'hono/cookie'
import type { Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import { hashOf } from './tokens.ts'

/** What may be asked before a device is known: whether there is a server, and to be let in. */
const OPEN: ReadonlySet<string> = new Set([endpoints.health.path, endpoints.pairDevice.path])
const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/
/** How often it is written down that a device is still used. */
const SEEN_EVERY_MS = 3_600_000

/** Whether the request comes from this very machine, and through nothing that stands between: a proxy here brings requests of others. */
export function isOwnMachine(c: Context): boolean {
  if (c.req.header('x-forwarded-for') !== undefined || c.req.header('forwarded') !== undefined) return false
  // asked without a socket: from within
  const { incoming } = (c.env ?? {}) as { incoming?: object }
  return incoming === undefined || LOOPBACK.test(getConnInfo(c).remote.address ?? '')
}

/** The device that asks, by its cookie; undefined when it is not known, or not any more. */
async function deviceOf(db: Queryable, c: Context, now: Date): Promise<string | undefined> {
  const token = getCookie(c, DEVICE_COOKIE)
  if (!token || token.length > 100) return undefined
  const [row] = await db.query<{ id: string; seen: string }>(
    'select id::text, iso(seen_at) as seen from device where token_hash = $1 and revoked_at is null',
    [hashOf(token)],
  )
  if (row && now.getTime() - new Date(row.seen).getTime() > SEEN_EVERY_MS)
    await db.query('update device set seen_at = $2 where id = $1::bigint', [row.id, now])
  return row?.id
}

/** Nothing is read or written from another machine that was not paired. */
export function knownDevicesOnly(db: Queryable, now: () => Date): MiddlewareHandler {
  return async function knownDevices(c, next) {
    if (!OPEN.has(c.req.path) && !isOwnMachine(c) && (await deviceOf(db, c, now())) === undefined)
      throw new Refusal(
        401,
        'not-paired',
        'This device is not known in the shop. On one that is: Shop, Devices, Pair a device; then scan what it shows.',
      )
    await next()
  }
}
