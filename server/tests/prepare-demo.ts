import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import type { TestProject } from 'vitest/node'
import type { Database } from '../src/db/database.ts'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { memory, wrapPglite } from '../src/db/pglite.ts'
import { openPostgres } from '../src/db/postgres.ts'
import { beginShop } from '../src/shop/begin.ts'
import { NOW } from './now.ts'
import { postgresPrograms, startCluster } from './postgres-cluster.ts'
import { KEEP_COPY } from './reset.ts'

/** The demo workshop, made once for all test files of a project: a dump for PGlite, or a database on a PostgreSQL server of the tests' own. */
export default async function prepareDemo(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  project.provide('folder', folder)
  const onPostgres = project.config.provide.database === 'PostgreSQL'
  const stop = onPostgres ? await onServer(project) : await asDump(project, join(folder, 'demo.tar'))
  return () => {
    stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** The demo with a copy of every table, which every test goes back to. */
async function make(db: Database) {
  await migrate(db, readSchema(resolve(import.meta.dirname, '..')), NOW)
  await beginShop(db, NOW, { demo: 'short', shop: 'test-shop' })
  await db.script(KEEP_COPY)
}

async function asDump(project: TestProject, file: string) {
  const pg = await memory()
  await make(wrapPglite(pg))
  writeFileSync(file, new Uint8Array(await (await pg.dumpDataDir('none')).arrayBuffer()))
  await pg.close()
  project.provide('demoFile', file)
  project.provide('postgres', '')
  return () => {}
}

async function onServer(project: TestProject) {
  const cluster = startCluster(postgresPrograms()!)
  const admin = await openPostgres(cluster.url('postgres'), () => {})
  await admin.script('create database demo')
  await admin.close()
  const db = await openPostgres(cluster.url('demo'), () => {})
  await make(db)
  await db.close()
  project.provide('demoFile', '')
  project.provide('postgres', cluster.url(''))
  return () => cluster.stop()
}
