import axe from 'axe-core'
import { LONG_RUN } from '../../core/tests/long.ts'
import { expect, test, type Page } from './test.ts'
import { complaints, MORE_PAGES, PAGES, show } from '../pages.ts'

// nothing of it depends on the order
test.describe.configure({ mode: 'parallel' })

/** The rules of WCAG 2.2 AA; the contrast of colours is asked by itself, because it is by day and by night. */
const ALL = { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] }
const BUT_COLOURS = { ...ALL, rules: { 'color-contrast': { enabled: false } } }
const COLOURS = { runOnly: { type: 'rule' as const, values: ['color-contrast'] } }

/** Of a long table the first rows are looked at, and all of them in a long run: the next are made alike. */
const BELOW = LONG_RUN ? [] : ['tbody tr:nth-child(n + 7)']

/** The application is not loaded anew from page to page: axe is, where it was. */
const withAxe = async (page: Page) => {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
}

/** Only what is wrong is gathered in full; the rest is counted. */
const violations = (page: Page, options: axe.RunOptions): Promise<string[]> =>
  page.evaluate(
    async ({ below, options: o }) => {
      const { violations: found } = await (window as unknown as { axe: typeof axe }).axe.run(
        { include: ['html'], exclude: below },
        o,
      )
      return found.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)
    },
    { below: BELOW, options: { ...options, resultTypes: ['violations' as const] } },
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

// contrast is dear to judge, and pages share what they are made of: one by day, the next by night, and each by both in a long run
for (const [at, [path, title]] of [...PAGES, ...(LONG_RUN ? MORE_PAGES : [])].entries()) {
  const [byDay, byNight] = [LONG_RUN || at % 2 === 0, LONG_RUN || at % 2 === 1]
  const when = [...(byDay ? ['by day'] : []), ...(byNight ? ['by night'] : [])].join(' and ')
  test(`${path} opens without a complaint, is accessible, its contrast ${when}, fits 360 px and 200 % zoom`, async ({
    page,
  }) => {
    const seen = complaints(page)
    // a draft is begun before it can be looked at; a second test finds it there
    if (path.includes('/draft'))
      await page.request.post(`${new URL(path, 'http://x').pathname}`.replace('/drives', '/api/drives'), {
        headers: { 'x-moray-person': 'runa' },
        data: { anew: false },
      })
    await show(page, path)
    await expect(page.getByRole('heading', { name: title }).first()).toBeVisible()
    if (path.includes('setting')) await expect(page.locator('.tag').first()).toBeVisible()
    await expect(page.locator('html')).not.toHaveClass(/night/)
    await withAxe(page)
    expect(await violations(page, byDay ? ALL : BUT_COLOURS)).toEqual([])
    // the night changes colours and nothing else
    if (byNight) {
      await page.getByRole('button', { name: 'Night' }).click()
      try {
        await expect(page.locator('html')).toHaveClass(/night/)
        expect(await violations(page, COLOURS)).toEqual([])
      } finally {
        await page.getByRole('button', { name: 'Day' }).click()
      }
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
}
