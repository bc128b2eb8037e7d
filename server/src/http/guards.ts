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
    // a name that is ours may be asked for with the port or without
    const isOurs = ours.has(host.toLowerCase()) || ours.has(host.toLowerCase().replace(/:\d+$/, ''))
    if (!LOCAL.test(host) && !isOurs)
      throw new Refusal(
        403,
        'foreign-host',
        `This server does not answer to the name "${host.slice(0, 80)}". Allow it with MORAY_HOSTS.`,
      )
    if (c.req.method !== 'GET' && c.req.method !== 'HEAD') {
      const origin = c.req.header('origin')
      if (origin !== undefined && hostOf(origin) !== host.toLowerCase())
        throw new Refusal(
          403,
          'foreign-origin',
          `Writes from "${origin.slice(0, 80)}" are refused; open Moray at its own address.`,
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
