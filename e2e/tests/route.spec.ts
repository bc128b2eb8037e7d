import { expect, test, type Page } from './test.ts'
import { show } from '../pages.ts'

const panel = (page: Page) => page.locator('.panel')
const heading = (page: Page, name: string | RegExp) => panel(page).getByRole('heading', { name })
const done = (page: Page) =>
  panel(page)
    .getByRole('button', { name: /next step/ })
    .click()

/** The smallest picture there is: one grey pixel. */
const PICTURE = {
  name: 'seen.png',
  mimeType: 'image/png',
  buffer: Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  ),
}

test('a drive that is known comes in, is identified, and a slip is stopped with its words', async ({
  page,
}) => {
  // the drive is found only after its number was entered and left
  await page.route('**/api/units*', async (r) => {
    await new Promise((done) => setTimeout(done, 1200))
    await r.continue()
  })
  await show(page, '/')
  await page.getByRole('button', { name: 'A drive comes in' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Open the job' }).click()
  await expect(dialog.getByText('is empty; write something').first()).toBeVisible()
  await dialog.getByLabel('Serial number').fill('LV90-19960')
  await dialog.getByLabel('Serial number').blur()
  await expect(dialog.getByLabel('Boat')).toHaveValue('Sild')
  await dialog.getByLabel('Complaint').fill('Yearly look, shifts stiffly')
  await dialog.getByRole('button', { name: 'Open the job' }).click()

  await expect(heading(page, 'Receive it and hear what it is here for')).toBeVisible()
  await panel(page).getByText('never', { exact: true }).click()
  // interrupted: what was answered is there after a reload
  const kept = page.waitForResponse(
    (r) => r.url().endsWith('/draft') && r.ok() && !!r.request().postData()?.includes('"in.struck"'),
  )
  await panel(page).getByText('no', { exact: true }).click()
  await kept
  await page.reload()
  await expect(panel(page).locator('label.on', { hasText: 'never' })).toBeVisible()
  await expect(panel(page).locator('label.on', { hasText: /^\s*no\s*$/ })).toBeVisible()
  // a foot switch is an Enter key
  await panel(page)
    .getByRole('button', { name: /next step/ })
    .press('Enter')

  await expect(heading(page, 'Identify drive and variant')).toBeVisible()
  // said before it is asked: which code this sheet is for
  await expect(panel(page).getByLabel('What to do')).toContainText('This sheet is for L13')
  await panel(page).locator('label', { hasText: 'L13 (' }).click()
  await done(page)

  await expect(heading(page, 'Count the ratio')).toBeVisible()
  await panel(page).getByLabel('Turns at the input').fill('20')
  await panel(page)
    .getByLabel(/Turns at the output/)
    .fill('10')
  // what was counted is taken as it is; nothing is bought on it
  await done(page)
  await expect(heading(page, 'Lay out tools')).toBeVisible()
  await page.getByRole('button', { name: /^Parts/ }).click()
  await page.getByRole('button', { name: /Estimate, and the owner decides/ }).click()
  await expect(panel(page)).toContainText('another ratio is on it')
  await page.getByRole('button', { name: /^Receive/ }).click()

  // back to what was done: it can be read, and done again with a reason
  await page.getByRole('button', { name: /Identify drive and variant/ }).click()
  await expect(panel(page)).toContainText('L13 (13 : 28)')
  await panel(page).getByRole('button', { name: 'Do it again' }).click()
  // what was done beside it stands on nothing of it
  await expect(page.getByRole('dialog')).toContainText('It is done again')
  await page.getByLabel('Reason').fill('read the wrong plate')
  await page.getByRole('dialog').getByRole('button', { name: 'Do it again' }).click()
  await expect(heading(page, 'Identify drive and variant')).toBeVisible()
  await expect(panel(page).locator('label', { hasText: 'L13 (' })).toBeVisible()
})

test('the row grows part by part, holds what cannot come out yet, and opens the gate', async ({ page }) => {
  await show(page, '/jobs/rordrum/route')
  await expect(panel(page)).toContainText('Parts that this job takes off are still in the case')
  await expect(panel(page).getByRole('button', { name: /next step/ })).toBeDisabled()
  await panel(page).getByRole('link', { name: 'To the row' }).click()
  const field = page.getByLabel('Off now: scan, type or tap')
  await field.fill('Input gear with its shaft')
  await expect(page.getByText('Not yet: Input carrier must be off first')).toBeVisible()
  await field.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Do not force it')
  for (const name of [
    'Lock screws of the input carrier',
    'Input seal',
    'Gaskets of fill and drain',
    'Input carrier',
    'O-ring of the input carrier',
  ]) {
    await field.fill(name)
    await field.press('Enter')
    await expect(field).toHaveValue('')
  }
  await expect(page.locator('.row li')).toHaveCount(14)
  await field.fill('input gear')
  await page.getByLabel('How it lay').selectOption('teeth up')
  await page.getByLabel('Ink').fill('one dot')
  await page.getByRole('button', { name: 'Into the row' }).click()
  const gear = page.locator('.row li', { hasText: 'Input gear with its shaft' })
  await expect(gear).toContainText('ink one dot')
  const place = async () => Number(await gear.locator('.grip').innerText())
  const before = await place()
  await gear.getByRole('button', { name: /earlier in the row/ }).click()
  await expect.poll(place).toBe(before - 1)
  // the same with the hand: by its number, onto the place of the first
  await gear.locator('.grip').dragTo(page.locator('.row li').first().locator('.grip'))
  await expect.poll(place).toBeLessThanOrEqual(2)
  await field.fill('Input taper pair')
  await field.press('Enter')
  await expect(page.getByRole('region', { name: 'Still in the case' })).toBeHidden()
  await page.getByRole('link', { name: 'Route', exact: true }).click()
  await panel(page).getByText('freely', { exact: true }).click()
  await done(page)
  await expect(heading(page, 'Account for every piece of metal')).toBeVisible()
})

test('a part is graded against the rule, with a reason that stays', async ({ page }) => {
  await show(page, '/jobs/teist-bent/parts?view=grades&part=front-ball')
  await page.getByText('pits, spalls or dents').click()
  await expect(page.locator('.proposal')).toContainText('replace')
  await page.locator('.one-of label', { hasText: /^\s*keep\s*$/ }).click()
  await expect(page.getByText('That departs from the proposal')).toBeVisible()
  await page.getByLabel('Reason').fill('one dent outside the track, looked at with a lens')
  await page.getByRole('button', { name: /Grade it/ }).click()
  await show(page, '/jobs/teist-bent/record')
  const row = page.locator('tr', { hasText: 'one dent outside the track' })
  // kept parts need no line of their own, but one that was graded before shows both
  await expect(page.getByRole('region', { name: 'Parts' })).toBeVisible()
  await expect(row).toHaveCount(0)
  await show(page, '/jobs/teist-bent/parts?view=grades&part=front-ball')
  await expect(page.locator('.older')).toContainText('keep, same way round')
})

test('the owner decides on the estimate, and the route follows', async ({ page }) => {
  await show(page, '/jobs/teist-bent/parts?view=estimate')
  await expect(page.getByRole('region', { name: 'To buy' })).toContainText('Shaft and gears')
  await expect(page.getByRole('region', { name: 'Above the money' })).toContainText(
    'replaced, not straightened',
  )
  await page.locator('.decision').getByText('exchange unit').click()
  await page.getByLabel('How it was said').fill('by telephone')
  await page.getByRole('button', { name: 'Record the decision' }).click()
  await expect(page.locator('.decision')).toContainText('exchange unit, by telephone')
  await page.getByRole('link', { name: 'Route', exact: true }).click()
  // the unit that comes is looked over and proved like any other; nothing of the rebuild is left
  await expect(heading(page, 'Look over the unit that came')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Press/ })).toHaveCount(0)
})

