import { cpSync, existsSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { Database } from '../db/database.ts'
import { migrate, pendingMigrations, type Schema } from '../db/migrate.ts'
import { openPgliteThread } from '../db/pglite-thread.ts'
import { syncTree } from '../db/pglite.ts'

/** Copies from before an upgrade that are kept; the oldest goes first. */
const KEPT = 3
const COPIES = 'before-upgrade'

/**
 * Opens the shop's database and brings it up to date. The folder is locked and the port is ours. An embedded database is copied beside itself before
 * an upgrade of its tables; a PostgreSQL server has backups of its own.
 * @param url address of a PostgreSQL server; undefined for the embedded one in `data`
 * @param say told what takes long
 */
export async function openDatabase(
  { url, data }: { url: string | undefined; data: string },
  schema: Schema,
  log: (message: string, e: unknown) => void,
  say: (line: string) => void,
): Promise<Database> {
  if (url) {
    const db = await (await import('../db/postgres.ts')).openPostgres(url, log)
    await migrate(db, schema, new Date())
    return db
  }
  const pg = join(data, 'pg')
  let db = await openPgliteThread(pg)
  const { applied, pending } = await pendingMigrations(db, schema)
  if (applied > 0 && pending > 0) {
    // nobody writes while it is copied
    await db.close()
    const copy = copyBeforeUpgrade(data, applied)
    say(`The database is brought up to date; as it was before, it lies in ${copy}.`)
    db = await openPgliteThread(pg)
  }
  await migrate(db, schema, new Date())
  return db
}

/** @returns where the copy lies */
function copyBeforeUpgrade(data: string, schema: number): string {
  const copies = join(data, COPIES)
  const name = `schema-${schema}-${new Date().toISOString().slice(0, 19).replaceAll(':', '')}`
  const place = join(copies, name)
  const half = `${place}.half`
  cpSync(join(data, 'pg'), join(half, 'pg'), { recursive: true })
  // a folder of the first version has no mark yet
  const mark = join(data, 'moray.json')
  if (existsSync(mark)) cpSync(mark, join(half, 'moray.json'))
  syncTree(half)
  renameSync(half, place)
  const all = existsSync(copies) ? readdirSync(copies).sort() : []
  for (const old of all.slice(0, Math.max(0, all.length - KEPT)))
    rmSync(join(copies, old), { recursive: true })
  return place
}
