import { defineConfig } from 'vitest/config'

/** The tests that npm run mutate asks: those of the judged logic that it changes, and none that runs long and would be asked by every mutant. */
export default defineConfig({
  test: {
    include: [
      'core/tests/torque/**/*.test.ts',
      'core/tests/leak/**/*.test.ts',
      'core/tests/measuring/**/*.test.ts',
      'core/tests/setting/landing.test.ts',
      'core/tests/route/{progress,complete,gates,route}.test.ts',
      'core/tests/assembly/{fold,laws,cases}.test.ts',
      'core/tests/reference.test.ts',
    ],
    testTimeout: 60_000,
  },
})
