import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { postgresPrograms, startCluster, type Cluster } from '../../server/tests/postgres-cluster.ts'

const root = resolve(import.meta.dirname, '../..')
const running: ChildProcess[] = []

/** One server more, on a database of its own choice. */
async function server(env: Record<string, string>): Promise<string> {
  const child = spawn(process.execPath, ['tools/start.mjs'], {
    cwd: root,
    env: { ...process.env, PORT: '0', MORAY_DATA: mkdtempSync(join(tmpdir(), 'moray-e2e-')), ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  running.push(child)
  return new Promise((ready, failed) => {
    let text = ''
    child.stdout!.on('data', (d) => {
      text += String(d)
      const url = /http:\S+/.exec(text)?.[0]
      if (url) ready(url)
    })
    child.on('exit', () => failed(new Error('the server ended')))
  })
}

let cluster: Cluster | undefined
test.afterAll(async () => {
  await Promise.all(
    running.map((child) => {
      child.kill('SIGTERM')
      return new Promise((done) => child.on('exit', done))
    }),
  )
  cluster?.stop()
})

const bench = (page: Page, boat: string) => page.locator('a.job', { hasText: boat })

test('two servers on one PostgreSQL database: what is done in one browser is seen in the other at once', async ({
  page,
  browser,
}) => {
  const bin = postgresPrograms()
  test.skip(!bin, 'no PostgreSQL server is installed here')
  cluster = await startCluster(bin!)
  const DATABASE_URL = cluster.url('postgres')
  const first = await server({ DATABASE_URL, MORAY_DEMO: 'on' })
  const second = await server({ DATABASE_URL })
  const other = await (await browser.newContext()).newPage()
  for (const p of [page, other]) await p.addInitScript(() => localStorage.setItem('moray.person', 'ylva'))
  await page.goto(`${first}/`)
  await other.goto(`${second}/`)
  await expect(bench(other, 'Lodden').first()).toContainText('Leak test as found')
  await expect(other.getByText('live', { exact: true })).toBeVisible()
  await page.goto(`${first}/jobs/lomvi-teist/route`)
  await page.locator('.about summary').click()
  await page.getByRole('button', { name: 'hold the job' }).click()
  await page.getByLabel('Reason').fill('seal kit on Thursday')
  await page.getByRole('button', { name: 'Hold it' }).click()
  await expect(bench(other, 'Lodden').first()).toContainText('Held: seal kit on Thursday')
})

test('eight tabs of one browser share one live line, and all of them answer and stay true', async ({
  context,
}) => {
  const tabs = await Promise.all(Array.from({ length: 8 }, () => context.newPage()))
  for (const tab of tabs) await tab.goto('/drawer')
  for (const tab of tabs) await expect(tab.getByText('live', { exact: true })).toBeVisible()
  const [one, ...others] = tabs
  await one!.goto('/drawer')
  await one!
    .getByRole('button', { name: /^Change line/ })
    .first()
    .click()
  await one!.getByLabel('Pieces put in').fill('3')
  await one!.getByRole('button', { name: 'Enter', exact: true }).click()
  await expect(one!.getByRole('dialog')).toBeHidden()
  const row = await one!.locator('tbody tr').first().innerText()
  for (const tab of others) await expect.poll(() => tab.locator('tbody tr').first().innerText()).toBe(row)
  // the tab that holds the line goes: another takes it over
  await tabs[0]!.close()
  for (const tab of others) await expect(tab.getByText('live', { exact: true })).toBeVisible()
})
