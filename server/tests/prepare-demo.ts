import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import type { TestProject } from 'vitest/node'
import { migrate, readMigrations } from '../src/db/migrate.ts'
import { wrapPglite } from '../src/db/pglite.ts'
import { beginShop } from '../src/shop/begin.ts'
import { NOW } from './now.ts'
import { KEEP_COPY } from './reset.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    /** File with a dump of the demo in PGlite. */
    demoDump: string
    /** A PostgreSQL server with the demo as a template; '' where the tests run on PGlite. */
    postgres: string
  }
}

/** Makes the demo workshop once for all test files, with a copy of every table to go back to, and leaves it as a dump. */
export default async function prepareDemo(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const pg = await PGlite.create('memory://')
  const db = wrapPglite(pg)
  await migrate(db, readMigrations(resolve(import.meta.dirname, '../migrations')), NOW)
  await beginShop(db, NOW, { demo: true, shop: 'test-shop' })
  await db.script(KEEP_COPY)
  const dump = join(folder, 'demo.tar')
  writeFileSync(dump, new Uint8Array(await (await pg.dumpDataDir('none')).arrayBuffer()))
  await pg.close()
  project.provide('demoDump', dump)
  project.provide('postgres', '')
  return () => rmSync(folder, { recursive: true, force: true })
}
