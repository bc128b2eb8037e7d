import { expect, test, type Page } from './test.ts'
import { postgresPrograms, startCluster, type Cluster } from '../../server/tests/postgres-cluster.ts'

let cluster: Cluster | undefined
test.afterAll(() => cluster?.stop())

const bench = (page: Page, boat: string) => page.locator('a.job', { hasText: boat })

test('two servers on one PostgreSQL database: what is done in one browser is seen in the other at once', async ({
  another,
  server,
}) => {
  const bin = postgresPrograms()
  test.skip(!bin, 'no PostgreSQL server is installed here')
  cluster = await startCluster(bin!)
  const DATABASE_URL = cluster.url('postgres')
  const first = await server({ DATABASE_URL, MORAY_DEMO: 'on' })
  const second = await server({ DATABASE_URL })
  // two windows of their own: at these servers nobody has said who works
  const [page, other] = [await another(), await another()]
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
