import { resolve } from 'node:path'
import { ownAddresses } from '../devices/devices.ts'

/** What the environment says, checked. */
export interface Settings {
  port: number
  /** Addresses that are listened on; the machine itself is always among them. */
  hosts: string[]
  /** Whether other machines can reach us; each of them has to be paired. */
  beyond: boolean
  /** A second port of this machine, for a proxy. */
  proxyPort: number | undefined
  /** Folder of the shop, whole. */
  data: string
  /** Address of a PostgreSQL server in place of the embedded database. */
  url: string | undefined
  /** Whether a new shop begins with the demo; `short`: without the jobs of the past two years. */
  demo: boolean | 'short'
  /** A folder that held a shop once may begin anew. */
  mayBeginAnew: boolean
  /** Host names that are ours besides this machine's own. */
  names: string[]
  /** End when whoever has started us does. */
  followParent: boolean
}

export class SettingError extends Error {}

const LOOPBACK = /^(127\.|localhost$|::1$)/i
const EVERYWHERE = /^(0\.0\.0\.0|::|)$/

/** Reads PORT, MORAY_DATA, MORAY_LISTEN and the others that README names. @throws SettingError naming the variable, its value and what it may be */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const listen = (env.MORAY_LISTEN ?? '127.0.0.1').trim()
  const beyond = !LOOPBACK.test(listen)
  const url = env.DATABASE_URL || undefined
  return {
    port: portOf('PORT', env.PORT ?? '4747'),
    // whoever listens on one of this machine's own addresses only would shut the machine itself out, and nobody could be paired
    hosts: EVERYWHERE.test(listen) || !beyond ? [listen] : [listen, '127.0.0.1'],
    beyond,
    proxyPort: env.MORAY_PROXY_PORT ? portOf('MORAY_PROXY_PORT', env.MORAY_PROXY_PORT) : undefined,
    data: resolve(env.MORAY_DATA ?? 'data'),
    url,
    demo: env.MORAY_DEMO === 'short' ? 'short' : url ? env.MORAY_DEMO === 'on' : env.MORAY_DEMO !== 'off',
    mayBeginAnew: env.MORAY_NEW === 'yes',
    names: [
      ...(env.MORAY_HOSTS ?? '')
        .split(',')
        .map((h) => h.trim())
        .filter(Boolean),
      // an address of this machine itself is no foreign name that was pointed at it
      ...(beyond ? ownAddresses() : []),
    ],
    followParent: env.MORAY_FOLLOW === 'parent',
  }
}

function portOf(name: string, text: string): number {
  const port = Number(text)
  if (!Number.isInteger(port) || port < 0 || port > 65535 || text.trim() === '')
    throw new SettingError(`${name} is "${text}"; a number from 0 to 65535 is needed.`)
  return port
}
