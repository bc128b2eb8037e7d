import { DEVICE_COOKIE, endpoints } from '@moray/contract/endpoints'
import type { Device } from '@moray/contract/replies'
import type { Context, Hono } from 'hono'
import { setCookie } from 'hono/cookie'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { Refusal } from '../http/refusal.ts'
import { write } from '../request/write.ts'
import { beginPairing, listDevices, ownAddresses, pairDevice, revokeDevice } from './devices.ts'

const YEAR_S = 365 * 86_400
/** Wrong codes from one address within a minute, after which it waits for the rest of it. A code cannot be guessed; this keeps the log and the database quiet. */
const MOST_WRONG = 20
const MINUTE_MS = 60_000

export function mountDevices(app: Hono, deps: Deps, reachable: { port: () => number; beyond: boolean }) {
  const { db, now } = deps
  /** When wrong codes came, by address. */
  const wrong = new Map<string, number[]>()
  onRead(app, endpoints.devices, () => listDevices(db))
  onWrite(app, endpoints.beginPairing, async (c, _, body) => {
    const made = await write<{ code: string; endsAt: Date }>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const pairing = await beginPairing(tx, who)
        return {
          told: { kind: 'shop', subject: 'devices', data: { about: 'pairing' } },
          subject: 'devices',
          reply: () => Promise.resolve(pairing),
        }
      },
      // a code is shown once: asked again, it is gone
      again: () => {
        throw new Refusal(409, 'shown-once', 'That code was shown already; ask for a fresh one.')
      },
    })
    return { code: made.code, endsAt: made.endsAt.toISOString(), addresses: addressesFor(c, reachable) }
  })
  onWrite(app, endpoints.pairDevice, async (c, _, body) => {
    const at = now()
    for (const [from, times] of wrong) {
      const recent = times.filter((t) => at.getTime() - t < MINUTE_MS)
      if (recent.length) wrong.set(from, recent)
      else wrong.delete(from)
    }
    const client = c.get('client')
    const mine = wrong.get(client) ?? []
    if (mine.length >= MOST_WRONG)
      throw new Refusal(429, 'too-many', 'Too many wrong codes just now. Wait a minute, then try again.')
    const made = await db
      .transaction(async (tx) => {
        const paired = await pairDevice(tx, body.checked, at)
        await tx.query(
          `insert into event (at, by_person, kind, subject, data) values ($1, $2, 'shop', 'devices', $3::jsonb)`,
          [at, paired.pairedBy, JSON.stringify({ about: 'device', name: paired.name, revoked: false })],
        )
        return paired
      })
      .catch((e: unknown) => {
        if (e instanceof Refusal) wrong.set(client, [...mine, at.getTime()])
        throw e
      })
    setCookie(c, DEVICE_COOKIE, made.token, {
      httpOnly: true,
      sameSite: 'Strict',
      path: '/',
      maxAge: YEAR_S,
      secure: c.req.header('x-forwarded-proto') === 'https',
    })
    return { name: made.name }
  })
  onWrite(app, endpoints.revokeDevice, (c, { id }, body) =>
    write<Device[]>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const name = await revokeDevice(tx, id, who)
        return {
          told: { kind: 'shop', subject: 'devices', data: { about: 'device', name, revoked: true } },
          subject: id,
          reply: () => listDevices(tx),
        }
      },
      again: (tx) => listDevices(tx),
    }),
  )
}

/** Where another device finds this server: the address that this one used when others reach it there, otherwise those of the machine. */
function addressesFor(c: Context, reachable: { port: () => number; beyond: boolean }): string[] {
  const host = c.req.header('host') ?? ''
  const own = /^(127\.|localhost|\[::1\])/i.test(host)
  if (!own && host) {
    const scheme = c.req.header('x-forwarded-proto') === 'https' ? 'https' : 'http'
    return [`${scheme}://${host}`]
  }
  return reachable.beyond ? ownAddresses().map((a) => `http://${a}:${reachable.port()}`) : []
}
