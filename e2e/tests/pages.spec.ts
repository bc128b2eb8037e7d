import { expect, test } from './test.ts'
import { complaints, show } from '../pages.ts'

test('the search of the bench lives in the address', async ({ page }) => {
  await show(page, '/')
  await page.getByLabel('Find a job').fill('milky')
  await expect(page.locator('a.job')).toHaveCount(1)
  await expect(page).toHaveURL(/find=milky/)
  await page.reload()
  await expect(page.locator('a.job')).toHaveCount(1)
  await page.getByLabel('Find a job').fill('no such boat')
  await expect(page.getByText('No job matches')).toBeVisible()
})

test('the drawer takes a new line in bench notation and finds it by thickness', async ({ page }) => {
  await show(page, '/drawer')
  await page.getByRole('button', { name: 'Add a line' }).click()
  await page.getByLabel('Measured thickness', { exact: true }).fill('9t')
  await expect(page.locator('.said')).toContainText('0.229 mm · 9.0 t')
  await page.getByLabel('Pieces', { exact: true }).fill('3')
  await page.getByLabel('Tray').fill('E1')
  await page.getByRole('button', { name: 'Add the line' }).click()
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.getByLabel('Find a shim').fill('9t')
  await expect(page.locator('tbody tr', { hasText: 'E1' })).toContainText('0.229 mm')
  await page.getByRole('button', { name: /Change line 9t/ }).click()
  await page.getByText('Counted', { exact: true }).click()
  await page.getByLabel('Pieces counted').fill('2')
  await page.getByLabel('Reason').fill('one was bent')
  await page.getByRole('button', { name: 'Enter', exact: true }).click()
  await page.getByRole('button', { name: /Change line 9t/ }).click()
  await expect(page.getByRole('dialog')).toContainText('one was bent')
})

