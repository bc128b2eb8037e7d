import { expect, test, type Page } from './test.ts'
import { show } from '../pages.ts'

/** What everybody at the bench meets every minute: what is due in view, where the hand is, units, two people on one job. */

const panel = (page: Page) => page.locator('.panel')
const field = (page: Page) => page.locator('input.text')

test('Done is in view and the step at its top, on every step of a whole route at 1280×800', async ({
  page,
}) => {
  await show(page, '/jobs/lomvi-test/route')
  await expect(panel(page).getByRole('heading').first()).toBeVisible()
  // from step to step in the page itself: forty clicks from outside take three times as long
  const { steps, out } = await page.evaluate(async () => {
    const drawn = () =>
      new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(undefined))))
    const all = <T extends Element>(selector: string, within: ParentNode = document) => [
      ...within.querySelectorAll<T>(selector),
    ]
    const seen: string[] = []
    const hidden: string[] = []
    for (let s = 0; s < all('button.stage').length; s++) {
      const stage = () => all<HTMLElement>('button.stage')[s]!
      if (stage().getAttribute('aria-expanded') === 'false') stage().click()
      await drawn()
      const own = () => all<HTMLElement>('.steps button', all('.stages > li')[s])
      for (let i = 0; i < own().length; i++) {
        own()[i]!.click()
        const name = own()[i]!.innerText.trim().split('\n').at(-1)!.trim()
        const isShown = () =>
          own()[i]!.getAttribute('aria-current') === 'step' &&
          all<HTMLElement>('.panel h1, .panel h2, .panel h3')[0]?.innerText.trim() === name
        // a busy machine takes more frames for it
        for (let n = 0; n < 500 && !isShown(); n++) await drawn()
        if (!isShown()) hidden.push(`${name}: is not shown`)
        await drawn()
        const done = all('.panel .actions').at(-1)?.getBoundingClientRect()
        const head = all('.panel h2').at(-1)?.getBoundingClientRect()
        if (!done || done.bottom > innerHeight + 1) hidden.push(`${name}: Done`)
        if (!head || head.top < 0) hidden.push(`${name}: title`)
        seen.push(name)
      }
    }
    return { steps: seen.length, out: hidden }
  })
  expect(steps).toBeGreaterThan(40)
  expect(out).toEqual([])
})

test('a refused Done takes the hand and the eye to what is wrong', async ({ page }) => {
  await show(page, '/jobs/lomvi-test/route?step=leak-case')
  const start = panel(page).getByLabel(/Pressure at the start/)
  await expect(start).toHaveValue('70 kPa')
  await start.fill('140')
  await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight))
  await panel(page)
    .getByRole('button', { name: /next step/ })
    .click()
  await expect(start).toBeFocused()
  await expect(start).toBeInViewport()
  await expect(panel(page).getByRole('alert').first()).toBeInViewport()
  await expect(panel(page).getByText('Nobody goes on over this')).toBeVisible()
  await start.fill('70 kPa')
  await expect(panel(page).getByText('Nobody goes on over this')).toBeHidden()
})

