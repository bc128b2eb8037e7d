import { accessSync, constants, existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { createApp } from './app.ts'
import { openCalcPool } from './calc/pool.ts'
import { finishBringingBack } from './copies/bring-back.ts'
import { byProcess } from './copies/by-process.ts'
import { bringBackHere } from './copies/into-open-shop.ts'
import { keepCopies } from './copies/keeper.ts'
import { DataFolderError, lockDataFolder, prepareFolder } from './data/data-lock.ts'
import { keepAnchor } from './data/keep-anchor.ts'
import { arrived, isMarked, openMark, writeMark, type Mark } from './data/mark.ts'
import { readSchema } from './db/migrate.ts'
import { closeToOthers } from './db/pglite.ts'
import { ownAddresses } from './devices/devices.ts'
import { SheetShelf } from './drives/sheets.ts'
import { RecordShelf } from './job/record-shelf.ts'
import { jobSchemaOf } from './exchange/read-job-zip.ts'
import { carryIn, databaseFiles, openFileStore } from './files/file-store.ts'
import { keepHouse } from './housekeeping.ts'
import { Live } from './live/live.ts'
import { beginShop } from './shop/begin.ts'
import { mustNotHaveHeldShop, rememberFolder } from './start/known-folders.ts'
import { takePorts } from './start/listeners.ts'
import { openDatabase } from './start/open-database.ts'
import { readSettings, SettingError } from './start/settings.ts'

/**
 * Starts the server, in this order: the ports, the lock of the folder, its mark, the database, its tables. Nothing is opened before the ports and the
 * lock are ours. Prints one line with the address once it answers. README names the variables that it reads.
 */
const log = (message: string, detail?: unknown) => {
  const more =
    detail instanceof Error ? (detail.stack ?? detail.message) : detail === undefined ? '' : String(detail)
  process.stderr.write(`${new Date().toISOString()} ${message}${more ? `\n${more}` : ''}\n`)
}
const say = (line: string) => process.stdout.write(`${line}\n`)

function stopWith(message: string): never {
  process.stderr.write(`Moray cannot start. ${message}\n`)
  process.exit(1)
}

/** Ends the start with what is wrong, where that is something that somebody can put right. */
function stopOn(e: unknown, otherwise: string): never {
  if (e instanceof SettingError || e instanceof DataFolderError) return stopWith(e.message)
  log('the start failed', e)
  return stopWith(otherwise)
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

// what is written belongs to whoever runs Moray, and to nobody else
process.umask(0o077)
const here = dirname(fileURLToPath(import.meta.url))
const settings = (() => {
  try {
    return readSettings(process.env)
  } catch (e) {
    return stopOn(e, 'The settings cannot be read.')
  }
})()
const { data, url } = settings
const schema = readSchema(resolve(here, '..'))
const ports = await takePorts(settings).catch((e: unknown) => stopOn(e, 'The port could not be taken.'))

let unlock = () => {}
process.on('exit', () => unlock())
let mark: Mark
try {
  // a folder that is not there may be a disk that is not
  if (!url && !settings.mayBeginAnew && !isMarked(data)) mustNotHaveHeldShop(data)
  // a PostgreSQL server takes many of us at once; the folder then holds no more than its mark
  if (url) prepareFolder(data)
  else {
    unlock = await lockDataFolder(data)
    finishBringingBack(data)
  }
  mark = openMark(data, new Date(), { embedded: !url, schema })
  accessSync(data, constants.W_OK)
} catch (e) {
  stopOn(e, `The data folder ${data} cannot be written. Choose another with MORAY_DATA.`)
}

const files = join(data, 'files')
const db = await openDatabase(settings, schema, log, say).catch((e: unknown) => {
  if (e instanceof DataFolderError) return stopWith(e.message)
  log('the database did not open', e)
  const why = e instanceof Error ? `${e.message}. ` : ''
  return stopWith(
    url
      ? `The PostgreSQL server of DATABASE_URL (${withoutPassword(url)}) cannot be used. ${why}What the log says stands above.`
      : `The database in ${data} did not open. ${why}Is the disk full or read-only, or the folder damaged? What the log says stands above; a copy can be put back in its place.`,
  )
})
try {
  const { shop, epoch } = await beginShop(db, new Date(), { demo: settings.demo, shop: mark.shop })
  mark = arrived(mark, epoch)
  if (mark.state === 'ready' && mark.shop !== shop)
    stopWith(
      `The folder ${data} belongs to the shop ${mark.shop}, the database holds the shop ${shop}. One of the two is in the wrong place; nothing was changed.`,
    )
  mark = { ...mark, shop, state: 'ready', moray: schema.moray, schema: schema.migrations.length }
  writeMark(data, mark)
  if (url) await carryIn(db, files)
  else {
    if (existsSync(files)) closeToOthers(files)
    rememberFolder(data, shop)
  }
} catch (e) {
  log('the database could not be prepared', e)
  stopWith(e instanceof Error ? e.message : String(e))
}

const live = new Live()
const unfollow = await live.follow(db)
const anchor = await keepAnchor(db, live, data, mark, log)
const calc = openCalcPool()
const house = keepHouse(db, log)
const sheets = new SheetShelf()
const store = url ? databaseFiles : openFileStore(files)
const copying = byProcess({ data, url }, import.meta.url)
const copies = keepCopies({
  db,
  data,
  make: copying.make,
  bringBack: (file) => bringBackHere(file, { db, files: store, sheets, schema, anchor }),
  now: () => new Date(),
  log,
})
const app = createApp(
  {
    db,
    live,
    calc,
    copies,
    sheets,
    records: new RecordShelf(),
    files: store,
    now: () => new Date(),
    log,
  },
  {
    webFolder: resolve(here, '../../web/dist'),
    data,
    moray: schema.moray,
    jobSchema: () => jobSchemaOf(resolve(here, '..')),
    databaseAnswers: house.databaseAnswers,
    hosts: settings.names,
    reachable: { port: () => ports.port, beyond: settings.beyond },
    ...(settings.proxyPort === undefined ? {} : { proxyPort: settings.proxyPort }),
  },
)
ports.answerWith(app.fetch as Parameters<typeof ports.answerWith>[0])

let stopping = false
async function stop() {
  if (stopping) return
  stopping = true
  house.stop()
  copies.stop()
  copying.stop()
  live.stop()
  await ports.close()
  await calc.close()
  await anchor.stop()
  await unfollow()
  await db.close()
  unlock()
  process.exit(0)
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
// npm and shells between us and the user may die without passing the signal on; whoever starts us otherwise may well end before us
const parent = process.ppid
if (settings.followParent)
  setInterval(() => {
    if (process.ppid === parent) return
    log('stopping: npm start, which has started this server, has ended')
    void stop()
  }, 2000).unref()

// last: whoever reads this may stop us at once
say(`Moray is ready at http://127.0.0.1:${ports.port}`)
if (settings.beyond)
  say(
    `Other devices that are paired reach it at ${ownAddresses()
      .map((a) => `http://${a}:${ports.port}`)
      .join(', ')}`,
  )
if (settings.proxyPort !== undefined)
  say(`A proxy on this machine asks at http://127.0.0.1:${settings.proxyPort}`)
