import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { complaints, PAGES } from '../pages.ts'

for (const [path, title] of PAGES) {
  test(`${path} opens without a complaint, is accessible by day and by night`, async ({ page }) => {
    const seen = complaints(page)
    await page.goto(path)
    await expect(page.getByRole('heading', { name: title }).first()).toBeVisible()
    if (path.includes('setting')) await expect(page.locator('.tag').first()).toBeVisible()
    await page.waitForLoadState('networkidle').catch(() => undefined)
    for (const night of [false, true]) {
      if (night) await page.getByRole('button', { name: 'Night' }).click()
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze()
      expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual(
        [],
      )
    }
    expect(seen).toEqual([])
  })
}
