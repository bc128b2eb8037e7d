import { counted, countIn, seconds } from './counting.ts'
import { expect, test, type Page } from './test.ts'

/** From an empty shop to the first proposed stack on a drive typed in from scratch: nothing is there but the person and his manual, in inches. */

const tap = async (page: Page, name: string | RegExp) => {
  await page.getByRole('button', { name }).click()
}
const open = async (page: Page, name: string) => {
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name, exact: true }).click()
}

/** A figure of the sheet, as the manual prints it; what it is understood as stands beside it. */
async function figure(page: Page, label: string | RegExp, text: string, understood: string | RegExp) {
  const field = page.getByLabel(label, { exact: typeof label === 'string' })
  await field.fill(text)
  const row = page.locator('.figure', { has: field })
  await expect(row.locator('.said')).toContainText(understood)
  await field.press('Enter')
  await expect(row).toHaveClass(/there/)
}
async function choose(page: Page, group: string, option: string) {
  const row = page.locator('.figure', { has: page.getByRole('group', { name: group, exact: true }) })
  await row.locator('label', { hasText: option }).click()
  await expect(row).toHaveClass(/there/)
}
const group = (page: Page, name: RegExp) => {
  return page
    .getByRole('navigation', { name: 'Groups of figures' })
    .getByRole('button', { name })
    .first()
    .click()
}

