import { readFileSync } from 'node:fs'
import type { DrawerLine } from '@moray/contract/replies'
import { expect, test, type Page } from './test.ts'
import { show } from '../pages.ts'
import { post } from './hand.ts'

/** The main job, done as a technician does it: everything is typed and clicked on the real pages. */

const field = (page: Page) => page.locator('input.text')

async function type(page: Page, text: string) {
  const input = field(page)
  await input.fill('')
  await input.pressSequentially(text)
}

/** One piece of a stack: typed, understood, entered. */
async function piece(page: Page, text: string, understood: string) {
  await type(page, text)
  await expect(page.locator('.said')).toContainText(understood)
  await input(page)
}
const input = (page: Page) => field(page).press('Enter')

async function reading(page: Page, text: string) {
  const count = await page.locator('.readings li').count()
  await type(page, text)
  await input(page)
  // the third reading moves on to the next measure by itself
  await expect(async () => {
    const now = await page.locator('.readings li').count()
    expect(now === count + 1 || now < count || (count === 2 && now !== 2)).toBe(true)
  }).toPass()
}

const heading = (page: Page, name: string | RegExp) => page.locator('.panel h2', { hasText: name })

/** Step n of the README's first five minutes: what is to be typed, and the words to be clicked. */
function readmeStep(n: number): { typed: string[]; bold: string[]; text: string } {
  const readme = readFileSync(new URL('../../README.md', import.meta.url), 'utf8')
  const section = readme.split('## The first five minutes')[1]!.split('\n## ')[0]!
  const text = section.split(new RegExp(`^${n}\\. `, 'm'))[1]!.split(/^\d\. |\n\n/m)[0]!
  const all = (mark: RegExp) => [...text.matchAll(mark)].map((m) => m[1]!)
  return { typed: all(/`([^`]+)`/g), bold: all(/\*\*([^*]+)\*\*/g), text }
}

test('the first five minutes of the README, word by word, to the record', async ({ page, another }) => {
  test.setTimeout(400_000)
  // 1. a browser that nobody has named asks who is working; Stand 1
  const [person, bench] = readmeStep(1).bold
  await page.evaluate(() => localStorage.removeItem('moray.person'))
  await page.goto('/')
  await page.getByRole('dialog').getByRole('button', { name: person! }).click()
  await expect(page.getByRole('heading', { name: bench! })).toBeVisible()
  await page.locator('a.job', { hasText: 'Stand 1' }).click()
  await expect(page.getByRole('heading', { name: /Lomvi 90.*Skarv II/ })).toBeVisible()
  await expect(page.getByRole('img', { name: /Section of Lomvi 90/ })).toBeVisible()
  for (const place of [
    'Pinion shims',
    'Forward shims',
    'Reverse shims',
    'Pinion depth',
    'Forward backlash',
    'Reverse backlash',
  ])
    await expect(page.locator('.tag', { hasText: place })).toBeVisible()
  await expect(page.locator('.rounds .due')).toContainText('Pinion shims')

  // 2. the stacks as found, two pieces each
  const pieces = readmeStep(2).typed
  expect(pieces).toHaveLength(6)
  const understood = [
    '0.400 mm · 15.7 t',
    '0.220 mm · 8.7 t',
    '0.350 mm',
    '0.400 mm',
    '0.500 mm',
    '0.432 mm · 17.0 t',
  ]
  for (const [i, stack] of ['Pinion', 'Forward', 'Reverse'].entries()) {
    await expect(heading(page, `${stack} shims as found`)).toBeVisible()
    await piece(page, pieces[2 * i]!, understood[2 * i]!)
    await piece(page, pieces[2 * i + 1]!, understood[2 * i + 1]!)
    if (stack === 'Reverse') {
      // nothing lost by a reload in the middle of a stack
      await page.reload()
      await expect(page.locator('.sum')).toContainText('0.932')
      await field(page).focus()
    }
    await input(page)
  }

  // 3. three readings of each measure; what is not understood or stands apart does not pass
  const [torque, ...readings] = readmeStep(3).typed
  expect(readings).toHaveLength(11)
  // the bearings first: what has to be shown is said before it is read
  await expect(heading(page, 'Rolling torque, driveshaft taper, lower')).toBeVisible()
  await expect(page.locator('.panel')).toContainText('Has to show 0.45 to 0.75 Nm')
  await page.getByRole('button', { name: 'All of it holds' }).click()
  await type(page, torque!)
  await expect(page.locator('.said')).toContainText('0.600 Nm · 5.3 in-lb')
  await input(page)
  const [nonsense, blunder] = readings.slice(9)
  await expect(heading(page, 'Pinion depth')).toBeVisible()
  await type(page, nonsense!)
  await expect(page.locator('.said')).toContainText('character 5 "x" is not understood')
  await input(page)
  await expect(page.locator('.readings li')).toHaveCount(0)
  await reading(page, readings[0]!)
  await type(page, blunder!)
  await expect(page.locator('.panel')).toContainText('apart from the readings before it')
  await input(page)
  await expect(page.getByText('Enter again if it is meant')).toBeVisible()
  await expect(page.locator('.readings li')).toHaveCount(1)
  await reading(page, readings[1]!)
  await reading(page, readings[2]!)
  await expect(heading(page, 'Forward backlash')).toBeVisible()
  for (const r of readings.slice(3, 6)) await reading(page, r)
  await expect(heading(page, 'Reverse backlash')).toBeVisible()
  for (const r of readings.slice(6, 9)) await reading(page, r)

  // verdict marks with words, value ± U
  await expect(heading(page, 'Decide')).toBeVisible()
  const row = (name: string) => page.locator('.rulers li', { hasText: name })
  await expect(row('Rolling torque')).toContainText('inside')
  await expect(row('Pinion depth')).toContainText('outside')
  await expect(row('Pinion depth')).toContainText('38.521')
  await expect(row('Forward backlash')).toContainText('outside')
  await expect(row('Reverse backlash')).toContainText('inside')
  await expect(row('Reverse backlash')).toContainText(/±\s*0\.0\d\d mm/)

  // 4. three plans; one Enter too many decides nothing
  await expect(page.getByText('The 3 best plans out of the drawer')).toBeVisible()
  await expect(page.getByText('Proved: this drawer holds no better one.')).toBeVisible()
  await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).toBe('H2')
  await page.keyboard.press('Enter')
  await expect(page.locator('.round.open .name')).toContainText('As found')
  const build = readmeStep(4).bold[0]!
  const plan = page.locator('.card.open')
  await plan.getByRole('button', { name: build }).click()
  // asked once; Enter leaves it
  await expect(page.getByRole('dialog')).toContainText('Pinion shims')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeHidden()
  await plan.getByRole('button', { name: build }).click()
  await page.getByRole('dialog').getByRole('button', { name: build }).click()
  await expect(page.locator('.round.open .name')).toContainText('Trial 1')

  // 5. the new readings, what was promised, accepted as built
  const { typed, bold } = readmeStep(5)
  const [accept, record] = bold
  for (const [i, measure] of ['Pinion depth', 'Forward backlash', 'Reverse backlash'].entries()) {
    await expect(heading(page, measure)).toBeVisible()
    for (let n = 0; n < 3; n++) await reading(page, typed[i]!)
  }
  await expect(page.getByText('Every window met, beyond doubt.')).toBeVisible()
  await row('Pinion depth').getByRole('button').click()
  await expect(page.locator('.panel')).toContainText('Promised')

  // a second browser sees the same, live
  const second = await another()
  await second.goto(page.url().split('?')[0]!)
  await expect(second.locator('.round.open .name')).toContainText('Trial 1')
  await page.locator('.round.open li', { hasText: 'Decide' }).getByRole('button').click()
  await page.getByRole('button', { name: accept! }).click()
  await page.getByRole('dialog').getByRole('button', { name: accept! }).click()
  await expect(heading(page, 'Accepted as built')).toBeVisible()
  await expect(second.getByText('as built', { exact: true })).toBeVisible()
  await second.close()

  // the record, and on A4
  await page.getByRole('link', { name: record!, exact: true }).click()
  await expect(page.getByRole('heading', { name: /Record 26-118/ })).toBeVisible()
  const paper = page.locator('.record')
  await expect(paper).toContainText('Strandvik Boat Pool')
  await expect(paper).toContainText(`Trial 1, accepted by ${person}`)
  await expect(paper).toContainText('0.500 + 0.432')
  await expect(paper).toContainText('Depth gauge 1')
  await expect(paper).toContainText('Backlash arm with dial')
  await expect(paper).toContainText('Received by')
  const pdf = await page.pdf({ format: 'A4', printBackground: true })
  expect(pdf.length).toBeGreaterThan(10_000)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  await expect(page.locator('header.bar')).toBeHidden()
  const width = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  )
  expect(width).toBeLessThanOrEqual(0)
})

test('a reading that slipped is set aside with a reason, and stays to be seen', async ({ page }) => {
  await show(page, '/jobs/sivkrok/setting')
  await expect(heading(page, 'Propeller shaft end play')).toBeVisible()
  await reading(page, '.06')
  // one that stands apart is asked about; it is meant
  await type(page, '.16')
  await input(page)
  await expect(page.getByText('Enter again if it is meant')).toBeVisible()
  await input(page)
  await expect(page.locator('.readings li')).toHaveCount(2)
  await page.locator('.readings li', { hasText: '0.160' }).getByRole('button', { name: 'set aside' }).click()
  await page.getByLabel('Reason').fill('gauge was knocked')
  await page.getByRole('dialog').getByRole('button', { name: 'Set aside' }).click()
  await expect(page.locator('.readings li.gone')).toContainText('gauge was knocked')
  // the hand goes on where it was
  await expect(field(page)).toBeFocused()
  await page.keyboard.type('.06')
  await page.keyboard.press('Enter')
  await expect(page.locator('.readings li')).toHaveCount(3)
  await show(page, '/jobs/sivkrok/record')
  await expect(page.locator('.reading.gone')).toContainText('gauge was knocked')
})

test('what was typed survives a server that does not answer', async ({ page }) => {
  await show(page, '/jobs/teist-bent/setting?at=measure:backlash')
  await type(page, '.52')
  await page.route('**/readings', (route) => route.abort())
  await input(page)
  await expect(page.getByRole('alert')).toContainText('The server does not answer')
  await expect(field(page)).toHaveValue('.52')
  await page.unroute('**/readings')
  await input(page)
  await expect(page.locator('.readings li')).toHaveCount(1)
})

test('the last shim goes to one of two browsers, the other is told and asked to look again', async ({
  page,
  another,
}) => {
  // alke-lower has a third trial to choose; the first page holds the plan while the drawer empties behind it
  await show(page, '/jobs/alke-lower/setting')
  // while it is searched, the best so far changes; then the plan stands whose pieces are taken away
  await expect(page.getByText('this drawer holds no better one')).toBeVisible()
  const pieces = await page.locator('.card.open .piece:not(.case)').allInnerTexts()
  expect(pieces.length).toBeGreaterThan(0)
  // this browser hears nothing of it: neither its job nor its drawer are read again
  const deaf = ['**/api/jobs/alke-lower', '**/api/drawer']
  for (const path of deaf)
    await page.route(path, (route) => (route.request().method() === 'GET' ? route.abort() : route.continue()))
  const other = await another()
  await other.goto('/drawer')
  const [first, ...rest] = new Set(pieces.map((p) => p.trim()))
  const rows = other.locator('tbody tr', { hasText: `${first} mm` })
  // all() does not wait for the table by itself
  await expect(rows.first()).toBeVisible()
  for (const row of await rows.all()) {
    await row.getByRole('button', { name: /^Change line/ }).click()
    await other.getByText('Counted', { exact: true }).click()
    await other.getByLabel('Pieces counted').fill('0')
    await other.getByLabel('Reason').fill('all used up')
    await other.getByRole('button', { name: 'Enter', exact: true }).click()
    await expect(other.getByRole('dialog')).toBeHidden()
  }
  // and the others as fast as that hand ever could
  const lines = (await (await other.request.get('/api/drawer')).json()) as DrawerLine[]
  const others = lines.filter((l) => rest.includes(l.thicknessMm.toFixed(3)))
  expect(others.length).toBeGreaterThanOrEqual(rest.length)
  for (const { id } of others) {
    const { status } = await post(other, `/api/drawer/${id}/count`, { count: 0, reason: 'all used up' })
    expect(status).toBe(201)
  }
  await page.locator('.card.open').getByRole('button', { name: 'Build this' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Build this' }).click()
  await expect(
    page.getByRole('alert').filter({ hasText: 'The drawer does not hold these stacks any more' }),
  ).toBeVisible()
  for (const path of deaf) await page.unroute(path)
  await page.reload()
  await expect(page.locator('.round.open .name')).toContainText('Trial 2')
})