test('what is found moves the causes, and what it was is kept', async ({ page }) => {
  await show(page, '/jobs/lomvi-teist/faults')
  const first = page.getByRole('region', { name: 'Causes' }).locator('li').first()
  await expect(first).toContainText('Propeller shaft seal')
  const turning = page.locator('.findings li', { hasText: 'only while the propeller shaft turns' })
  await turning.getByText('no', { exact: true }).click()
  await expect(turning).toHaveClass(/not/)
  const still = page.locator('.findings li', { hasText: 'with everything still' })
  await still.getByText('yes', { exact: true }).click()
  await expect(first.locator('.small').first()).toContainText('pressure falls with everything still')
  await page.getByLabel('What it turned out to be').selectOption({ label: 'Carrier O-ring' })
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('region', { name: 'What it was' })).toContainText('Carrier O-ring')
})

test('a picture is taken at a step, shown in full, and stands in the record', async ({ page }) => {
  await show(page, '/jobs/alke-cool/route')
  await page.locator('.middle input[type=file]').setInputFiles(PICTURE)
  const thumb = page.getByRole('button', { name: /full size/ })
  await expect(thumb).toBeVisible()
  await thumb.click()
  const full = page.getByRole('dialog').getByRole('img')
  await expect.poll(() => full.evaluate((i) => (i as HTMLImageElement).naturalWidth)).toBe(1)
  await page.keyboard.press('Escape')
  await show(page, '/jobs/alke-cool/record')
  await expect(page.getByRole('region', { name: 'Pictures' }).getByRole('img')).toBeVisible()
  await show(page, '/jobs/alke-cool/route')
  await page
    .locator('.middle input[type=file]')
    .setInputFiles({ ...PICTURE, buffer: Buffer.from('no picture') })
  await expect(page.locator('.middle').getByRole('alert')).toContainText('that can be read whole')
})

