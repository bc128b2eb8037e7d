import { defineConfig } from 'vitest/config'

/** The tests that npm run mutate asks about core: all but those that run long and would be asked by every mutant. */
export default defineConfig({
  test: {
    include: ['core/tests/**/*.test.ts'],
    exclude: ['core/tests/simulation/**', 'core/tests/contact/**', 'core/tests/route/slips.test.ts'],
    testTimeout: 60_000,
  },
})
