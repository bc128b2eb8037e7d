import { expect, test } from '@playwright/test'

test('what if: a stack is dragged, gear and readings move with it, and let go it is an idea only', async ({
  page,
}) => {
  await page.goto('/jobs/alke-lower/setting')
  await expect(page.locator('.card.open')).toBeVisible()
  await page.getByRole('button', { name: 'What if: move a stack and see' }).click()
  const what = page.getByRole('region', { name: 'What if' })
  // the coupling is said in words
  await expect(what).toContainText('more moves pinion depth by')
  const gears = () =>
    page
      .locator('svg polygon.gear-body')
      .evaluateAll((all) => all.map((p) => p.getAttribute('points')).join(' '))
  const tag = () => page.locator('.tag', { hasText: 'Forward backlash' }).locator('.value').innerText()
  const [before, read] = [await gears(), await tag()]
  await what.getByLabel('Forward shims', { exact: true }).fill('0.95')
  await expect.poll(gears).not.toBe(before)
  await expect.poll(tag).not.toBe(read)
  await expect(page.locator('.factors')).toContainText('gear travel ×25')
  await what.getByRole('button', { name: 'Back to what is built' }).click()
  await expect.poll(tag).toBe(read)
  // nothing of it was built
  await page.reload()
  await expect(page.locator('.round.open .name')).toContainText('Trial 2')
})

test('a piece that is left out stays out of the plans, over a reload, until it is taken again', async ({
  page,
}) => {
  await page.goto('/jobs/alke-lower/setting?at=decide')
  const plan = page.locator('.card.open').first()
  const piece = plan.getByRole('button', { name: /drawer: plan without it/ }).first()
  const name = (await piece.getAttribute('aria-label'))!.replace(/: plan without it$/, '')
  const same = page.locator('.card.open').getByRole('button', { name: `${name}: plan without it` })
  await piece.click()
  await expect(page.getByRole('button', { name: `Take ${name} again` })).toBeVisible()
  // the plans are asked for anew, without it
  await expect(plan.getByRole('button', { name: 'Build this' })).toBeVisible()
  await expect(same).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('button', { name: `Take ${name} again` })).toBeVisible()
  await expect(plan.getByRole('button', { name: 'Build this' })).toBeVisible()
  await expect(same).toHaveCount(0)
  await page.getByRole('button', { name: `Take ${name} again` }).click()
  await expect(same.first()).toBeVisible()
})

test('plans out of this case alone take nothing from the drawer', async ({ page }) => {
  await page.goto('/jobs/alke-lower/setting?at=decide')
  await expect(page.locator('.card.open').first()).toBeVisible()
  await page.getByText('Plans may use any stack, any piece').click()
  await page.getByLabel('Pieces from').selectOption({ label: 'this case alone' })
  await expect(page.getByText('Plans may use any stack, what came out of this case')).toBeVisible()
  await expect(page.locator('.card.open .piece.drawer')).toHaveCount(0)
  await expect(page.locator('.card.open .piece.case').first()).toBeVisible()
})

test('all plans stand side by side on the rulers, each by its rank', async ({ page }) => {
  await page.goto('/jobs/alke-lower/setting?at=decide')
  const cards = page.locator('.plans .card')
  await expect(cards.first()).toBeVisible()
  const count = await cards.count()
  expect(count).toBeGreaterThan(1)
  const ruler = page.locator('.rulers li', { hasText: 'Forward backlash' }).getByRole('img')
  // the one that is looked at is drawn large, the others by their numbers
  for (let i = 2; i <= count; i++) await expect(ruler).toHaveAccessibleName(new RegExp(`plan ${i} `))
  await expect(ruler).not.toHaveAccessibleName(/plan 1 /)
  await cards.nth(1).getByRole('button').first().click()
  await expect(ruler).toHaveAccessibleName(/plan 1 /)
  await expect(ruler).not.toHaveAccessibleName(/plan 2 /)
})
