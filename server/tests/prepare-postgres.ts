import { resolve } from 'node:path'
import type { TestProject } from 'vitest/node'
import { migrate, readMigrations } from '../src/db/migrate.ts'
import { openPostgres } from '../src/db/postgres.ts'
import { beginShop } from '../src/shop/begin.ts'
import { NOW } from './now.ts'
import { postgresPrograms, startCluster } from './postgres-cluster.ts'
import { KEEP_COPY } from './reset.ts'

/** The demo on a PostgreSQL server of the tests' own, as a template that every test file copies. */
export default async function preparePostgres(project: TestProject) {
  const cluster = await startCluster(postgresPrograms()!)
  const admin = await openPostgres(cluster.url('postgres'), () => {})
  await admin.script('create database demo')
  const db = await openPostgres(cluster.url('demo'), () => {})
  await migrate(db, readMigrations(resolve(import.meta.dirname, '../migrations')), NOW)
  await beginShop(db, NOW, { demo: true, shop: 'test-shop' })
  await db.script(KEEP_COPY)
  await db.close()
  await admin.close()
  project.provide('demoDump', '')
  project.provide('postgres', cluster.url(''))
  return () => cluster.stop()
}
