import { DEVICE_COOKIE, endpoints } from '@moray/contract/endpoints'
import type { Context, MiddlewareHandler } from 'hono'
import { getCookie } from 'hono/cookie'
import type { Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import { hashOf } from '../request/tokens.ts'

/** What may be asked before a device is known: whether there is a server, and to be let in. */
const OPEN: ReadonlySet<string> = new Set([endpoints.health.path, endpoints.pairDevice.path])
const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|::ffff:127\.\d+\.\d+\.\d+)$/
/** How often it is written down that a device is still used. */
const SEEN_EVERY_MS = 3_600_000

/** Headers that only something between the asker and us writes. */
const FORWARDED =
  /^(forwarded|via|x-forwarded-.*|x-real-ip|x-original-.*|x-client-ip|x-cluster-client-ip|true-client-ip|cf-connecting-ip)$/
/** Names that this machine has for itself and that nobody else can ask for it by. */
const OWN_NAME = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i

declare module 'hono' {
  interface ContextVariableMap {
    /** Who asks, for limits that nobody shares: `machine`, a paired device, or an address. */
    client: string
  }
}

/**
 * Whether the request comes from this very machine: by its socket, by a name that is this machine's own, and through nothing that stands between. A
 * proxy that leaves no trace has to be given a port of its own.
 * @param proxyPort whatever comes in there was brought by a proxy
 */
export function isOwnMachine(c: Context, proxyPort?: number): boolean {
  const headers = c.req.raw.headers
  for (const name of headers.keys()) if (FORWARDED.test(name)) return false
  if (!OWN_NAME.test(headers.get('host') ?? new URL(c.req.url).host)) return false
  const socket = socketOf(c)
  // asked without a socket: from within
  if (!socket) return true
  return (
    LOOPBACK.test(socket.remoteAddress ?? '') && (proxyPort === undefined || socket.localPort !== proxyPort)
  )
}

const socketOf = (c: Context) =>
  ((c.env ?? {}) as { incoming?: { socket: { remoteAddress?: string; localPort?: number } } }).incoming
    ?.socket

/** The address that asks, as far as it can be told; for limits, never for rights. */
const addressOf = (c: Context): string =>
  `${socketOf(c)?.remoteAddress ?? 'within'} ${(c.req.header('x-forwarded-for') ?? '').split(',').at(-1)!.trim().slice(0, 60)}`.trim()

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

/** Nothing is read or written from another machine that was not paired. @param proxyPort see {@link isOwnMachine} */
export function knownDevicesOnly(db: Queryable, now: () => Date, proxyPort?: number): MiddlewareHandler {
  return async function knownDevices(c, next) {
    if (isOwnMachine(c, proxyPort)) c.set('client', MACHINE)
    else if (OPEN.has(c.req.path)) c.set('client', addressOf(c))
    else {
      const device = await deviceOf(db, c, now())
      if (device === undefined)
        throw new Refusal(
          401,
          'not-paired',
          'This device is not known in the shop. On one that is: Shop, Devices, Pair a device; then scan what it shows.',
        )
      c.set('client', `device ${device}`)
    }
    await next()
  }
}

const MACHINE = 'machine'
/** Whether somebody asks at the machine itself; after {@link knownDevicesOnly}. */
export const atTheMachine = (c: Context): boolean => c.get('client') === MACHINE

/** The paired device that asks, by its number; undefined at the machine itself. */
export const deviceNumber = (c: Context): string | undefined => /^device (\d+)$/.exec(c.get('client'))?.[1]

/** Whether who asks is still let in: a stream outlives the question that opened it. */
export async function stillKnown(db: Queryable, c: Context): Promise<boolean> {
  const device = deviceNumber(c)
  if (device === undefined) return atTheMachine(c)
  const rows = await db.query('select 1 from device where id = $1::bigint and revoked_at is null', [device])
  return rows.length > 0
}
