import { networkInterfaces } from 'node:os'
import { expect, test } from './test.ts'
import { show } from '../pages.ts'

const address = Object.values(networkInterfaces())
  .flatMap((list) => list ?? [])
  .find((a) => !a.internal && a.family === 'IPv4')?.address

test('a tablet on the shop’s network: nothing before it is paired, everything after, and put out again', async ({
  another,
  server,
}) => {
  test.skip(!address, 'this machine has no network but itself')
  test.setTimeout(240_000)
  const url = await server({ MORAY_LISTEN: '0.0.0.0' }, 'demo')
  const known = await another()
  await known.addInitScript(() => localStorage.setItem('moray.person', 'runa'))
  const tablet = await another({ viewport: { width: 360, height: 740 } })

  // the same server by the address of the machine: from there as from any other device through a proxy of the shop
  const outside = `http://${address}:${new URL(url).port}`
  await tablet.setExtraHTTPHeaders({ 'x-forwarded-for': '192.168.7.20' })
  await tablet.goto(outside)
  await expect(tablet.getByRole('alert').first()).toContainText('not known in the shop')
  expect(await tablet.evaluate(async () => (await fetch('/api/jobs')).status)).toBe(401)

  await known.goto(`${url}/shop`)
  const devices = known.getByRole('region', { name: 'Devices' })
  await devices.getByRole('button', { name: 'Pair a device' }).click()
  await expect(devices.getByRole('img', { name: /Code for pairing/ }).first()).toBeVisible()
  await expect(devices.getByText(outside).first()).toBeVisible()
  const code = (await devices.locator('.code').innerText()).replaceAll(' ', '')

  await tablet.goto(`${outside}/pair#${code}`)
  await expect(tablet.getByLabel('Code')).toHaveValue(code)
  expect(new URL(tablet.url()).hash).toBe('')
  await tablet.getByLabel('What it is called in the shop').fill('Tablet at stand 2')
  await tablet.getByRole('button', { name: 'Pair it' }).click()
  await expect(tablet.getByRole('button', { name: /Runa Holmsund/ })).toBeVisible()
  // out of reach of scripts
  expect(await tablet.evaluate(() => document.cookie)).toBe('')

  await known.reload()
  const row = devices.getByRole('listitem').filter({ hasText: 'Tablet at stand 2' })
  await row.getByRole('button', { name: 'let it in no more' }).click()
  await known.getByLabel('Reason').fill('it was lost')
  await known.getByRole('button', { name: 'Put it out' }).click()
  await expect(row).toContainText('let in no more')
  await tablet.reload()
  await expect(tablet.getByRole('alert').first()).toContainText('not known in the shop')
})

test('a name with a code: asked for once, before the first thing that is written', async ({ page }) => {
  await show(page, '/shop')
  const people = page.getByRole('region', { name: 'People' })
  await page.getByLabel('Who is working').selectOption('joar')
  await people.getByRole('button', { name: /Change Joar/ }).click()
  await people.getByRole('button', { name: 'Give a code' }).click()
  await people.getByLabel(/Code, four digits/).fill('4711')
  await people.getByRole('button', { name: 'Keep the code' }).click()
  await expect(people.getByText('with a code')).toBeVisible()

  await show(page, '/drawer')
  await page.getByRole('button', { name: 'Add a line' }).click()
  const dialog = page.getByRole('dialog', { name: 'A new line in the drawer' })
  await dialog.getByRole('textbox', { name: 'Measured thickness' }).fill('1.37mm')
  await dialog.getByLabel('Pieces').fill('2')
  await dialog.getByRole('button', { name: 'Add the line' }).click()
  const asked = page.getByRole('dialog', { name: /Code of Joar/ })
  await asked.getByLabel('Four digits').fill('0000')
  await asked.getByRole('button', { name: 'Go on' }).click()
  await expect(asked.getByText('That is not the code')).toBeVisible()
  await asked.getByLabel('Four digits').fill('4711')
  await asked.getByRole('button', { name: 'Go on' }).click()
  await expect(asked).toHaveCount(0)
  // what was typed is still there
  await dialog.getByRole('button', { name: 'Add the line' }).click()
  await expect(dialog).toHaveCount(0)
  await expect(page.getByText('1.370 mm').first()).toBeVisible()

  await show(page, '/shop')
  await people.getByRole('button', { name: /Change Joar/ }).click()
  await people.getByRole('button', { name: 'Another code' }).click()
  await people.getByRole('button', { name: 'Keep the code' }).click()
  await expect(people.getByText('with a code')).toHaveCount(0)
  await page.getByLabel('Who is working').selectOption('ylva')
})
