import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['core/tests/**/*.test.ts'] } },
      { test: { name: 'contract', include: ['contract/tests/**/*.test.ts'] } },
      { test: { name: 'server', include: ['server/tests/**/*.test.ts'], testTimeout: 40_000, hookTimeout: 60_000 } },
      { plugins: [vue()], test: { name: 'web', environment: 'happy-dom', include: ['web/tests/**/*.test.ts'] } },
    ],
  },
})
