import { bodyOf } from '@moray/core/drives/own/body-of'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { show } from '../pages.ts'
import { fastTo, jobOf, openJob, panel, post } from './hand.ts'
import { expect, test } from './test.ts'

const PSI = 6.894757

test('an inch manual’s "not more than 1 psi in 5 minutes" is proved in its own minutes, with a gauge of half a psi', async ({
  page,
}) => {
  const lomvi = bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!)
  const { allowedMlPerMin: _rate, ...leak } = lomvi.tests![0]!
  const inch = { workKpa: 10 * PSI, maxKpa: 15 * PSI, holdMin: 5, allowedDrop: { kpa: PSI, minutes: 5 } }
  const sheet = {
    ...lomvi,
    id: 'brakk-40',
    name: 'Brakk 40',
    demo: false,
    tests: [{ ...leak, ...inch }],
  }
  expect((await post(page, '/api/sheets', { anew: true, sheet })).status).toBe(201)
  const id = await openJob(page, 'brakk-40', { usual: 'unit' })
  await fastTo(page, id, 'leak-case')
  await show(page, `/jobs/${id}/route`)
  await page.getByLabel('Units that are read first').selectOption('imperial')
  const step = panel(page)
  await expect(step.getByRole('heading', { name: 'Pressure-test this case on its own' })).toBeVisible()
  // no number in fourteen digits, and the pressure as the manual prints it
  await expect(step).toContainText('(10.0 psi)')
  await expect(step).not.toContainText(/\d\.\d{6,}/)
  const ask = (name: string) => step.locator(`.ask[data-fact="leak-case.${name}"]`)
  for (const port of await ask('blocks-on').locator('label').all()) await port.click()
  const fill = (name: string, text: string) => ask(name).locator('input').first().fill(text)
  await fill('start', '10psi')
  await fill('gauge-step', '.5psi')
  await ask('turned').getByText('yes', { exact: false }).first().click()
  await fill('minutes', '5')
  await fill('end', '10psi')
  for (const port of await ask('blocks-off').locator('label').all()) await port.click()
  await expect(step).toContainText('passes')
  await step.getByRole('button', { name: /[Nn]ext step/ }).click()
  await expect(step.getByRole('heading', { name: 'Pressure-test this case on its own' })).toBeHidden()
  const { facts } = await jobOf(page, id)
  expect([facts['leak-case.by-manual'], facts['leak-case.proved']]).toEqual(['passes', true])
  // and so it stands in the record
  await show(page, `/jobs/${id}/record`)
  await expect(page.getByRole('region', { name: 'Steps' })).toContainText('10.00 psi')
})

test('figures that a sheet lacks are typed one after the other, without the hand leaving the keys', async ({
  page,
}) => {
  const lomvi = bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!)
  const { tests: _tests, ...bare } = lomvi
  const spaces = lomvi.spaces!.map(({ volumeMl: _volume, fillMl: _fill, ...space }) => space)
  const sheet = { ...bare, id: 'brakk-50', name: 'Brakk 50', demo: false, spaces }
  expect((await post(page, '/api/sheets', { anew: true, sheet })).status).toBe(201)
  const id = await openJob(page, 'brakk-50', { usual: 'unit' })
  await fastTo(page, id, 'leak-case')
  await show(page, `/jobs/${id}/route`)
  const lacking = page.getByRole('region', { name: 'Figures that the sheet lacks' })
  const fields = lacking.locator('[data-figure]')
  await expect(fields.nth(2)).toBeVisible()
  await fields.first().focus()
  for (let n = 0; n < 12 && (await fields.count()) > 0; n++) {
    const left = await fields.count()
    const label = await page.evaluate(
      () =>
        (document.activeElement as { labels?: { textContent: string }[] } | null)?.labels?.[0]?.textContent ??
        '',
    )
    expect(label, 'the focus is on a figure').not.toBe('')
    const text = /never above/i.test(label)
      ? '100 kPa'
      : /drop|pressure/i.test(label)
        ? '70 kPa'
        : /ml\/min|lose/i.test(label)
          ? '0.2'
          : /minutes|hold/i.test(label)
            ? '10'
            : '600'
    await page.keyboard.type(text)
    await page.keyboard.press('Enter')
    await expect.poll(() => fields.count()).toBeLessThan(left)
  }
  await expect(lacking).toHaveCount(0)
  // and then on the first answer of the step itself
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest('.panel') !== null)).toBe(true)
})
