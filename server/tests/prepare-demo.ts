import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { makeDemo } from './demo-made.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    /** File with a dump of the demo in PGlite; on a PostgreSQL server one that says that the demo is there. */
    demoFile: string
    /** A PostgreSQL server with the demo as a template; '' where the tests run on PGlite. */
    postgres: string
  }
}

/** The demo workshop, made once for all test files and left as a dump. */
export default function prepareDemo(project: TestProject) {
  const folder = mkdtempSync(join(tmpdir(), 'moray-demo-'))
  const file = join(folder, 'demo.tar')
  const making = makeDemo(file)
  project.provide('demoFile', file)
  project.provide('postgres', '')
  return () => {
    making.kill()
    rmSync(folder, { recursive: true, force: true })
  }
}