test('a fresh browser asks who is working, once, and writes nothing before', async ({ another }) => {
  const page = await another({ who: null })
  const writes: string[] = []
  page.on('request', (r) => r.method() === 'POST' && writes.push(r.url()))
  await show(page, '/jobs/sivkrok/route')
  const asked = page.getByRole('dialog', { name: 'Who is working here?' })
  await asked.getByRole('button', { name: 'Only looking' }).click()
  await panel(page).getByText('never', { exact: true }).click()
  await panel(page).getByText('no', { exact: true }).click()
  await panel(page)
    .getByRole('button', { name: /next step/ })
    .click()
  await expect(asked).toBeVisible()
  expect(writes).toEqual([])
  await asked.getByRole('button', { name: 'Joar Skjelbu' }).click()
  await expect(panel(page).locator('label.on', { hasText: 'never' })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Who is working')).toHaveValue('joar')
  await expect(asked).toBeHidden()
})

test('inch first: everywhere, bare numbers included, kept for this person', async ({ page }) => {
  await show(page, '/jobs/alke-lower/setting?build=2')
  await page.getByLabel('Units that are read first').selectOption('imperial')
  const depth = page.locator('.rulers li', { hasText: 'Pinion depth' })
  await expect(depth.locator('.big')).toHaveText(/^1\.62\d\d$/)
  await expect(depth).toContainText(/±\s*0\.0\d+ in/)
  await expect(depth).toContainText('inside')
  await expect(page.locator('.card.open')).toContainText(/0\.\d{4} in · 0\.\d{3} mm/)
  // a bare number typed at a step is inches, ft-lb, psi
  await show(page, '/jobs/lomvi-test/route?step=leak-case')
  const end = panel(page).getByLabel(/Pressure at the end/)
  await end.fill('10')
  await expect(end.locator('xpath=..')).toContainText('10.00 psi · 68.9 kPa')
  // so is a reading, and the gauge's own notation still says what it says
  await show(page, '/jobs/rordrum/setting?at=measure:backlash')
  await field(page).fill('.0063')
  await expect(page.locator('.said')).toContainText('0.0063 in · 0.160 mm')
  await field(page).fill('16h')
  await expect(page.locator('.said')).toContainText('0.160 mm')
  await field(page).fill('')
  // sheets, gauges and the drawer as well; a micrometer's step is not rounded to nothing
  await show(page, '/drives/rordrum-v')
  await expect(page.locator('.tag', { hasText: 'Backlash' })).toContainText('0.0047–0.0079')
  await expect(page.locator('dt', { hasText: 'Output carrier' })).toContainText('0.0000–0.2362 in')
  await show(page, '/gauges')
  await expect(page.getByRole('row', { name: /Micrometer 0 to 25/ })).toContainText('0.04 t · 0.001 mm')
  await show(page, '/drawer')
  await expect(page.locator('tbody .thick').first()).toHaveText(/^0\.\d{4} in$/)
  await show(page, '/jobs/rordrum/setting?at=measure:backlash')
  // another person at this screen reads millimetres
  await page.getByLabel('Who is working').selectOption('joar')
  await expect(page.getByLabel('Units that are read first')).toHaveValue('metric')
  await page.getByLabel('Who is working').selectOption('ylva')
  await page.getByLabel('Units that are read first').selectOption('metric')
})

test('two people on one stack: what is typed stays where it was meant', async ({ page, another }) => {
  const other = await another()
  await show(page, '/')
  // a job of its own, so that no other journey walks on it
  const opened = await page.request.post('/api/jobs', {
    headers: { 'x-moray-person': 'ylva', 'x-moray-request': crypto.randomUUID() },
    data: {
      sheetId: 'lomvi-90',
      serial: 'TWO-1',
      boat: 'To mann',
      owner: 'Boat pool',
      water: 'salt',
      complaint: 'two at one stack',
    },
  })
  const { id } = (await opened.json()) as { id: string }
  for (const p of [page, other]) await p.goto(`/jobs/${id}/setting`)
  const heading = (p: Page, name: string) => panel(p).getByRole('heading', { name })
  await expect(heading(page, 'Pinion shims as found')).toBeVisible()
  await field(page).fill('.40')
  await field(page).press('Enter')
  await field(page).fill('.2')
  // the other enters and closes that very stack
  await field(other).fill('.70')
  await field(other).press('Enter')
  await field(other).press('Enter')
  await expect(heading(other, 'Forward shims as found')).toBeVisible()
  await expect(panel(page)).toContainText('has entered this stack meanwhile: 0.700 mm')
  await expect(heading(page, 'Pinion shims as found')).toBeVisible()
  await expect(field(page)).toHaveValue('.2')
  await expect(panel(page).locator('.pieces li')).toHaveCount(1)
})

test(
  'a form that was begun is not thrown away by one key, and a wrong figure is said at its field',
  { tag: '@long' },
  async ({ page }) => {
    await show(page, '/')
    await page.getByRole('button', { name: 'A drive comes in' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Boat').fill('Lomvi')
    await page.keyboard.press('Escape')
    await expect(dialog.getByText('What you typed would be lost.')).toBeVisible()
    await expect(dialog.getByLabel('Boat')).toHaveValue('Lomvi')
    await dialog.getByRole('button', { name: 'Throw it away' }).click()
    await expect(dialog).toBeHidden()
    await page.getByLabel('Who is working').selectOption('runa')
    await show(page, '/shop')
    await page.getByLabel(/Labour an hour/).fill('abc')
    await page.getByRole('button', { name: 'Keep the rules' }).click()
    await expect(page.getByRole('alert')).toHaveText(
      /"abc" is not a number; a figure from 0 to 100000 is needed/,
    )
    await page.getByLabel(/Labour an hour/).fill('950')
    await page.getByRole('button', { name: 'Keep the rules' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible()
    // the new line of the drawer begins where it is typed
    await show(page, '/drawer')
    await page.getByRole('button', { name: 'Add a line' }).click()
    await expect(page.getByRole('dialog').getByLabel('Measured thickness', { exact: true })).toBeFocused()
    // nor is what is typed in any other form: one key asks, typing on takes the question back
    await page.keyboard.type('.37')
    await page.keyboard.press('Escape')
    await expect(dialog.getByText('What you typed would be lost.')).toBeVisible()
    await dialog.getByLabel('Pieces').fill('2')
    await expect(dialog.getByText('What you typed would be lost.')).toBeHidden()
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
    await expect(dialog).toBeHidden()
    // one that was only looked at closes at once
    await page
      .getByRole('button', { name: /^Change line/ })
      .first()
      .click()
    await dialog.getByText('Counted').click()
    await page.keyboard.press('Escape')
    await expect(dialog).toBeHidden()
  },
)

test('building back, the row says grade, new and the accepted stack, and keeps a condemned part out', async ({
  page,
}) => {
  await show(page, '/jobs/lomvi-done/parts?view=row')
  await page.getByText('building back').click()
  const card = (name: string) => page.locator('.row li', { hasText: name })
  await expect(card('Pinion shims')).toContainText('0.751 mm')
  await expect(card('Clutch dog')).toContainText('new one in')
  await expect(card('Driveshaft').first()).not.toContainText('new one in')
})

test('what was written down when the drive came in is put right, with its history', async ({ page }) => {
  await show(page, '/jobs/rordrum/route')
  await page.locator('.about summary').click()
  await page.getByRole('button', { name: 'correct what is written' }).click()
  const dialog = page.getByRole('dialog', { name: 'Correct what is written' })
  await dialog.getByRole('button', { name: 'Correct it' }).click()
  await expect(dialog.getByRole('alert').first()).toBeVisible()
  await dialog.getByLabel('Serial number').fill('RV-0099')
  await dialog.getByLabel('Why it is corrected').fill('plate cleaned and read again')
  await dialog.getByRole('button', { name: 'Correct it' }).click()
  await expect(dialog).toBeHidden()
  await show(page, '/jobs/rordrum/record')
  await expect(page.locator('.record')).toContainText('RV-0099')
  await expect(page.locator('.history')).toContainText(
    /serial was .*, is RV-0099 \(plate cleaned and read again\)/,
  )
})

test('an acceptance is withdrawn with a reason, and the readings are open again', async ({ page }) => {
  await show(page, '/jobs/alke-upper/setting?at=decide')
  await expect(panel(page).getByRole('heading', { name: 'Accepted as built' })).toBeVisible()
  await page.getByRole('button', { name: 'Withdraw the acceptance' }).click()
  await page.getByLabel('Reason').fill('the gauge was out of its date')
  await page.getByRole('dialog').getByRole('button', { name: 'Withdraw it' }).click()
  await expect(panel(page).getByRole('heading', { name: 'Decide' })).toBeVisible()
  await show(page, '/jobs/alke-upper/record')
  await expect(page.locator('.history')).toContainText('acceptance withdrawn (the gauge was out of its date)')
})

test('the longest names do not push a page sideways, at 360 px and at 200 %', async ({ page }) => {
  const long = 'Kystskogsbrannberedskapsfartøyet'.repeat(2).slice(0, 64)
  const opened = await page.request.post('/api/jobs', {
    headers: { 'x-moray-person': 'ylva', 'x-moray-request': crypto.randomUUID() },
    data: {
      sheetId: 'havsule-duo-upper',
      serial: 'LANG-1',
      boat: long,
      owner: `${long}seigar`,
      water: 'salt',
      complaint: `${long}${long} whines`,
    },
  })
  const { id } = (await opened.json()) as { id: string }
  for (const path of ['/?find=LANG-1', `/jobs/${id}/route`, `/jobs/${id}/setting`, `/jobs/${id}/record`]) {
    await show(page, path)
    await expect(page.getByText(long.slice(0, 20)).first()).toBeAttached()
    for (const size of [
      { width: 360, height: 740 },
      { width: 640, height: 400 },
    ]) {
      await page.setViewportSize(size)
      const over = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      )
      expect(over, `${path} at ${size.width} px`).toBeLessThanOrEqual(0)
      // who works here, and in which units, is in view there too
      await expect(page.getByLabel('Units that are read first')).toBeVisible()
    }
    await page.setViewportSize({ width: 1280, height: 800 })
  }
  // the head of a job leaves the work its room: a line on a desk, two on a phone
  await show(page, `/jobs/${id}/route`)
  const head = () => page.locator('.head').evaluate((h) => h.getBoundingClientRect().height)
  await expect(page.locator('.head')).toBeVisible()
  expect(await head()).toBeLessThan(70)
  await page.setViewportSize({ width: 360, height: 740 })
  expect(await head()).toBeLessThan(120)
})

test('an answer of a job that was handed over is put right, and the job stays over', async ({ page }) => {
  await show(page, '/jobs/lomvi-done/route?step=turn')
  const panel = page.locator('.panel')
  await panel.getByRole('button', { name: 'Correct an answer' }).click()
  await panel.getByText('with a bind, a notch or a scrape').click()
  await panel.getByRole('button', { name: 'Correct it', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('The job stays over')
  await dialog.getByRole('textbox').fill('felt it again in my notes')
  await dialog.getByRole('button', { name: 'Correct it' }).click()
  await expect(panel).toContainText('with a bind, a notch or a scrape')
  await expect(panel.getByRole('link', { name: 'To the record' })).toBeVisible()
  await show(page, '/jobs/lomvi-done/record')
  await expect(page.getByRole('region', { name: 'Steps' })).toContainText('corrected after the job was over')
  await show(page, '/')
  await expect(page.getByRole('region', { name: 'Over' })).toContainText('26-097')
})

test('the due act is in view at 1280×800, and no list scrolls in a box of its own', async ({ page }) => {
  await show(page, '/jobs/alke-lower/setting')
  await expect(page.getByRole('button', { name: 'Build this' })).toBeInViewport({ ratio: 1 })
  await show(page, '/jobs/rordrum/parts?view=row')
  const waiting = page.locator('.waiting').first()
  await expect(waiting).toBeVisible()
  const hidden = await waiting.evaluate(
    (e) => (e as unknown as Box).scrollHeight - (e as unknown as Box).clientHeight,
  )
  expect(hidden).toBeLessThanOrEqual(1)
})
interface Box {
  scrollHeight: number
  clientHeight: number
}
