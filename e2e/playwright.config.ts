import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { defineConfig } from '@playwright/test'
import { LONG_RUN } from '../core/tests/long.ts'
import { chromiumPath } from './chromium.ts'

const root = resolve(import.meta.dirname, '..')
// the config is read again in every worker; only the first reading makes the folder
if (!process.env.MORAY_TEST_SHOP) {
  const shop = mkdtempSync(join(tmpdir(), 'moray-e2e-shop-'))
  process.env.MORAY_TEST_SHOP = shop
  // the workers know it by then; only the one that made it takes it away
  process.on('exit', () => rmSync(shop, { recursive: true, force: true }))
}

export default defineConfig({
  testDir: 'tests',
  // a journey that others walk by halves, or whose facts the API tests hold, is left to the long run (MORAY_TEST_LONG=1)
  ...(LONG_RUN ? {} : { grepInvert: /@long/ }),
  globalSetup: './prepare-shop.ts',
  outputDir: join(root, 'node_modules', '.moray', 'e2e-results'),
  fullyParallel: false,
  workers: 2,
  // generous: machines that share their cores can be many times slower than they were a minute ago
  timeout: 180_000,
  expect: { timeout: 25_000 },
  forbidOnly: !!process.env.CI,
  retries: 0,
  reporter: process.env.MORAY_REPORT
    ? [['list'], ['json', { outputFile: process.env.MORAY_REPORT }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // what is looked at stands still: colours are not judged half way from day to night
    contextOptions: { reducedMotion: 'reduce' },
    // costs a third of the time of every test; MORAY_TRACE=1 to look into one that fails
    trace: process.env.MORAY_TRACE ? 'retain-on-failure' : 'off',
    // a click that waits longer than this waits for something that does not come
    actionTimeout: 45_000,
    launchOptions: {
      executablePath: chromiumPath(),
      args: [
        '--no-sandbox',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
