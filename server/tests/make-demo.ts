import { renameSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { memory, wrapPglite } from '../src/db/pglite.ts'
import { openPostgres } from '../src/db/postgres.ts'
import { beginShop } from '../src/shop/begin.ts'
import { putRows, rowsOf } from './copy-rows.ts'
import { NOW } from './now.ts'
import { KEEP_COPY } from './reset.ts'

/**
 * make-demo.ts FILE [ADDRESS]: makes the demo workshop in PGlite, with a copy of every table to go back to, and leaves it as a dump in FILE. With an
 * address the same rows are laid into that database of a PostgreSQL server first. A process of its own: other tests do not wait for it.
 */
const [file, address] = process.argv.slice(2)
const schema = readSchema(resolve(import.meta.dirname, '..'))

const pg = await memory()
const made = wrapPglite(pg)
await migrate(made, schema, NOW)
await beginShop(made, NOW, { demo: true, shop: 'test-shop' })
if (address) {
  const db = await openPostgres(address, () => {})
  await migrate(db, schema, NOW)
  await putRows(db, await rowsOf(made))
  await db.script(KEEP_COPY)
  await db.close()
}
await made.script(KEEP_COPY)
const dump = new Uint8Array(await (await pg.dumpDataDir('none')).arrayBuffer())
await pg.close()
writeFileSync(`${file}.part`, dump)
renameSync(`${file}.part`, file!)
