import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { openPostgres } from '../src/db/postgres.ts'
import { makeDemo } from './demo-made.ts'
import { postgresPrograms, startCluster } from './postgres-cluster.ts'

/** The demo on a PostgreSQL server of the tests' own, as a template that every worker copies. */
export default async function preparePostgres(project: TestProject) {
  const cluster = startCluster(postgresPrograms()!)
  const admin = await openPostgres(cluster.url('postgres'), () => {})
  await admin.script('create database demo')
  await admin.close()
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const file = join(folder, 'made')
  const making = makeDemo(file, cluster.url('demo'))
  project.provide('demoFile', file)
  project.provide('postgres', cluster.url(''))
  return () => {
    making.kill()
    cluster.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
