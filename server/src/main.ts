import { accessSync, constants } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { serve } from '@hono/node-server'
import type { Server } from 'node:http'
import { createApp } from './app.ts'
import { migrate, readMigrations } from './db/migrate.ts'
import { openPglite } from './db/pglite.ts'
import { loadDemo } from './demo/load.ts'
import { openFileStore } from './files/file-store.ts'
import { Live } from './live/live.ts'
import { DataFolderError, lockDataFolder } from './lock/data-lock.ts'

/**
 * Starts the server. PORT (4747), MORAY_DATA (./data), MORAY_HOSTS (further host names, comma separated).
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

function portOf(text: string | undefined): number {
  const port = Number(text ?? 4747)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    stopWith(`PORT is "${text}"; a number from 0 to 65535 is needed.`)
  return port
}

const here = dirname(fileURLToPath(import.meta.url))
const port = portOf(process.env.PORT)
const data = resolve(process.env.MORAY_DATA ?? 'data')

let unlock = () => {}
try {
  unlock = lockDataFolder(data)
  accessSync(data, constants.W_OK)
} catch (e) {
  stopWith(
    e instanceof DataFolderError
      ? e.message
      : `The data folder ${data} cannot be written. Choose another with MORAY_DATA.`,
  )
}
process.on('exit', unlock)

const db = await openPglite(resolve(data, 'pg')).catch((e: unknown) => {
  log('the database did not open', e)
  return stopWith(
    `The database in ${data} did not open: the disk may be full or read-only. What the log says stands above.`,
  )
})
try {
  await migrate(db, readMigrations(resolve(here, '../migrations')), new Date())
  await loadDemo(db, new Date())
} catch (e) {
  log('the database could not be prepared', e)
  stopWith(e instanceof Error ? e.message : String(e))
}

const live = new Live()
const app = createApp(
  { db, live, files: openFileStore(resolve(data, 'files')), now: () => new Date(), log },
  {
    webFolder: resolve(here, '../../web/dist'),
    hosts: (process.env.MORAY_HOSTS ?? '')
      .split(',')
      .map((h) => h.trim())
      .filter(Boolean),
  },
)
const server = serve({ fetch: app.fetch, port, hostname: '127.0.0.1' }, (info) => {
  process.stdout.write(`Moray is ready at http://127.0.0.1:${info.port}\n`)
}) as Server
server.on('error', (e: NodeJS.ErrnoException) =>
  stopWith(e.code === 'EADDRINUSE' ? `Port ${port} is taken; choose another with PORT.` : e.message),
)

let stopping = false
async function stop() {
  if (stopping) return
  stopping = true
  live.stop()
  server.close()
  server.closeIdleConnections()
  // requests under way may finish; whoever hangs longer is cut
  setTimeout(() => server.closeAllConnections(), 1500).unref()
  await new Promise<void>((done) => (server.listening ? server.once('close', () => done()) : done()))
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
