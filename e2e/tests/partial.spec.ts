import { expect, test, type Page } from './test.ts'
import { show } from '../pages.ts'
import { fastTo, jobOf, openJob, panel, workTo } from './hand.ts'

const done = async (page: Page, id: string) =>
  (await jobOf(page, id)).closings.filter((c) => !c.takenBack).map((c) => c.step)

async function openRepair(
  page: Page,
  id: string,
  note: string,
  how: (dialog: ReturnType<Page['getByRole']>) => Promise<unknown>,
) {
  await show(page, `/jobs/${id}/route`)
  await page.locator('details.about summary').click()
  await page.getByRole('button', { name: 'open it again for a repair' }).click()
  const dialog = page.getByRole('dialog')
  await how(dialog)
  await dialog.getByLabel('What was seen, and where').fill(note)
  await dialog.getByRole('button', { name: 'Open the repair' }).click()
  await expect(dialog).toHaveCount(0)
}

test(
  'it weeps after handover: the place is found first, then no more is opened than it takes',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'lomvi-90', { usual: 'pump' })
    await fastTo(page, id, 'nothing more')
    expect((await jobOf(page, id)).state).toBe('finished')
    await openRepair(page, id, 'oil on the floor under the stand', async (dialog) => {
      await dialog.getByLabel('the place is not known yet: find it first').check()
      await expect(dialog).toContainText('Nothing is opened before the place is known')
    })
    await expect(panel(page).getByRole('heading', { name: /Find the place of the leak/ })).toBeVisible()
    await panel(page).getByText('Propeller shaft to carrier', { exact: true }).click()
    await panel(page)
      .getByRole('button', { name: /next step/i })
      .click()
    await expect(panel(page).getByRole('heading', { name: /Find the place/ })).toBeHidden()
    await workTo(page, id)
    const job = await jobOf(page, id)
    expect(job.state).toBe('finished')
    expect(job.work.lines).toEqual([])
    expect(await done(page, id)).toEqual(
      expect.arrayContaining([
        'find-place',
        'drain',
        'apart',
        'seals',
        'leak-case',
        'fill-mounted',
        'propeller',
        'handover-2',
      ]),
    )
  },
)

test(
  'a repair after handover of a unit in two cases: input seal of the upper, proved with the lower',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'alke-2-upper', { usual: 'seals:input' })
    await fastTo(page, id, 'nothing more')
    expect((await jobOf(page, id)).work.lines).toEqual([])
    await openRepair(page, id, 'weeps at the yoke', async (dialog) => {
      await dialog.getByLabel('Part').selectOption({ label: 'Input seal' })
      await expect(dialog).toContainText('Comes off')
    })
    await fastTo(page, id, 'nothing more')
    await show(page, `/jobs/${id}/record`)
    const job = await jobOf(page, id)
    expect([job.state, job.work.lines]).toEqual(['finished', []])
    // the nut that preloads the pair was off: the rolling torque is read again
    expect(job.work.acts.filter((a) => a.do === 'accept' && a.from === 'acceptance').length).toBeGreaterThan(
      1,
    )
    await expect(page.getByRole('region', { name: 'Repairs after closing' })).toContainText(
      'weeps at the yoke',
    )
  },
)

for (const [end, words] of [
  ['boat', 'back on the boat'],
  ['as-it-is', 'handed back as it lies'],
  ['boxes', 'handed back in boxes'],
  ['scrapped', 'scrapped'],
] as const)
  test(`a strike whose owner stops ends ${end}, and the record says so`, async ({ page }) => {
    const id = await openJob(page, 'lomvi-90', { usual: 'strike' })
    await fastTo(page, id, 'approve')
    await show(page, `/jobs/${id}/parts?view=estimate`)
    await page.getByRole('button', { name: 'Make the estimate' }).click()
    const decision = page.getByRole('region', { name: 'Decision' })
    await decision.getByText('stop here').click()
    await decision.getByText(words).click()
    await decision.getByLabel('How it was said').fill('by telephone')
    await decision.getByRole('button', { name: 'Record the decision' }).click()
    await expect(decision).toContainText(words)
    await fastTo(page, id, 'handover')
    await show(page, `/jobs/${id}/route`)
    await expect(panel(page)).not.toContainText('Before it leaves the shop')
    await panel(page)
      .getByRole('button', { name: /next step/i })
      .click()
    await page.getByRole('link', { name: 'To the record' }).click()
    await expect(page.locator('main')).toContainText(words)
    const { state } = (await jobOf(page, id)).work
    expect(state.end).toBe(end)
    expect(state.parts.get('propeller')!.at).toBe(end === 'boat' ? 'in' : 'tray')
  })

test('a strike that ends with an exchange unit: what is kept by name goes over to it', async ({ page }) => {
  const id = await openJob(page, 'lomvi-90', { usual: 'strike' })
  await fastTo(page, id, 'approve')
  await show(page, `/jobs/${id}/parts?view=estimate`)
  await page.getByRole('button', { name: 'Make the estimate' }).click()
  const decision = page.getByRole('region', { name: 'Decision' })
  await decision.getByText('exchange unit').click()
  await expect(decision.getByLabel('Propeller', { exact: true })).toBeChecked()
  await decision.getByLabel('How it was said').fill('by telephone')
  await decision.getByRole('button', { name: 'Record the decision' }).click()
  await expect(decision).toContainText('Kept: ')
  await fastTo(page, id, 'nothing more')
  const job = await jobOf(page, id)
  expect([job.state, job.work.lines]).toEqual(['finished', []])
  expect(await done(page, id)).toEqual(
    expect.arrayContaining(['unit-look', 'leak-case', 'first-run', 'propeller']),
  )
})

