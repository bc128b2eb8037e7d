import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

export default defineConfig({
  test: {
    // by itself it leaves one core free; the machines that run this have two, and nothing else to do
    maxWorkers: 2,
    projects: [
      { test: { name: 'core', include: ['core/tests/**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'contract', include: ['contract/tests/**/*.test.ts'], testTimeout: 60_000 } },
      {
        test: {
          name: 'server',
          include: ['server/tests/**/*.test.ts'],
          globalSetup: ['server/tests/prepare-demo.ts'],
          testTimeout: 120_000,
          hookTimeout: 240_000,
        },
      },
      {
        plugins: [vue()],
        test: {
          name: 'web',
          environment: 'happy-dom',
          testTimeout: 60_000,
          include: ['web/tests/**/*.test.ts'],
        },
      },
    ],
  },
})
