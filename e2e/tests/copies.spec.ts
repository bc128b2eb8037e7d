import { readFileSync } from 'node:fs'
import { expect, test } from './test.ts'
import { show } from '../pages.ts'

interface Past {
  number: string
  openedAt: string
  stacks: { forward: number }
}
const jsonOf = async <T>(address: string) => (await (await fetch(address)).json()) as T

test('a shim of two years ago is found, and its unit is seen over the years @long', async ({
  another,
  server,
}) => {
  test.setTimeout(300_000)
  const url = await server({ MORAY_DEMO: 'on' })
  const page = await another()
  await page.addInitScript(() => localStorage.setItem('moray.person', 'runa'))
  const units = await jsonOf<{ serial: string; sheetId: string; jobs: number }[]>(`${url}/api/units?all=yes`)
  const unit = units.find((u) => u.jobs > 2)!
  const jobs = await jsonOf<Past[]>(`${url}/api/units/${unit.sheetId}/jobs?serial=${unit.serial}`)
  const oldest = jobs.at(-1)!
  expect(Date.parse(oldest.openedAt)).toBeLessThan(Date.now() - 600 * 86_400_000)
  // by its thickness as somebody remembers it
  await page.goto(`${url}/find`)
  const search = page.getByRole('searchbox', { name: 'What to find' })
  await search.fill(`${oldest.stacks.forward.toFixed(3)} forward ${unit.serial}`)
  const hit = page.getByRole('listitem').filter({ hasText: oldest.number }).first()
  await expect(hit).toContainText(`forward ${Number(oldest.stacks.forward.toFixed(3))} mm`, {
    timeout: 120_000,
  })
  await hit.getByRole('link').first().click()
  await expect(page.getByRole('heading', { name: `Record ${oldest.number}` })).toBeVisible()
  await page.goto(`${url}/boats/${unit.sheetId}/${unit.serial}`)
  await expect(page.getByRole('img', { name: /Stacks of this unit/ })).toBeVisible()
  await expect(page.getByRole('row')).toHaveCount(jobs.length + 1)
})

test('a shim is found; the shop is copied, emptied, and brought back by the page', async ({
  another,
  server,
}) => {
  test.setTimeout(300_000)
  const url = await server({}, 'demo')
  const page = await another()
  await page.addInitScript(() => localStorage.setItem('moray.person', 'runa'))
  await page.goto(`${url}/find`)
  await page.getByRole('searchbox', { name: 'What to find' }).fill('.75 forward lomvi')
  const hit = page.getByRole('listitem').filter({ hasText: '26-117' }).first()
  await expect(hit).toContainText('forward 0.75 mm', { timeout: 60_000 })
  const units = await jsonOf(`${url}/api/units?all=yes`)

  await page.goto(`${url}/shop#copies`)
  const copies = page.getByRole('region', { name: 'Copies' })
  await copies.getByRole('button', { name: 'Make a copy now' }).click()
  await expect(copies.getByText(/Last good copy .* proved/)).toBeVisible({ timeout: 120_000 })
  await page.getByLabel(/To leave it/).fill('leave the demo')
  await page.getByRole('button', { name: 'Leave the demo' }).click()
  await expect(page.getByRole('heading', { name: 'An empty shop' })).toBeVisible()
  await page.getByRole('button', { name: /Bring back the copy of/ }).click()
  await expect(page.getByRole('combobox', { name: 'Who is working' })).toBeVisible({ timeout: 120_000 })
  await page.goto(url)
  await expect(page.getByText('Stand 1').first()).toBeVisible()
  expect(await jsonOf(`${url}/api/units?all=yes`)).toEqual(units)
})

test('the zip of a job is read in another shop, and what was altered in it is said by name', async ({
  another,
  server,
  page,
}) => {
  test.setTimeout(240_000)
  await show(page, '/jobs/lomvi-done/record')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Everything as a zip' }).click(),
  ])
  expect(download.suggestedFilename()).toMatch(/^26-097.*\.zip$/)
  const zip = readFileSync(await download.path())

  const url = await server({}, 'demo')
  const other = await another()
  await other.addInitScript(() => localStorage.setItem('moray.person', 'ylva'))
  await other.goto(`${url}/boats`)
  const records = other.getByRole('region', { name: 'Records of other shops' })
  const bring = (buffer: Buffer) =>
    records
      .getByLabel(/Bring in a job/)
      .setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer })
  const altered = Buffer.from(zip)
  const at = altered.indexOf('readings.csv') + 60
  altered[at] = altered[at]! ^ 0x20
  await bring(altered)
  await expect(records.getByRole('alert')).toContainText('readings.csv')
  await bring(zip)
  await records.getByRole('link', { name: /26-097/ }).click()
  await expect(other.getByRole('heading', { name: 'Record 26-097' })).toBeVisible()
  await expect(other.getByText('A record of another shop')).toBeVisible()
  await expect(other.getByRole('heading', { name: 'As built' })).toBeVisible()
})
