import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { makeCopy } from '../copies/make-copy.ts'
import { diskWords } from '../copies/place.ts'
import { DataFolderError } from '../data/data-folder-error.ts'
import type { Database } from '../db/database.ts'
import { migrate, NewerShopError, pendingMigrations, type Schema } from '../db/migrate.ts'
import { openPgliteThread } from '../db/pglite-thread.ts'

/** Copies from before an upgrade that are kept; the oldest goes first. */
const KEPT = 3
const COPIES = 'before-upgrade'

/**
 * Opens the shop's database and brings it up to date. The folder is locked and the port is ours. Before an upgrade of its tables a copy is made and
 * proved, and the upgrade is tried on what came out of it: what does not go well there has changed nothing here.
 * @param url address of a PostgreSQL server; undefined for the embedded one in `data`
 * @param say told what takes long
 * @throws DataFolderError when the shop is a newer Moray's, or no copy could be made
 */
export async function openDatabase(
  where: { url: string | undefined; data: string },
  schema: Schema,
  log: (message: string, e: unknown) => void,
  say: (line: string) => void,
): Promise<Database> {
  const open = async () =>
    where.url
      ? (await import('../db/postgres.ts')).openPostgres(where.url, log)
      : openPgliteThread(join(where.data, 'pg'))
  let db = await open()
  try {
    const { applied, pending } = await pendingMigrations(db, schema)
    if (applied > 0 && pending > 0) {
      say('The data is brought up to date. A copy of it is made and proved first; this takes a moment.')
      // an embedded one that is shut reads as it lies
      await db.close()
      const copy = await copyBeforeUpgrade(where, applied, schema)
      say(`As it was before, it lies in ${copy}.`)
      db = await open()
    }
    await migrate(db, schema, new Date())
    return db
  } catch (e) {
    throw e instanceof NewerShopError ? new DataFolderError(`${e.message}.`) : e
  }
}

/** @returns where the copy lies */
async function copyBeforeUpgrade(
  where: { url: string | undefined; data: string },
  applied: number,
  schema: Schema,
): Promise<string> {
  const copies = join(where.data, COPIES)
  const name = `schema-${applied}-${new Date().toISOString().slice(0, 19).replaceAll(':', '')}.zip`
  try {
    mkdirSync(copies, { recursive: true, mode: 0o700 })
    const { file } = await makeCopy(where, join(copies, name), schema)
    const all = readdirSync(copies).sort()
    for (const old of all.slice(0, Math.max(0, all.length - KEPT)))
      rmSync(join(copies, old), { recursive: true })
    return file
  } catch (e) {
    throw new DataFolderError(
      `The shop was written by an older Moray and has to be brought up to date, but no proved copy of it could be made before that: ${diskWords(e)}. Nothing was changed. Put that right and start again; the older Moray still opens it.`,
    )
  }
}
