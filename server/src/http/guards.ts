import type { MiddlewareHandler } from 'hono'
import { Refusal } from './refusal.ts'

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i

/**
 * Only pages of this very server may write, and only by the names this machine has for itself (a foreign
 * name that resolves to us is refused, so that a rebound DNS name cannot read either).
 * @param hosts further host names that are ours, from MORAY_HOSTS
 */
export function sameOrigin(hosts: string[]): MiddlewareHandler {
  const ours = new Set(hosts.map((h) => h.toLowerCase()))
  return async function sameOriginOnly(c, next) {
    const host = c.req.header('host') ?? new URL(c.req.url).host
    if (!LOCAL.test(host) && !ours.has(host.toLowerCase()))
      throw new Refusal(
        403,
        'foreign-host',
        `This server does not answer to the name "${host}". Allow it with MORAY_HOSTS.`,
      )
    if (c.req.method !== 'GET' && c.req.method !== 'HEAD') {
      const origin = c.req.header('origin')
      if (origin !== undefined && hostOf(origin) !== host.toLowerCase())
        throw new Refusal(
          403,
          'foreign-origin',
          `Writes from "${origin}" are refused; open Moray at its own address.`,
        )
      const site = c.req.header('sec-fetch-site')
      if (site !== undefined && site !== 'same-origin' && site !== 'none')
        throw new Refusal(
          403,
          'foreign-origin',
          'Writes from another site are refused; open Moray at its own address.',
        )
    }
    await next()
  }
}

function hostOf(origin: string): string {
  try {
    return new URL(origin).host.toLowerCase()
  } catch {
    return ''
  }
}

/** Refuses bodies above `most` bytes, by their stated length or while they arrive. */
export function bodyLimit(most: number): MiddlewareHandler {
  const refuse = () =>
    new Refusal(
      413,
      'too-large',
      `The body is larger than ${Math.round(most / 1024)} kB, the most that is taken here.`,
    )
  return async function limited(c, next) {
    if (c.req.method === 'GET' || c.req.method === 'HEAD' || !c.req.raw.body) return next()
    const stated = c.req.header('content-length')
    if (stated !== undefined && Number(stated) > most) throw refuse()
    let size = 0
    const counted = c.req.raw.body.pipeThrough(
      new TransformStream<Uint8Array, Uint8Array>({
        transform(chunk, out) {
          size += chunk.byteLength
          if (size > most) out.error(refuse())
          else out.enqueue(chunk)
        },
      }),
    )
    c.req.raw = new Request(c.req.raw, { body: counted, duplex: 'half' } as RequestInit)
    await next()
  }
}
