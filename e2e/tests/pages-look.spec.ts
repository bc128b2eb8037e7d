import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { complaints, PAGES } from '../pages.ts'

// nothing of it depends on the order
test.describe.configure({ mode: 'parallel' })

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']

/** Only what is wrong is gathered in full; the rest is counted. */
const axe = (page: Page) => new AxeBuilder({ page }).options({ resultTypes: ['violations'] })

async function violations(builder: AxeBuilder): Promise<string[]> {
  const { violations: found } = await builder.analyze()
  return found.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)
}

/** How far the page is wider than its window, once it has been laid out. */
const overflow = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((done) =>
        requestAnimationFrame(() =>
          requestAnimationFrame(() =>
            done(document.documentElement.scrollWidth - document.documentElement.clientWidth),
          ),
        ),
      ),
  )

for (const [path, title] of PAGES)
  test(`${path} opens without a complaint, is accessible by day and by night, fits 360 px and 200 % zoom`, async ({
    page,
  }) => {
    // a draft is begun before it can be looked at; a second test finds it there
    if (path.includes('/draft'))
      await page.request.post(`${new URL(path, 'http://x').pathname}`.replace('/drives', '/api/drives'), {
        headers: { 'x-moray-person': 'runa' },
        data: { anew: false },
      })
    const seen = complaints(page)
    await page.goto(path)
    await expect(page.getByRole('heading', { name: title }).first()).toBeVisible()
    if (path.includes('setting')) await expect(page.locator('.tag').first()).toBeVisible()
    expect(await violations(axe(page).withTags(TAGS))).toEqual([])
    // the night changes colours and nothing else
    await page.getByRole('button', { name: 'Night' }).click()
    await expect(page.locator('html')).toHaveClass(/night/)
    expect(await violations(axe(page).withRules(['color-contrast']))).toEqual([])
    for (const size of [
      { width: 360, height: 740 },
      // 1280 × 800 at 200 % is a page of 640 × 400
      { width: 640, height: 400 },
    ]) {
      await page.setViewportSize(size)
      expect(await overflow(page), `${size.width} px`).toBeLessThanOrEqual(0)
    }
    expect(seen).toEqual([])
  })