test('going on all the same takes a reason and stays to be read', async ({ page }) => {
  await show(page, '/jobs/duo-lower/route')
  await expect(heading(page, 'Grease splines')).toBeVisible()
  await expect(panel(page)).toContainText('Hold point')
  // a hold point does not close blind
  await done(page)
  await expect(panel(page).getByRole('alert').first()).toContainText('What you see')
  await panel(page).getByRole('button', { name: 'Go on all the same' }).click()
  await page.getByLabel('Reason').fill('hole drilled through, nothing can be trapped')
  await page.getByRole('dialog').getByRole('button', { name: 'Go on' }).click()
  await expect(heading(page, 'Grease splines')).toBeHidden()
  await show(page, '/jobs/duo-lower/record')
  await expect(page.getByRole('region', { name: 'Steps' })).toContainText(
    'Gone on all the same: hole drilled through',
  )
})

test('closing stays shut over parts on the bench, and says which', async ({ page }) => {
  await show(page, '/jobs/alke-upper/parts?view=row')
  await page.getByText('building back').click()
  const shims = page.locator('.row li', { hasText: 'Input shims' })
  await shims.getByRole('button', { name: /back into the row/ }).click()
  await page.getByLabel('Reason').fill('to be measured again')
  await page.getByRole('dialog').getByRole('button', { name: 'Back into the row' }).click()
  await expect(page.getByRole('region', { name: 'Next to go in' })).toContainText('Input shims')
  await show(page, '/jobs/lomvi-skarv/route?step=inside')
  await expect(panel(page)).toContainText('Parts that belong inside still lie in the row')
  await expect(panel(page).getByRole('button', { name: /next step/ })).toBeDisabled()
})

test('the shop’s way decides which step there is, and the step sheet prints', async ({ page }) => {
  await show(page, '/shop')
  // a technician is told that this is for the lead
  await page.locator('fieldset', { hasText: 'Filling with oil' }).getByText('on the stand').click()
  await expect(page.getByRole('alert')).toContainText('for the lead')
  await page.getByLabel('Who is working').selectOption('runa')
  await page.locator('fieldset', { hasText: 'Filling with oil' }).getByText('on the stand').click()
  await expect(page.locator('fieldset', { hasText: 'Filling with oil' })).toContainText("the shop's choice")
  await show(page, '/jobs/lomvi-skarv/sheet')
  await expect(page.locator('.paper')).toContainText('Fill with oil, on the stand')
  await expect(page.locator('.paper')).not.toContainText('Fill with oil, mounted')
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('header.bar')).toBeHidden()
  const over = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  )
  expect(over).toBeLessThanOrEqual(0)
  await page.emulateMedia({ media: 'screen' })
  await show(page, '/shop')
  await page.locator('fieldset', { hasText: 'Filling with oil' }).getByText('after mounting').click()
})
