import { expect, test } from './test.ts'
import { show } from '../pages.ts'

test('a gauge of one’s own: added in inches, read with, and out of use', async ({ page }) => {
  await show(page, '/gauges')
  await page.getByLabel('Units that are read first').selectOption('imperial')
  await page.getByRole('button', { name: 'Add a gauge' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('What it is').selectOption('backlash-arm')
  // what is missing is said, and nothing that was typed is lost
  await dialog.getByLabel('Smallest step it shows').fill('half')
  await dialog.getByRole('button', { name: 'Add the gauge' }).click()
  await expect(dialog.getByText('it needs a name')).toBeVisible()
  await expect(dialog.getByText(/"half"/)).toBeVisible()
  await dialog.getByLabel('What you call it').fill('Feeler set')
  // a bare number is in inches
  await dialog.getByLabel('Smallest step it shows').fill('.0005')
  await dialog.getByLabel('Permissible error').fill('1t')
  await dialog.getByLabel('Last calibrated on').fill('2026-03-01')
  await dialog.getByRole('button', { name: 'Add the gauge' }).click()
  await expect(dialog.getByText('is there already')).toBeVisible()
  await dialog.getByLabel('What you call it').fill('Arm with inch dial')
  await dialog.getByRole('button', { name: 'Add the gauge' }).click()
  await expect(dialog).toHaveCount(0)
  const row = page.getByRole('row', { name: /Arm with inch dial/ })
  await expect(row).toContainText('0.50 t · 0.0127 mm')
  await expect(row).toContainText('± 1.00 t · 0.0254 mm')

  // it is there to be chosen; once it is out of use it is not
  const choices = async () => {
    await show(page, '/jobs/rordrum/setting?at=measure:backlash')
    await page.getByRole('combobox', { name: 'Gauge' }).click()
    return page.getByRole('option', { name: 'Arm with inch dial' })
  }
  await expect(await choices()).toBeVisible()
  await show(page, '/gauges')
  await row.getByRole('button', { name: 'Change Arm with inch dial' }).click()
  await dialog.getByText('Take it out of use').click()
  await dialog.getByRole('button', { name: 'Enter' }).click()
  await expect(dialog.getByText('say it in a few words')).toBeVisible()
  await dialog.getByLabel('Why').fill('it fell')
  await dialog.getByRole('button', { name: 'Enter' }).click()
  await expect(row).toContainText('out of use')
  await expect(await choices()).toHaveCount(0)
  await show(page, '/gauges')
  await row.getByRole('button', { name: 'Change Arm with inch dial' }).click()
  await expect(dialog).toContainText('Arm with inch dial takes no more readings: it fell')
  await page.keyboard.press('Escape')
  await page.getByLabel('Units that are read first').selectOption('metric')
})

test('people: the lead adds one and takes one away; a technician is told whose it is', async ({ page }) => {
  await show(page, '/shop')
  const people = page.getByRole('region', { name: 'People' })
  const who = page.getByLabel('Who is working')
  await people.getByLabel('Somebody new').fill('Åse Lien')
  await people.getByRole('button', { name: 'Add' }).click()
  await expect(people.getByRole('alert')).toContainText('is for the lead of this shop')
  await who.selectOption('runa')
  await people.getByRole('button', { name: 'Add' }).click()
  await expect(people.getByText('Åse Lien')).toBeVisible()
  await expect(who.getByRole('option', { name: 'Åse Lien' })).toHaveCount(1)
  await people.getByRole('button', { name: 'Change Åse Lien' }).click()
  await people.getByRole('button', { name: 'Works here no more' }).click()
  await expect(people.getByRole('listitem').filter({ hasText: 'Åse Lien' })).toContainText(
    'works here no more',
  )
  await expect(who.getByRole('option', { name: 'Åse Lien' })).toHaveCount(0)
  // a shop keeps its lead
  await people.getByRole('button', { name: 'Change Runa Holmsund' }).click()
  await people.getByRole('button', { name: 'Works here no more' }).click()
  await expect(people.getByRole('alert')).toContainText('is the only lead')
})

test(
  'seals, joints and cautions of a sheet are entered, said when something is missing, and stay',
  { tag: '@long' },
  async ({ page }) => {
    const made = await page.request.post('/api/drives', {
      headers: { 'x-moray-person': 'ylva', 'x-request-id': crypto.randomUUID() },
      data: { name: 'Teist 60', family: 'outboard-fnr' },
    })
    expect(made.status()).toBe(201)
    await show(page, '/drives/teist-60/draft?at=others')
    const dialog = page.getByRole('dialog')
    const kept = () => page.waitForResponse((r) => r.url().endsWith('/rows/several') && r.ok())
    const seals = page.getByRole('region', { name: 'Seals', exact: true })
    await seals.getByRole('button', { name: 'Add a seal' }).click()
    await page.keyboard.type('Outer seal')
    await page.keyboard.press('Enter')
    // what is missing is said once the hand has left the line, and nothing that was typed is lost
    await expect(seals.getByRole('alert')).toHaveText('is needed')
    await page.keyboard.press('ArrowUp')
    await expect(page.locator('input:focus')).toHaveValue('Outer seal')
    await page.keyboard.press('Tab')
    await page.keyboard.type('in the c')
    for (const text of ['', '25 × 35 × 7', 'two']) {
      await page.keyboard.press('Tab')
      await page.keyboard.type(text)
    }
    await expect(seals.getByText('a whole number from 1 to 9')).toBeVisible()
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type('2')
    await page.keyboard.press('Tab')
    await page.keyboard.type('to the w')
    let saved = kept()
    await page.keyboard.press('Enter')
    await saved
    const seal = seals.getByRole('row', { name: /Outer seal/ })
    await expect(seal).toContainText('to the water')

    const props = page.getByRole('region', { name: 'Propellers' })
    const three = props.getByRole('row', { name: /Propeller/ }).first()
    await three.getByRole('cell').nth(3).click()
    await page.keyboard.type('castle')
    saved = kept()
    await page.keyboard.press('Enter')
    await saved
    await expect(three).toContainText('castle nut and split pin')

    const places = page.getByRole('region', { name: 'Places and cautions' })
    await places.getByRole('button', { name: 'Change them' }).click()
    await dialog.getByLabel('Cautions, one a line').fill('The tube is thin\nNo heat near the seals')
    await dialog.getByRole('button', { name: 'Keep it' }).click()
    await page.reload()
    await expect(places).toContainText('No heat near the seals')
    await seal.getByRole('button').first().click()
    await seals.getByRole('button', { name: 'Strike out' }).click()
    await dialog.getByRole('button', { name: 'Strike it out' }).click()
    await expect(seals).toContainText('Size, order and spring side')
  },
)
