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
