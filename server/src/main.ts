import { ownAddresses } from './devices/devices.ts'
import { accessSync, constants } from 'node:fs'
import type { Server } from 'node:http'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { serve } from '@hono/node-server'
import { createApp } from './app.ts'
import { openCalcPool } from './calc/pool.ts'
import { DataFolderError, lockDataFolder } from './data/data-lock.ts'
import { openMark, writeMark, type Mark } from './data/mark.ts'
import type { Database } from './db/database.ts'
import { migrate, readMigrations } from './db/migrate.ts'
import { openPgliteThread } from './db/pglite-thread.ts'
import { SheetShelf } from './drives/sheets.ts'
import { RecordShelf } from './job/record-shelf.ts'
import { openFileStore } from './files/file-store.ts'
import { keepHouse } from './housekeeping.ts'
import { Live } from './live/live.ts'
import { beginShop } from './shop/begin.ts'

/**
 * Starts the server. PORT (4747), MORAY_DATA (./data), MORAY_HOSTS (further host names, comma separated), DATABASE_URL (a PostgreSQL server in
 * place of the embedded database), MORAY_DEMO (off: a new shop begins empty; on: with the demo, also on a PostgreSQL server).
 * Prints one line with the address once it answers.
 */
const log = (message: string, detail?: unknown) => {
  const more =
    detail instanceof Error ? (detail.stack ?? detail.message) : detail === undefined ? '' : String(detail)
  process.stderr.write(`${new Date().toISOString()} ${message}${more ? `\n${more}` : ''}\n`)
}

function stopWith(message: string): never {
  process.stderr.write(`Moray cannot start. ${message}\n`)
  process.exit(1)
}

/** The address of a database without what may not stand in a log. */
function withoutPassword(address: string): string {
  try {
    const { host, pathname } = new URL(address)
    return `${host}${pathname}`
  } catch {
    return 'an address that cannot be read'
  }
}

function portOf(text: string | undefined): number {
  const port = Number(text ?? 4747)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    stopWith(`PORT is "${text}"; a number from 0 to 65535 is needed.`)
  return port
}

// what is written belongs to whoever runs Moray, and to nobody else
process.umask(0o077)
const here = dirname(fileURLToPath(import.meta.url))
const port = portOf(process.env.PORT)
const data = resolve(process.env.MORAY_DATA ?? 'data')
const url = process.env.DATABASE_URL || undefined

let unlock = () => {}
process.on('exit', () => unlock())
let mark: Mark | undefined
try {
  // a PostgreSQL server takes many of us at once; the folder then holds pictures only
  if (!url) unlock = await lockDataFolder(data)
  mark = openMark(data, new Date(), { embedded: !url })
  accessSync(data, constants.W_OK)
} catch (e) {
  stopWith(
    e instanceof DataFolderError
      ? e.message
      : `The data folder ${data} cannot be written. Choose another with MORAY_DATA.`,
  )
}

async function openDatabase(): Promise<Database> {
  if (url) return (await import('./db/postgres.ts')).openPostgres(url, log)
  return openPgliteThread(resolve(data, 'pg'))
}
const db = await openDatabase().catch((e: unknown) => {
  log('the database did not open', e)
  return stopWith(
    url
      ? `The PostgreSQL server of DATABASE_URL (${withoutPassword(url)}) cannot be used. What the log says stands above.`
      : `The database in ${data} did not open. Is the disk full or read-only, or the folder damaged? What the log says stands above; a copy can be put back in its place.`,
  )
})
try {
  await migrate(db, readMigrations(resolve(here, '../migrations')), new Date())
  const demo = url ? process.env.MORAY_DEMO === 'on' : process.env.MORAY_DEMO !== 'off'
  const { shop } = await beginShop(db, new Date(), { demo, shop: mark.shop })
  if (mark.state === 'ready' && mark.shop !== shop)
    stopWith(
      `The folder ${data} belongs to the shop ${mark.shop}, the database holds the shop ${shop}. One of the two is in the wrong place; nothing was changed.`,
    )
  writeMark(data, { ...mark, shop, state: 'ready' })
} catch (e) {
  log('the database could not be prepared', e)
  stopWith(e instanceof Error ? e.message : String(e))
}

const live = new Live()
const unfollow = await live.follow(db)
const calc = openCalcPool()
const house = keepHouse(db, log)
const listen = (process.env.MORAY_LISTEN ?? '127.0.0.1').trim()
/** Other machines reach us: each of them has to be paired. */
const beyond = !/^(127\.|localhost$|::1$)/i.test(listen)
let listening = port
const app = createApp(
  {
    db,
    live,
    calc,
    sheets: new SheetShelf(),
    records: new RecordShelf(),
    files: openFileStore(resolve(data, 'files')),
    now: () => new Date(),
    log,
  },
  {
    webFolder: resolve(here, '../../web/dist'),
    databaseAnswers: house.databaseAnswers,
    hosts: [
      ...(process.env.MORAY_HOSTS ?? '')
        .split(',')
        .map((h) => h.trim())
        .filter(Boolean),
      // an address of this machine itself is no foreign name that was pointed at it
      ...(beyond ? ownAddresses() : []),
    ],
    reachable: { port: () => listening, beyond },
  },
)
const server = serve({ fetch: app.fetch, port, hostname: listen }, (info) => {
  listening = info.port
  process.stdout.write(`Moray is ready at http://127.0.0.1:${info.port}\n`)
  if (beyond)
    process.stdout.write(
      `Other devices that are paired reach it at ${ownAddresses()
        .map((a) => `http://${a}:${info.port}`)
        .join(', ')}\n`,
    )
}) as Server
// a client that sends its head or its body drop by drop does not hold a connection for ever
server.headersTimeout = 15_000
server.requestTimeout = 60_000
// a hand is slower than five seconds between two entries: the next one must not meet a connection that is just being closed
server.keepAliveTimeout = 75_000
server.on('error', (e: NodeJS.ErrnoException) =>
  stopWith(e.code === 'EADDRINUSE' ? `Port ${port} is taken; choose another with PORT.` : e.message),
)

let stopping = false
async function stop() {
  if (stopping) return
  stopping = true
  house.stop()
  live.stop()
  server.close()
  server.closeIdleConnections()
  // requests under way may finish; whoever hangs longer is cut
  setTimeout(() => server.closeAllConnections(), 1500).unref()
  await new Promise<void>((done) => (server.listening ? server.once('close', () => done()) : done()))
  await calc.close()
  await unfollow()
  await db.close()
  unlock()
  process.exit(0)
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
// npm and shells between us and the user may die without passing the signal on
const parent = process.ppid
setInterval(() => {
  if (process.ppid !== parent) void stop()
}, 2000).unref()
