import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { postgresPrograms } from './server/tests/postgres-cluster.ts'
import type { Kind } from './server/tests/databases.ts'

/** What docs/testing.md says of each. */
const MINUTE = 60_000
const hasPostgres = postgresPrograms() !== undefined

/** The API tests, all of them on each database there is. */
const api = (database: Kind) => ({
  test: {
    name: `API on ${database}`,
    include: ['server/tests/api/**/*.test.ts'],
    globalSetup: ['server/tests/prepare-demo.ts'],
    provide: { database, walks: (database === 'PostgreSQL') === hasPostgres },
    // every app begins with the demo as it was prepared
    isolate: false,
    testTimeout: 2 * MINUTE,
    hookTimeout: 4 * MINUTE,
  },
})

export default defineConfig({
  test: {
    // by itself it leaves one core free; the machines that run this have two, and nothing else to do
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/tests/**/*.test.ts', 'contract/tests/**/*.test.ts'],
          // pure: files that share a worker share what they import, and nothing else
          isolate: false,
          testTimeout: MINUTE,
        },
      },
      api('PGlite'),
      ...(hasPostgres ? [api('PostgreSQL')] : []),
      {
        test: {
          name: 'processes',
          include: ['server/tests/*.test.ts'],
          testTimeout: 2 * MINUTE,
          hookTimeout: 4 * MINUTE,
        },
      },
      {
        plugins: [vue()],
        test: {
          name: 'pages',
          include: ['web/tests/**/*.test.ts'],
          environment: 'happy-dom',
          setupFiles: ['web/tests/setup.ts'],
          isolate: false,
          testTimeout: MINUTE,
        },
      },
    ],
  },
})
