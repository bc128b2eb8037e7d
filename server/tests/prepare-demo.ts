import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import type { TestProject } from 'vitest/node'
import { migrate, readMigrations } from '../src/db/migrate.ts'
import { wrapPglite } from '../src/db/pglite.ts'
import { loadDemo } from '../src/demo/load.ts'
import { NOW } from './now.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    demoDump: string
  }
}

/** Makes the demo workshop once for all test files, with a copy of every table to go back to, and leaves it as a dump. */
export default async function prepareDemo(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const pg = await PGlite.create('memory://')
  const db = wrapPglite(pg)
  await migrate(db, readMigrations(resolve(import.meta.dirname, '../migrations')), NOW)
  await loadDemo(db, NOW)
  await db.script(`
    create schema demo;
    do $$ declare t text; begin
      for t in select tablename from pg_tables where schemaname = 'public' loop
        execute format('create table demo.%I as table public.%I', t, t);
      end loop;
    end $$`)
  const dump = join(folder, 'demo.tar')
  writeFileSync(dump, new Uint8Array(await (await pg.dumpDataDir('none')).arrayBuffer()))
  await pg.close()
  project.provide('demoDump', dump)
  return () => rmSync(folder, { recursive: true, force: true })
}
