import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import vue from '@vitejs/plugin-vue'

const API_TESTS = 'server/tests/api/**/*.test.ts'
const TIMES = { testTimeout: 120_000, hookTimeout: 240_000 }
/** What a test makes is soon thrown away: with more room for what is young it is thrown away seldomer, and at once. */
const ROOM = { execArgv: ['--max-semi-space-size=64'] }
/** What waits longest begins first; the API tests begin when the demo is made that they all wait for. */
const ORDER = ['server-process', 'core', 'web', 'server']
class LongWaitsFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]) {
    const turn = (f: TestSpecification) => ORDER.indexOf(f.project.name)
    return (await super.sort(files)).toSorted((a, b) => turn(a) - turn(b))
  }
}

export default defineConfig({
  test: {
    // by itself it leaves one core free; the machines that run this have two, and nothing else to do
    maxWorkers: 2,
    sequence: { sequencer: LongWaitsFirst },
    projects: [
      // what is pure keeps nothing from one file to the next: files that share a worker share what they import
      {
        test: {
          name: 'core',
          include: ['core/tests/**/*.test.ts', 'contract/tests/**/*.test.ts'],
          isolate: false,
          ...ROOM,
          testTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'server',
          include: [API_TESTS],
          globalSetup: ['server/tests/prepare-demo.ts'],
          runner: 'server/tests/on-every-database.ts',
          // every app begins with the demo as it was prepared
          isolate: false,
          ...ROOM,
          ...TIMES,
        },
      },
      { test: { name: 'server-process', include: ['server/tests/*.test.ts'], ...TIMES } },
      {
        plugins: [vue()],
        test: {
          name: 'web',
          environment: 'happy-dom',
          ...ROOM,
          testTimeout: 60_000,
          include: ['web/tests/**/*.test.ts'],
          setupFiles: ['web/tests/setup.ts'],
          // files that share a worker share what they import, and the document
          isolate: false,
        },
      },
    ],
  },
})