test('an empty shop: a drive typed in from scratch in inches, by the manual’s rules alone, to the first proposed stack', async ({
  another,
  server,
}) => {
  test.setTimeout(400_000)
  const url = await server({ MORAY_DEMO: 'off' })
  const page = await another()
  await page.goto(url)
  await countIn(page)
  await page.getByLabel('Your name').fill('Iselin Vik')
  await page.getByText('inches, ft-lb, psi').click()
  await page.getByLabel('Name of the shop').fill('Vik Drives')
  await page.getByLabel('Currency').fill('NOK')
  await page.getByLabel('Stands').fill('Bench, Rack')
  // what is refused after the name was taken is said, and nothing that was typed is lost
  const refused = { error: { code: 'busy', message: 'Not taken this time.', fields: [] } }
  await page.route('**/api/shop/rules', (r) => r.fulfill({ status: 422, json: refused }), { times: 1 })
  await tap(page, 'Begin')
  await expect(page.getByRole('alert')).toContainText('Not taken this time')
  await expect(page.getByLabel('Currency')).toHaveValue('NOK')
  await tap(page, 'Begin')
  await expect(page.getByLabel('Units that are read first')).toHaveValue('imperial')

  // two gauges, with the figures that are proposed for them
  await open(page, 'Gauges')
  for (const [kind, name] of [
    ['backlash-arm', 'Arm and inch dial'],
    ['feeler-set', 'Feelers'],
  ]) {
    await tap(page, 'Add a gauge')
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('What it is').selectOption(kind!)
    await dialog.getByLabel('What you call it').fill(name!)
    await dialog.getByLabel('Last calibrated on').fill('2026-06-01')
    await tap(page, 'Add the gauge')
    await expect(dialog).toHaveCount(0)
  }

  // shims out of the maker's box
  await open(page, 'Drawer')
  for (const text of ['.002', '.003', '.005', '.010']) {
    await tap(page, 'Add a line')
    const dialog = page.getByRole('dialog')
    await dialog.getByRole('textbox', { name: 'Measured thickness' }).fill(text)
    await dialog.getByLabel('Pieces').fill('10')
    await dialog.getByRole('button', { name: 'Add the line' }).click()
    await expect(dialog).toHaveCount(0)
  }

  // half a minute: name and family
  await open(page, 'Drives')
  await expect(page.getByText('No drive is known here yet')).toBeVisible()
  await tap(page, 'A drive of your own')
  await page.getByLabel('What you call it').fill('Kobbe 40')
  await page.getByLabel(/The manual in front of you/).fill('Kobbe service book')
  await tap(page, 'Begin its sheet')
  await expect(page.getByRole('heading', { name: 'Kobbe 40' })).toBeVisible()
  await expect(page.getByRole('img', { name: /Section of Kobbe 40/ })).toBeVisible()

  // in the order of the manual
  await figure(page, 'Pinion: teeth', '12', '12 teeth')
  await figure(page, 'Forward gear: teeth', '26', '26 teeth')
  await figure(page, 'Reverse gear: teeth', '26', '26 teeth')
  await group(page, /Depth, backlash/)
  await page.getByLabel('Page', { exact: true }).fill('31')
  await choose(page, 'Pinion depth: measured with', 'a block and feelers')
  await figure(page, /clearance at the nominal depth/, '.025in', '0.635 mm')
  await figure(page, /nominal depth, from the middle/, '1.5', '38.100 mm')
  await figure(page, 'Pinion depth', '1.499 to 1.501', '38.075 to 38.125 mm')
  // upside down is said at the place, and kept there
  const backlash = page.getByLabel('Forward backlash', { exact: true })
  await backlash.fill('.022 to .015')
  await expect(page.locator('.figure', { has: backlash })).toContainText('is upside down')
  await figure(page, 'Forward backlash', '.015 to .022', '0.381 to 0.559 mm')
  await figure(page, 'Reverse backlash', '.030-.045in', '0.762 to 1.143 mm')
  await group(page, /Stacks/)
  await choose(page, 'Pinion shims: a thicker stack pushes the pinion', 'into the mesh')
  await choose(page, 'Forward shims: a thicker stack pushes the forward gear', 'into the mesh')
  await choose(page, 'Reverse shims: a thicker stack pushes the reverse gear', 'into the mesh')
  await figure(page, /Pinion shims, 1 mm or 1 in thicker: forward/, '-.020/.025', '-0.8')
  await figure(page, /Pinion shims, 1 mm or 1 in thicker: reverse/, '-.020/.025', '-0.8')
  await figure(page, /Forward shims, 1 mm or 1 in thicker/, '-1.2', '-1.2')
  // a rule that contradicts its stack is said at once
  const last = page.getByLabel(/Reverse shims, 1 mm or 1 in thicker/)
  await figure(page, /Reverse shims, 1 mm or 1 in thicker/, '1.2', '1.2')
  await expect(page.locator('.figure', { has: last })).toContainText('upside down')
  await figure(page, /Reverse shims, 1 mm or 1 in thicker/, '-1.2', '-1.2')
  await expect(page.locator('.abilities li.ready', { hasText: 'Setting' })).toBeVisible()
  // what was typed is on the server: it is there after a reload, with its page
  await page.reload()
  await expect(page.getByLabel(/Forward shims, 1 mm or 1 in thicker/)).toHaveValue('-1.2')
  await tap(page, 'Check and publish')
  await expect(page.getByRole('dialog')).toContainText('Ready: setting')
  await tap(page, 'Publish it')
  await expect(page.getByText(/version 1$/)).toBeVisible()

  // the drive on the bench
  await open(page, 'Bench')
  await tap(page, 'A drive comes in')
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Serial number').fill('KB-1')
  await dialog.getByLabel('Drive').selectOption('kobbe-40')
  await dialog.getByLabel('Boat').fill('Terna')
  await dialog.getByLabel('Owner').fill('Vik')
  await dialog.getByLabel('Complaint').fill('Whines in forward')
  await tap(page, 'Open the job')
  await expect(
    page.locator('.panel').getByRole('heading', { name: 'Receive it and hear what it is here for' }),
  ).toBeVisible()
  await page.getByRole('navigation', { name: 'Job' }).getByRole('link', { name: 'Setting' }).click()

  const panel = page.locator('.panel')
  const field = panel.locator('input.text')
  for (const [stack, pieces] of [
    ['Pinion shims', ['.010', '.010', '.005']],
    ['Forward shims', ['.010', '.010', '.010']],
    ['Reverse shims', ['.010', '.010']],
  ] as const) {
    await expect(panel.getByRole('heading', { name: stack })).toBeVisible()
    for (const [i, text] of pieces.entries()) {
      await field.fill(text)
      await field.press('Enter')
      await expect(panel.locator('.pieces li')).toHaveCount(i + 1)
    }
    await tap(page, 'Stack is complete')
  }
  for (const [measure, readings] of [
    ['Pinion depth', ['.025', '.025', '.0255']],
    ['Forward backlash', ['.030', '.0305', '.030']],
    ['Reverse backlash', ['.038', '.0385', '.038']],
  ] as const) {
    await expect(panel.getByRole('heading', { name: measure })).toBeVisible()
    // of the two gauges in the shop the one that is made for it, not the one that comes first
    const suits = measure === 'Pinion depth' ? 'Feelers' : 'Arm and inch dial'
    await expect(panel.getByRole('combobox', { name: 'Gauge' })).toHaveText(suits)
    for (const [i, text] of readings.entries()) {
      await field.fill(text)
      await field.press('Enter')
      if (i < 2) await expect(panel.locator('.readings li')).toHaveCount(i + 1)
    }
  }
  await expect(panel.getByRole('heading', { name: /best plans|One plan/ })).toBeVisible()
  // rule-only: forward backlash is 0.0082 in above its middle and its own stack takes 1.2 for 1, so that stack grows
  const plan = panel.locator('.card').first()
  await expect(plan).toContainText('Forward shims')
  const all = await counted(page)
  test.info().annotations.push({ type: 'counted', description: `${JSON.stringify(all)}: ${seconds(all)} s` })
  expect(seconds(all)).toBeLessThan(240)
})
