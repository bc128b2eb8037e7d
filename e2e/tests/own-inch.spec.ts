import { show } from '../pages.ts'
import { fastTo, jobOf, openJob, panel, post } from './hand.ts'
import { expect, test, type Page } from './test.ts'

/** Where a figure stands among the groups of the draft, what it is called, and what the manual prints. */
const FIGURES = [
  ['Test pressure', '10psi'],
  ['Never above', '15psi'],
  ['Held for', '10'],
  ['May drop by', '1psi'],
  ['Volume of the case', '40oz'],
  ['Oil', '32oz'],
  ['Carrier ring nut: torque', '70 to 80 ftlb'],
] as const

async function leftHanded(page: Page, id: string, name: string) {
  await page.locator(`tr[data-id="${id}"] td`).first().click()
  await page.getByLabel(`Thread is, ${name}`).selectOption('left')
  const kept = page.waitForResponse((r) => r.url().endsWith('/rows/several') && r.ok())
  await page.keyboard.press('Enter')
  await kept
}

test(
  'a drive of one’s own in inches, with two left-hand nuts, from an empty sheet to handover',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = 'skua-inch'
    const made = await post(page, '/api/drives', { name: 'Skua inch', family: 'outboard-fnr' })
    expect(made.status, JSON.stringify(made.body)).toBe(201)
    await show(page, '/')
    await page.getByLabel('Units that are read first').selectOption('imperial')
    await show(page, `/drives/${id}/draft?at=groups`)
    await leftHanded(page, 'big-ring', 'Carrier ring nut')
    await leftHanded(page, 'propeller-nut', 'Propeller nut')
    await page.getByRole('heading', { name: 'Skua inch' }).click()
    await expect(page.getByRole('button', { name: 'left-hand', exact: true })).toHaveCount(2)
    const nav = page.getByRole('navigation', { name: 'Groups of figures' })
    for (const [label, text] of FIGURES) {
      const field = page.getByLabel(label, { exact: true })
      for (const group of await nav.getByRole('button').all()) {
        if (await field.count()) break
        await group.click()
      }
      await field.fill(text)
      await field.press('Enter')
      await expect(page.locator('.figure', { has: field })).toHaveClass(/there/)
    }
    await page.getByRole('button', { name: 'Check and publish' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Publish it' }).click()
    await expect(page.getByText(/version 1$/)).toBeVisible()

    const job = await openJob(page, id, { usual: 'seals:propshaft' })
    await fastTo(page, job, 'left-hand')
    await show(page, `/jobs/${job}/route`)
    await expect(panel(page).getByRole('heading', { name: 'Left-hand threads, each by name' })).toBeVisible()
    await expect(panel(page)).toContainText('Carrier ring nut: clockwise loosens it')
    await expect(panel(page)).toContainText('Propeller nut: clockwise loosens it')
    await expect(panel(page)).not.toContainText('Pinion nut: clockwise')
    await fastTo(page, job, 'leak-case')
    await show(page, `/jobs/${job}/route`)
    await expect(panel(page)).toContainText('10.0 psi')
    await fastTo(page, job, 'propeller')
    // how the propeller is held is asked where it is fitted, and goes into the sheet
    await show(page, `/jobs/${job}/route`)
    await panel(page).getByText('a castle nut with a split pin').click()
    await expect(panel(page).getByRole('button', { name: /next step/i })).toBeEnabled()
    await fastTo(page, job, 'nothing more')
    const { state, work, closings } = await jobOf(page, job)
    expect([state, work.lines]).toEqual(['finished', []])
    expect(closings.flatMap((c) => c.departedFrom)).toEqual([])
    await page.getByLabel('Units that are read first').selectOption('metric')
  },
)
