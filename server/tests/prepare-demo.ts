import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { openPostgres } from '../src/db/postgres.ts'
import { makeDemo } from './demo-made.ts'
import { postgresPrograms, startCluster } from './postgres-cluster.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    /** File with a dump of the demo in PGlite; once it is there the demo is on the PostgreSQL server as well. */
    demoFile: string
    /** A PostgreSQL server with the demo as a template; '' where none is installed (tools/test.mjs does, where it can). */
    postgres: string
  }
}

/** The demo workshop, made once for all test files: as a dump, and as a template of a PostgreSQL server's that every worker copies. */
export default async function prepareDemo(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const file = join(folder, 'demo.tar')
  const programs = postgresPrograms()
  const cluster = programs === undefined ? undefined : startCluster(programs)
  if (cluster) {
    const admin = await openPostgres(cluster.url('postgres'), () => {})
    await admin.script('create database demo')
    await admin.close()
  }
  const making = makeDemo(file, cluster?.url('demo'))
  project.provide('demoFile', file)
  project.provide('postgres', cluster?.url('') ?? '')
  return () => {
    making.kill()
    cluster?.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
