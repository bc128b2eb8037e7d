import { expect, test } from './test.ts'
import { show } from '../pages.ts'

test('what if: a stack is dragged, gear and readings move with it, and let go it is an idea only', async ({
  page,
}) => {
  await show(page, '/jobs/alke-lower/setting')
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

test(
  'a piece that is left out stays out of the plans, over a reload, until it is taken again',
  { tag: '@long' },
  async ({ page }) => {
    await show(page, '/jobs/alke-lower/setting?at=decide')
    // while it is searched, the best so far changes; then the plans stand
    await expect(page.getByText('this drawer holds no better one')).toBeVisible()
    const plan = page.locator('.plans .card.open')
    const without = (label: string) =>
      plan.getByRole('button', { name: `${label}: plan without it`, exact: true })
    const again = (label: string) => page.getByRole('button', { name: `Take ${label} again`, exact: true })
    let name = ''
    // other benches use the same drawer: what they take changes the plans while this one is looked at
    await expect(async () => {
      const piece = plan.getByRole('button', { name: /drawer: plan without it/ }).first()
      name = (await piece.getAttribute('aria-label', { timeout: 5000 }))!.replace(/: plan without it$/, '')
      await without(name).first().click({ timeout: 2000 })
      await expect(again(name)).toBeVisible({ timeout: 2000 })
    }).toPass()
    // the plans are asked for anew, without it
    await expect(plan.getByRole('button', { name: 'Build this' })).toBeVisible()
    await expect(without(name)).toHaveCount(0)
    await page.reload()
    await expect(again(name)).toBeVisible()
    await expect(plan.getByRole('button', { name: 'Build this' })).toBeVisible()
    await expect(without(name)).toHaveCount(0)
    await again(name).click()
    await expect(again(name)).toHaveCount(0)
  },
)

test('plans out of this case alone take nothing from the drawer', async ({ page }) => {
  await show(page, '/jobs/alke-lower/setting?at=decide')
  await page.getByText('Plans may use any stack, any piece').click()
  await page.getByLabel('Pieces from').selectOption({ label: 'this case alone' })
  await expect(page.getByText('Plans may use any stack, what came out of this case')).toBeVisible()
  await expect(page.locator('.plans .card.open .piece.case').first()).toBeVisible()
  await expect(page.locator('.plans .card.open .piece.drawer')).toHaveCount(0)
})

test('all plans stand side by side on the rulers, each by its rank', async ({ page }) => {
  await show(page, '/jobs/alke-lower/setting?at=decide')
  const cards = page.locator('.plans .card')
  await expect(cards.first()).toBeVisible()
  const count = await cards.count()
  expect(count).toBeGreaterThan(1)
  const ruler = page.locator('.rulers li', { hasText: 'Forward backlash' }).getByRole('img')
  // the one that is looked at is drawn large, the others by their numbers; another bench may take a piece meanwhile
  await expect(async () => {
    await cards.nth(0).getByRole('button').first().click({ timeout: 2000 })
    for (let i = 2; i <= count; i++)
      await expect(ruler).toHaveAccessibleName(new RegExp(`plan ${i} `), { timeout: 2000 })
    await expect(ruler).not.toHaveAccessibleName(/plan 1 /, { timeout: 2000 })
    await cards.nth(1).getByRole('button').first().click({ timeout: 2000 })
    await expect(ruler).toHaveAccessibleName(/plan 1 /, { timeout: 2000 })
    await expect(ruler).not.toHaveAccessibleName(/plan 2 /, { timeout: 2000 })
  }).toPass()
})