test('a shim typed as 22 in an inch shop is asked about within the page, and taken as what it means', async ({
  page,
}) => {
  await show(page, '/jobs/lomvi-skarv/setting')
  await page.getByLabel('Units that are read first').selectOption('imperial')
  await page.setViewportSize({ width: 360, height: 800 })
  const piece = page.getByLabel('Piece 1', { exact: true })
  await piece.fill('22')
  await expect(page.locator('.said')).toContainText('is 558.8 mm (22.0000 in); from 0 mm')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(360)
  await piece.press('Enter')
  await expect(page.getByRole('list', { name: 'Pieces so far' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Did you mean 22 thou?' }).click()
  await expect(page.getByRole('list', { name: 'Pieces so far' })).toContainText('0.0220 in · 0.559 mm')
})

test('a job that does not exist says so and offers a way on', async ({ page }) => {
  await show(page, '/jobs/nobody/setting')
  await expect(page.getByText('Job "nobody" does not exist')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Try again' })).toBeVisible()
  await show(page, '/no/such/place')
  await expect(page.getByText('Nothing lies here')).toBeVisible()
})

test('every place on the drawing leads to its measurement', async ({ page }) => {
  await show(page, '/jobs/duo-lower/setting')
  await page.locator('.tag', { hasText: 'Rear gear backlash' }).click()
  await expect(page.locator('.panel h2')).toHaveText('Rear gear backlash')
  await expect(page).toHaveURL(/at=measure:backlash-rear/)
  await page.locator('.tag', { hasText: 'Front shims' }).click()
  await expect(page.locator('.panel h2')).toContainText('Front shims as found')
})

test('stacks put together by hand show what they would read', { tag: '@long' }, async ({ page }) => {
  await show(page, '/jobs/havsule-upper/setting')
  await expect(page.locator('.card.open')).toBeVisible()
  await page.getByRole('button', { name: 'Put stacks together yourself' }).click()
  const own = page.locator('.own')
  await expect(own).toContainText('Lands in every window with')
  const tag = page.locator('.tag', { hasText: 'Lower gear backlash' }).locator('.value')
  const before = await tag.innerText()
  await own.getByLabel('Add a piece to Lower gear shims').click()
  await page.getByRole('option', { name: /0\.149 mm/ }).click()
  await expect(tag).not.toHaveText(before)
})

test('a sum takes bench notation, keeps its inputs in the address, and its result in the notebook', async ({
  page,
}) => {
  await show(page, '/sums')
  await page.getByLabel('Find a calculation').fill('adapter')
  await page.getByRole('link', { name: /Wrench setting/ }).click()
  const target = page.getByLabel('torque wanted at the fastener')
  await target.fill('27 ft-lb')
  const result = page.locator('.result')
  // 27 ft-lb = 36.607 Nm, times 420 / 510
  await expect(result).toContainText('30.1 Nm')
  await page.reload()
  await expect(result).toContainText('30.1 Nm')
  await page.getByRole('button', { name: 'Keep in the notebook' }).click()
  await expect(page.getByRole('region', { name: 'Notebook' })).toContainText('what to set: 30.1 Nm')
  await target.fill('36x')
  await expect(page.locator('.field', { hasText: 'torque wanted' })).toContainText(
    'character 3 "x" is not understood',
  )
  await target.fill('300')
  await expect(result).toContainText('needs a wrench with a full scale of 247 to 1235 Nm')
  await page.getByRole('region', { name: 'Notebook' }).getByRole('button').first().click()
  await expect(result).toContainText('30.1 Nm')
})

test('a calculation opens with an example that gives a result; what is better looked at is drawn', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const seen = complaints(page)
  const drawn: Record<string, RegExp> = {
    runout: /highest at \d+ degrees/,
    'leak-test': /verdict tight/,
    preload: /fit 1\.\d+ mm/,
    'tooth-contact': /Concave flank of the gear: centre/,
    'pattern-read': /Drive flank, as seen/,
    'lock-alignment': /6 tabs meet a slot/,
    'torque-adapter': /Set the wrench to 49\.4/,
    'torque-order': /Order: 1, 5, 3/,
  }
  await show(page, '/sums/judge')
  await expect(page.locator('.picture .ruler')).toBeVisible()
  const links = page.locator('nav[aria-label="Calculations"] a')
  await expect(links).toHaveCount(31)
  // from one to the next, as somebody would who looks for a sum
  for (const link of await links.all()) {
    const name = (await link.getAttribute('href'))!.replace('/sums/', '')
    await link.click()
    await expect(page).toHaveURL(new RegExp(`/sums/${name}`))
    await expect(page.locator('.result dl > div').first(), name).toBeVisible()
    await expect(page.locator('.result .fault'), name).toHaveCount(0)
    if (!drawn[name]) continue
    const picture = page.locator('.picture').getByRole('img', { name: drawn[name] })
    await expect(picture, name).toBeVisible()
    expect((await picture.boundingBox())!.height, name).toBeGreaterThan(80)
    delete drawn[name]
  }
  expect(Object.keys(drawn)).toEqual([])
  expect(seen).toEqual([])
})

test('a sum with several ways of asking changes its fields', async ({ page }) => {
  await show(page, '/sums/depth')
  await expect(page.locator('.result')).toContainText('38.403')
  await page.getByText('feeler to a block', { exact: true }).click()
  await page.getByLabel('clearance by feeler').fill('70h')
  await page.getByLabel('nominal clearance of the block').fill('.64')
  await page.getByLabel('depth that the nominal clearance stands for').fill('41.2')
  await expect(page.locator('.result')).toContainText('41.26')
})

test('a page that is gone after an upgrade says so, and leads on', async ({ page }) => {
  await page.goto('/')
  // as after an upgrade: the file of a page that was not looked at yet has another name by now
  await page.route('**/assets/SumsPage*', (route) => route.fulfill({ status: 404, body: 'Not here.' }))
  await page.getByRole('link', { name: 'Sums' }).click()
  const said = page.getByRole('alert').filter({ hasText: 'could not be loaded' })
  await expect(said).toContainText('What you typed is still there')
  await page.unrouteAll({ behavior: 'ignoreErrors' })
  await said.getByRole('link', { name: 'Load the page anew' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page).toHaveURL(/\/sums/)
})
