import { expect, test, type Page } from './test.ts'
import { openJob, post } from './hand.ts'
import { postgresPrograms, startCluster, type Cluster } from '../../server/tests/postgres-cluster.ts'

let cluster: Cluster | undefined
test.afterAll(() => cluster?.stop())

const bench = (page: Page, boat: string) => page.locator('a.job', { hasText: boat })
async function hold(page: Page, reason: string) {
  await page.locator('.about summary').click()
  await page.getByRole('button', { name: 'hold the job' }).click()
  await page.getByLabel('Reason').fill(reason)
  await page.getByRole('button', { name: 'Hold it' }).click()
}

test('two servers on one PostgreSQL database: what is done in one browser is seen in the other at once', async ({
  another,
  server,
  request,
}) => {
  const bin = postgresPrograms()
  test.skip(!bin, 'no PostgreSQL server is installed here')
  cluster = startCluster(bin!)
  const DATABASE_URL = cluster.url('postgres')
  const first = await server({ DATABASE_URL, MORAY_DEMO: 'off' })
  const second = await server({ DATABASE_URL })
  // a shop with one person, one drive and one job
  const write = async <T>(path: string, data: object, who?: string) => {
    const headers: Record<string, string> = who === undefined ? {} : { 'x-moray-person': who }
    const reply = await request.post(`${first}${path}`, { data, headers })
    expect(reply.status(), await reply.text()).toBe(201)
    return (await reply.json()) as T
  }
  const [{ id: who }] = await write<[{ id: string }]>('/api/people', { name: 'Iselin Vik', role: 'lead' })
  const drive = { name: 'Kobbe 40', family: 'outboard-fnr' }
  const { body: sheet } = await write<{ body: { id: string } }>('/api/drives', drive, who)
  const known = { sheetId: sheet.id, serial: 'KB-1', boat: 'Lodden', owner: 'Vik' }
  const { id } = await write<{ id: string }>(
    '/api/jobs',
    { ...known, water: 'salt', complaint: 'whines' },
    who,
  )
  // two windows of their own: at these servers nobody has said who works
  const [page, other] = [await another(), await another()]
  for (const p of [page, other]) await p.addInitScript((w) => localStorage.setItem('moray.person', w), who)
  await other.goto(`${second}/`)
  await expect(bench(other, 'Lodden').first()).toContainText('Receive it')
  await expect(other.getByText('live', { exact: true })).toBeVisible()
  await page.goto(`${first}/jobs/${id}/route`)
  await hold(page, 'seal kit on Thursday')
  await expect(bench(other, 'Lodden').first()).toContainText('Held: seal kit on Thursday')
})

test('eight tabs of one browser share one live line, and all of them answer and stay true', async ({
  page,
  context,
}) => {
  const boat = 'Åtte faner'
  const id = await openJob(page, 'lomvi-90', undefined, { boat })
  const tabs = await Promise.all(Array.from({ length: 8 }, () => context.newPage()))
  for (const tab of tabs) await tab.goto(`/?find=${encodeURIComponent(boat)}`)
  for (const tab of tabs) await expect(tab.getByText('live', { exact: true })).toBeVisible()
  const [one, ...others] = tabs
  await bench(one!, boat).click()
  await hold(one!, 'bearing on Monday')
  for (const tab of others) await expect(bench(tab, boat)).toContainText('Held: bearing on Monday')
  // the tab that holds the line goes: another takes it over, and hears what happens then
  await one!.close()
  for (const tab of others) await expect(tab.getByText('live', { exact: true })).toBeVisible()
  const { status } = await post(page, `/api/jobs/${id}/life`, { act: 'resume' })
  expect(status).toBe(201)
  for (const tab of others) await expect(bench(tab, boat)).not.toContainText('Held')
})
