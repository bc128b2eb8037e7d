import { mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { bringBack, finishBringingBack, mustBeOurFolder, restoredMark, shopIn } from '../copies/bring-back.ts'
import { loadCopy } from '../copies/load.ts'
import { makeCopy } from '../copies/make-copy.ts'
import { CopyError } from '../copies/manifest.ts'
import { diskWords } from '../copies/place.ts'
import { openCopy, type OpenCopy } from '../copies/read-copy.ts'
import { DataFolderError, lockDataFolder, prepareFolder } from '../data/data-lock.ts'
import { writeMark } from '../data/mark.ts'
import type { Database } from '../db/database.ts'
import { readSchema } from '../db/migrate.ts'
import { openPostgres } from '../db/postgres.ts'
import { databaseFiles } from '../files/file-store.ts'
import { tellNewEpoch } from '../live/live.ts'
import { serverFolder } from './server-folder.ts'
import { say } from './with-shop.ts'

/**
 * `npm run restore -- FILE`: brings a copy back into the empty folder MORAY_DATA, or into the empty database of DATABASE_URL. Where a shop is, it says so
 * and what to add to put it in its place: `--over WORD`. The old shop is laid aside in the folder, or copied there out of the PostgreSQL server, first.
 * Exit code 0 when the shop is back, 2 when nothing was changed.
 */
const args = process.argv.slice(2)
const at = args.indexOf('--over')
const over = at < 0 ? undefined : args[at + 1]
const [file] = args.filter((_, i) => at < 0 || (i !== at && i !== at + 1))
const data = resolve(process.env.MORAY_DATA ?? 'data')
const url = process.env.DATABASE_URL || undefined
const schema = readSchema(serverFolder(import.meta.url))

async function restore(): Promise<void> {
  if (!file) throw new DataFolderError('Say which: npm run restore -- /media/stick/moray.zip')
  const copy = await openCopy(resolve(file))
  try {
    if (url) await intoServer(copy, url)
    else await intoFolder(copy)
  } finally {
    copy.close()
  }
  const { jobs, at: taken } = copy.manifest
  say(`The shop is back: ${jobs} jobs, as of ${taken}. npm start opens it.`)
}

/** Over a shop only for somebody who has been told which one it is. */
function mustMeanIt(shop: string, told: string) {
  const word = shop.slice(0, 8)
  if (over !== word)
    throw new CopyError(`${told} To put the copy in its place, say it again and add: --over ${word}`)
}

async function intoFolder(copy: OpenCopy) {
  prepareFolder(data)
  const unlock = await lockDataFolder(data)
  try {
    finishBringingBack(data)
    mustBeOurFolder(data)
    const there = shopIn(data)
    if (there)
      mustMeanIt(
        there.id,
        `The folder ${data} holds the shop ${there.id}, begun ${there.since}. It would be laid aside there.`,
      )
    const { aside, broken } = await bringBack(data, copy, schema, new Date())
    if (aside) say(`The shop that was here lies in ${aside} now.`)
    for (const b of broken) say(`Broken already when the copy was made: ${b}`)
  } finally {
    unlock()
  }
}

async function intoServer(copy: OpenCopy, address: string) {
  prepareFolder(data)
  const db = await openPostgres(address, () => {})
  try {
    const there = await shopAt(db)
    if (there) {
      mustMeanIt(
        there.id,
        `The database holds the shop ${there.id}, with ${there.jobs} jobs. It would be copied to ${data} first.`,
      )
      mkdirSync(join(data, 'copies'), { recursive: true, mode: 0o700 })
      const kept = join(
        data,
        'copies',
        `before-restore-${new Date().toISOString().slice(0, 19).replaceAll(':', '')}.zip`,
      )
      await makeCopy({ data, url: address }, kept, schema)
      say(`The shop that was here lies in ${kept} now.`)
    }
    const now = new Date()
    const epoch = await loadCopy(db, databaseFiles, copy, schema, now, { proving: false })
    writeMark(data, restoredMark(copy.manifest, epoch, schema, now))
    await tellNewEpoch(db)
  } finally {
    await db.close()
  }
}

/** The shop in a PostgreSQL schema; undefined where it has none, or nobody has begun with it. @throws CopyError where something else lies there */
async function shopAt(db: Database): Promise<{ id: string; jobs: number } | undefined> {
  const tables = await db.query<{ name: string }>(
    `select relname::text as name from pg_class where relkind = 'r' and relnamespace = current_schema()::regnamespace`,
  )
  if (!tables.length) return undefined
  if (!tables.some((t) => t.name === 'schema_version'))
    throw new CopyError(
      'The database of DATABASE_URL holds tables that are not those of Moray. Nothing was changed; name an empty database, or an empty schema with search_path.',
    )
  const [row] = await db.query<{ id: string | null; jobs: number; people: number }>(
    `select (select value ->> 'id' from setting where key = 'shop') as id, (select count(*)::int from job) as jobs, (select count(*)::int from person) as people`,
  )
  return row!.jobs + row!.people === 0 ? undefined : { id: row!.id ?? 'unnamed', jobs: row!.jobs }
}

process.umask(0o077)
try {
  await restore()
  process.exit(0)
} catch (e) {
  const which = e instanceof CopyError && file ? `${file}: ` : ''
  process.stderr.write(`Nothing was changed. ${which}${diskWords(e)}\n`)
  process.exit(2)
}