test('a strike that is rebuilt is set and proved anew', { tag: '@long' }, async ({ page }) => {
  test.setTimeout(300_000)
  const id = await openJob(page, 'lomvi-90', { usual: 'strike' })
  await fastTo(page, id, 'nothing more')
  const job = await jobOf(page, id)
  expect([job.state, job.work.lines]).toEqual(['finished', []])
})

test(
  'a gear set of an upper whose nut presses through a sleeve: bearings on the old gears are new, the torque is read',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'alke-2-upper', { usual: 'gear-set' })
    await show(page, `/jobs/${id}/scope`)
    await expect(page.getByLabel('Plan')).toContainText('Input taper pair pressed on what is scrapped')
    await fastTo(page, id, 'nothing more')
    const job = await jobOf(page, id)
    expect([job.state, job.work.lines]).toEqual(['finished', []])
    expect(job.work.acts.filter((a) => a.do === 'accept').map((a) => a.on)).toEqual(
      expect.arrayContaining(job.plan.disturbed),
    )
    // what was pressed off and graded good stays on the new gears; the gears are others
    const { parts } = job.work.state
    expect(['input-gear', 'vertical-gear'].map((p) => parts.get(p)!.instance)).toEqual([2, 2])
    expect(job.plan.renew.map((r) => r.why)).not.toContain('pressed')
  },
)

test('a drive in boxes: nothing is taken apart, everything is proved', { tag: '@long' }, async ({ page }) => {
  test.setTimeout(300_000)
  await show(page, '/')
  await page.getByRole('button', { name: 'A drive comes in' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Serial number').fill('LV90-BOX')
  await dialog.getByLabel('Drive').selectOption({ label: 'Lomvi 90' })
  await dialog.getByLabel('Boat').fill('Alke')
  await dialog.getByLabel('Owner').fill('Pilot station Ytre Sund')
  await dialog.getByLabel('Complaint').fill('Taken apart at sea, and brought in a box')
  // opened by somebody needs to know what is off
  await dialog.getByLabel('How it came').selectOption('opened')
  await dialog.getByRole('button', { name: 'Open the job' }).click()
  await expect(dialog).toContainText('names nothing yet')
  await dialog.getByLabel('How it came').selectOption('boxes')
  await dialog.getByRole('button', { name: 'Open the job' }).click()
  await expect(page).toHaveURL(/route$/)
  const id = /jobs\/([^/]+)\//.exec(page.url())![1]!
  await show(page, `/jobs/${id}/parts?view=row`)
  await fastTo(page, id, 'nothing more')
  const job = await jobOf(page, id)
  expect([job.state, job.work.lines]).toEqual(['finished', []])
  const steps = await done(page, id)
  expect(steps.filter((s) => ['apart', 'drain', 'as-found', 'leak-found'].includes(s))).toEqual([])
  expect(steps).toEqual(expect.arrayContaining(['unit-ratio', 'leak-case', 'first-run']))
})

test(
  'what is open at handover is mended where its link leads, or accepted by name',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'lomvi-90', { usual: 'seals:propshaft' })
    await fastTo(page, id, 'ring-mounted')
    await show(page, `/jobs/${id}/route`)
    await fastTo(page, id, 'handover')
    // the tab had not caught: the ring is slackened once more
    const ring = (await jobOf(page, id)).closings.find((c) => c.step === 'ring-mounted')!
    await show(page, `/jobs/${id}/route?step=${ring.step}`)
    await panel(page).getByRole('button', { name: 'It was undone since' }).click()
    await page.getByLabel('Reason').fill('the tab had not caught')
    await page.getByRole('dialog').getByRole('button', { name: 'It was undone' }).click()
    await show(page, `/jobs/${id}/route?step=handover`)
    const lines = panel(page).getByRole('region', { name: 'Before it leaves the shop' })
    await expect(lines).toContainText('loosened, and not tightened since')
    await expect(panel(page).getByRole('button', { name: /next step/i })).toBeDisabled()
    await lines
      .getByRole('link', { name: /torque/i })
      .first()
      .click()
    await expect(page).toHaveURL(/step=ring-mounted-2/)
    await fastTo(page, id, 'leak-case-2')
    await show(page, `/jobs/${id}/route`)
    await panel(page).getByRole('button', { name: 'none of this was done here' }).click()
    await panel(page)
      .getByRole('button', { name: /next step/i })
      .click()
    await show(page, `/jobs/${id}/route?step=handover`)
    await lines.getByRole('button', { name: 'Accept: Carrier: opened, and not proved tight since' }).click()
    await page.getByLabel('Reason').fill('the owner tests it himself, and has signed')
    await page.getByRole('dialog').getByRole('button', { name: 'Accept it' }).click()
    await expect(lines).toContainText('Accepted by Ylva Tangvik: the owner tests it himself')
  },
)
