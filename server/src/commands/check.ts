import { resolve } from 'node:path'
import { checkShop } from '../data/check-shop.ts'
import { DataFolderError, lockDataFolder } from '../data/data-lock.ts'
import { holdsDatabase, openFolder } from '../db/pglite.ts'
import { openPostgres } from '../db/postgres.ts'
import { openFileStore } from '../files/file-store.ts'

/**
 * `npm run check`: reads every row and every picture of the shop in MORAY_DATA (or DATABASE_URL), adds stock up against its movements, follows the
 * seal from event to event, and says what is broken. Exit code 0 when all is well, 1 when something is broken, 2 when it could not be looked at.
 */
const data = resolve(process.env.MORAY_DATA ?? 'data')
const url = process.env.DATABASE_URL || undefined
const say = (line: string) => process.stdout.write(`${line}\n`)

async function check(): Promise<number> {
  const unlock = url ? () => {} : await lockDataFolder(data)
  try {
    const pg = resolve(data, 'pg')
    if (!url && !holdsDatabase(pg)) throw new DataFolderError(`There is no database in ${data}.`)
    const db = url ? await openPostgres(url, () => {}) : await openFolder(pg)
    try {
      const { looked, broken } = await checkShop(db, openFileStore(resolve(data, 'files')))
      looked.forEach(say)
      broken.forEach((b) => say(`BROKEN: ${b}`))
      say(broken.length ? `${broken.length} things are broken.` : 'All is well.')
      return broken.length ? 1 : 0
    } finally {
      await db.close()
    }
  } finally {
    unlock()
  }
}

process.exit(
  await check().catch((e: unknown) => {
    process.stderr.write(`The check could not be made. ${e instanceof Error ? e.message : String(e)}\n`)
    return 2
  }),
)
