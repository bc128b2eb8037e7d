import { expect, test } from '@playwright/test'
import { PAGES } from '../pages.ts'

for (const [path, title] of PAGES) {
  test(`${path} fits 360 px, and 200 % zoom`, async ({ page }) => {
    for (const size of [
      { width: 360, height: 740 },
      // 1280 × 800 at 200 % is a page of 640 × 400
      { width: 640, height: 400 },
    ]) {
      await page.setViewportSize(size)
      await page.goto(path)
      await expect(page.getByRole('heading', { name: title }).first()).toBeVisible()
      await page.waitForTimeout(300)
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      )
      expect(over, `${size.width} px`).toBeLessThanOrEqual(0)
    }
  })
}
