import { resolve } from 'node:path'
import { DataFolderError, lockDataFolder } from '../data/data-lock.ts'
import type { Database } from '../db/database.ts'
import { holdsDatabase, openFolder } from '../db/pglite.ts'
import { openPostgres } from '../db/postgres.ts'

/** Which shop a command works on. */
export interface Where {
  data: string
  url: string | undefined
}

export const say = (line: string) => process.stdout.write(`${line}\n`)

/**
 * Does something with the database of the shop in MORAY_DATA (or DATABASE_URL), which no server may use meanwhile when it is embedded.
 * @throws DataFolderError when there is none, or a server uses it
 */
export async function withShop(work: (db: Database, where: Where) => Promise<number>): Promise<number> {
  const data = resolve(process.env.MORAY_DATA ?? 'data')
  const url = process.env.DATABASE_URL || undefined
  const pg = resolve(data, 'pg')
  if (!url && !holdsDatabase(pg)) throw new DataFolderError(`There is no database in ${data}.`)
  const unlock = url ? () => {} : await lockDataFolder(data)
  try {
    const db = url ? await openPostgres(url, () => {}) : await openFolder(pg)
    try {
      return await work(db, { data, url })
    } finally {
      await db.close()
    }
  } finally {
    unlock()
  }
}
