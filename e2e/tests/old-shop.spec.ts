import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { startIn } from '../servers.ts'
import { show } from '../pages.ts'
import { fastTo, jobOf, panel, workTo } from './hand.ts'
import { expect, test } from './test.ts'

/** A copy of a shop of the first version: its jobs have sheets without parts, no routes and no log. */
const COPY = resolve(import.meta.dirname, '../../server/tests/first-version.zip')
const RESTORE = resolve(import.meta.dirname, '../../server/dist/restore.js')

test(
  'a job of the first version is carried over, worked to its end, and what was handed over then stays as it was',
  { tag: '@long' },
  async ({ browser }) => {
    test.setTimeout(300_000)
    const data = mkdtempSync(join(tmpdir(), 'moray-old-'))
    execFileSync(process.execPath, [RESTORE, COPY], {
      env: { ...process.env, MORAY_DATA: data, DATABASE_URL: '' },
    })
    const server = await startIn(data, { MORAY_DEMO: 'off' })
    const context = await browser.newContext({
      baseURL: server.url,
      storageState: {
        cookies: [],
        origins: [{ origin: server.url, localStorage: [{ name: 'moray.person', value: 'ylva' }] }],
      },
    })
    try {
      const page = await context.newPage()
      await page.goto('/')
      await page
        .getByRole('link', { name: /Sivkrok B/ })
        .first()
        .click()
      await expect(panel(page).getByRole('heading').first()).toBeVisible()
      await fastTo(page, 'sivkrok', 'handover')
      await show(page, '/jobs/sivkrok/route')
      await workTo(page, 'sivkrok')
      const job = await jobOf(page, 'sivkrok')
      expect([job.state, job.work.lines]).toEqual(['finished', []])
      expect(job.closings.flatMap((c) => c.departedFrom)).toEqual([])
      const before = await jobOf(page, 'lomvi-done')
      expect([before.state, before.progress.due]).toEqual(['finished', undefined])
      await show(page, '/jobs/lomvi-done/record')
      await expect(page.getByRole('heading', { name: /Record/ })).toBeVisible()
    } finally {
      await context.close()
      await server.end()
      rmSync(data, { recursive: true, force: true })
    }
  },
)
