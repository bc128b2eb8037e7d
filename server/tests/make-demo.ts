import { renameSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import type { Database } from '../src/db/database.ts'
import { migrate, readMigrations } from '../src/db/migrate.ts'
import { memory, wrapPglite } from '../src/db/pglite.ts'
import { openPostgres } from '../src/db/postgres.ts'
import { beginShop } from '../src/shop/begin.ts'
import { NOW } from './now.ts'
import { KEEP_COPY } from './reset.ts'

/**
 * make-demo.ts FILE [ADDRESS]: makes the demo workshop, with a copy of every table to go back to. Without an address in PGlite, left as a dump in
 * FILE; with one in that database of a PostgreSQL server, FILE says that it is there. A process of its own: other tests do not wait for it.
 */
const [file, address] = process.argv.slice(2)

async function fill(db: Database) {
  await migrate(db, readMigrations(resolve(import.meta.dirname, '../migrations')), NOW)
  await beginShop(db, NOW, { demo: true, shop: 'test-shop' })
  await db.script(KEEP_COPY)
}

let dump = new Uint8Array()
if (address) {
  const db = await openPostgres(address, () => {})
  await fill(db)
  await db.close()
} else {
  const pg = await memory()
  await fill(wrapPglite(pg))
  dump = new Uint8Array(await (await pg.dumpDataDir('none')).arrayBuffer())
  await pg.close()
}
writeFileSync(`${file}.part`, dump)
renameSync(`${file}.part`, file!)
