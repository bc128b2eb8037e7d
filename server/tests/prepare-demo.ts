import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { openPostgres } from '../src/db/postgres.ts'
import { makeDemo } from './demo-made.ts'
import { postgresPrograms, startCluster, type Cluster } from './postgres-cluster.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    /** File with a dump of the demo in PGlite; once it is there the demo is on the PostgreSQL server as well. */
    demoFile: string
    /** A PostgreSQL server with the demo as a template; '' where the tests run on PGlite. */
    postgres: string
  }
}

/** The project whose API tests run on a PostgreSQL server. */
const ON_POSTGRES = 'server-postgres'

interface Prepared {
  file: string
  cluster: Cluster | undefined
  end: () => void
}

/** Each project is set up by itself, all of them in this process: what is made for one is there for the other. */
const made = globalThis as { morayDemo?: Promise<Prepared> }

async function prepare(withPostgres: boolean): Promise<Prepared> {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const file = join(folder, 'demo.tar')
  const cluster = withPostgres ? startCluster(postgresPrograms()!) : undefined
  if (cluster) {
    const admin = await openPostgres(cluster.url('postgres'), () => {})
    await admin.script('create database demo')
    await admin.close()
  }
  const making = makeDemo(file, cluster?.url('demo'))
  return {
    file,
    cluster,
    end() {
      making.kill()
      cluster?.stop()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** The demo workshop, made once for all test files: as a dump, and as a template of a PostgreSQL server's that every worker copies. */
export default async function prepareDemo(project: TestProject) {
  const first = made.morayDemo === undefined
  made.morayDemo ??= prepare(project.vitest.projects.some((p) => p.name === ON_POSTGRES))
  const { file, cluster, end } = await made.morayDemo
  project.provide('demoFile', file)
  project.provide('postgres', project.name === ON_POSTGRES ? cluster!.url('') : '')
  // every project is torn down when all tests are over
  return first ? end : undefined
}
