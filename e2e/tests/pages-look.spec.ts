import axe from 'axe-core'
import { expect, remembers, test as base, type Page } from './test.ts'
import { complaints, goTo, PAGES, type Complaints } from '../pages.ts'

// nothing of it depends on the order
base.describe.configure({ mode: 'parallel' })

/** One page for all that a worker looks at, as one person goes from place to place: the application is loaded once. */
const test = base.extend<object, { walked: { page: Page; seen: Complaints } }>({
  walked: [
    async ({ browser, shop }, use, info) => {
      const { contextOptions } = info.project.use
      const context = await browser.newContext({
        ...contextOptions,
        baseURL: shop.url,
        storageState: remembers(shop.url),
      })
      const page = await context.newPage()
      const seen = complaints(page)
      await page.goto('/')
      await page.evaluate(axe.source)
      await use({ page, seen })
      await context.close()
    },
    { scope: 'worker' },
  ],
})

/** The rules of WCAG 2.2 AA; what depends on the colours alone is asked by day and by night. */
const ALL = { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }
const COLOURS = { runOnly: { type: 'rule' as const, values: ['color-contrast'] } }

/** Only what is wrong is gathered in full; the rest is counted. */
const violations = (page: Page, options: axe.RunOptions): Promise<string[]> =>
  page.evaluate(
    async (o) => {
      const { violations: found } = await (window as unknown as { axe: typeof axe }).axe.run(document, o)
      return found.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)
    },
    { ...options, resultTypes: ['violations' as const] },
  )

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
    walked: { page, seen },
  }) => {
    // a draft is begun before it can be looked at; a second test finds it there
    if (path.includes('/draft'))
      await page.request.post(`${new URL(path, 'http://x').pathname}`.replace('/drives', '/api/drives'), {
        headers: { 'x-moray-person': 'runa' },
        data: { anew: false },
      })
    seen.length = 0
    await page.setViewportSize({ width: 1280, height: 800 })
    await goTo(page, path)
    await expect(page.getByRole('heading', { name: title }).first()).toBeVisible()
    if (path.includes('setting')) await expect(page.locator('.tag').first()).toBeVisible()
    await expect(page.locator('html')).not.toHaveClass(/night/)
    expect(await violations(page, ALL)).toEqual([])
    // the night changes colours and nothing else
    await page.getByRole('button', { name: 'Night' }).click()
    try {
      await expect(page.locator('html')).toHaveClass(/night/)
      expect(await violations(page, COLOURS)).toEqual([])
    } finally {
      await page.getByRole('button', { name: 'Day' }).click()
    }
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
