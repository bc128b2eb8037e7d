import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createAdaptorServer } from '@hono/node-server'
import { errorBody } from '@moray/contract/errors'
import { SettingError, type Settings } from './settings.ts'

type Fetch = Parameters<typeof createAdaptorServer>[0]['fetch']

export interface Listeners {
  /** The port that is listened on, also where any free one was asked for. */
  port: number
  /** From now on this answers; before, everybody is told that Moray is starting. */
  answerWith: (fetch: Fetch) => void
  /** Ends: requests under way may finish, whoever hangs longer is cut. */
  close: () => Promise<void>
}

const WAIT_S = 2

/** What is said while the database opens: to a page that somebody has opened too early, one that asks again by itself. */
function starting(request: Request): Response {
  const headers = { 'retry-after': String(WAIT_S), connection: 'close', 'cache-control': 'no-store' }
  const words = 'Moray is starting. Try again in a moment.'
  return request.headers.get('accept')?.includes('text/html')
    ? new Response(
        `<!doctype html><meta charset="utf-8"><meta http-equiv="refresh" content="${WAIT_S}"><title>Moray</title><p>${words}`,
        { status: 503, headers: { ...headers, 'content-type': 'text/html; charset=utf-8' } },
      )
    : Response.json(errorBody('starting', words), { status: 503, headers })
}

const CUT_MS = 1500

/**
 * Takes the ports before anything else is touched: of two Morays on one port the second ends here, with the first one's shop as it was.
 * @throws SettingError when a port is taken or an address is none of this machine
 */
export async function takePorts({
  port,
  hosts,
  proxyPort,
}: Pick<Settings, 'port' | 'hosts' | 'proxyPort'>): Promise<Listeners> {
  let fetch: Fetch = starting
  const servers: Server[] = []
  let first = port
  for (const host of hosts) {
    const server = await listen(host, first, (...asked) => fetch(...asked))
    servers.push(server)
    first = (server.address() as AddressInfo).port
  }
  if (proxyPort !== undefined)
    servers.push(await listen('127.0.0.1', proxyPort, (...asked) => fetch(...asked)))
  return {
    port: first,
    answerWith: (next) => void (fetch = next),
    async close() {
      const closed = servers.map((s) => new Promise<void>((done) => s.close(() => done())))
      servers.forEach((s) => s.closeIdleConnections())
      setTimeout(() => servers.forEach((s) => s.closeAllConnections()), CUT_MS).unref()
      await Promise.all(closed)
    },
  }
}

function listen(host: string, port: number, fetch: Fetch): Promise<Server> {
  const server = createAdaptorServer({ fetch }) as Server
  // a client that sends its head or its body drop by drop does not hold a connection for ever
  server.headersTimeout = 15_000
  server.requestTimeout = 60_000
  // a hand is slower than five seconds between two entries: the next one must not meet a connection that is just being closed
  server.keepAliveTimeout = 75_000
  return new Promise((done, failed) => {
    server.once('error', (e: NodeJS.ErrnoException) => failed(new SettingError(why(e, host, port))))
    server.listen(port, host, () => {
      server.removeAllListeners('error')
      done(server)
    })
  })
}

function why(e: NodeJS.ErrnoException, host: string, port: number): string {
  if (e.code === 'EADDRINUSE') return `Port ${port} is taken; choose another with PORT. Nothing was opened.`
  if (e.code === 'EADDRNOTAVAIL')
    return `${host} is no address of this machine; MORAY_LISTEN takes one of its own, or 0.0.0.0 for all.`
  if (e.code === 'EACCES') return `Port ${port} may not be listened on; choose one above 1023 with PORT.`
  return e.message
}
