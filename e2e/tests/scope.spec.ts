import { expect, test } from './test.ts'
import { show } from '../pages.ts'
import { answerShown, fastTo, jobOf, openJob, panel, post, workTo } from './hand.ts'

const CLOSED = /next step|Next step/

test(
  'seals of a propeller shaft, from receiving to handover: under 45 answers, no departure',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(400_000)
    await show(page, '/')
    await page.getByRole('button', { name: 'A drive comes in' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Serial number').fill('LV90-31007')
    await dialog.getByLabel('Drive').selectOption({ label: 'Lomvi 90' })
    await dialog.getByLabel('What for').selectOption({ label: 'Seals of the propeller shaft' })
    await dialog.getByLabel('Boat').fill('Alke')
    await dialog.getByLabel('Owner').fill('Pilot station Ytre Sund')
    await dialog.getByLabel('Complaint').fill('Drips at the propeller')
    await dialog.getByRole('button', { name: 'Open the job' }).click()
    // the plan stands there before anything is opened
    const plan = page.getByLabel('Plan')
    await expect(plan).toContainText('9 of 35')
    await expect(plan).toContainText('Not disturbed: Pinion depth, Forward backlash, Reverse backlash')
    await expect(plan).toContainText('The unit stays on the boat')
    const id = /jobs\/([^/]+)\//.exec(page.url())![1]!
    const answers = await workTo(page, id)
    const job = await jobOf(page, id)
    expect(job.state).toBe('finished')
    expect(answers).toBeLessThan(45)
    expect(job.closings.flatMap((c) => c.departedFrom)).toEqual([])
    expect(job.closings.map((c) => c.step)).not.toContain('pattern')
    // handing it over ends with the record
    await page.getByRole('link', { name: 'To the record' }).click()
    await expect(page.getByRole('region', { name: 'Scope' })).toContainText('Not disturbed: Pinion depth')
  },
)

test('a place on the drawing becomes the scope, and says what it disturbs', async ({ page }) => {
  const id = await openJob(page, 'lomvi-90', undefined)
  await show(page, `/jobs/${id}/scope`)
  const plan = page.getByLabel('Plan')
  await expect(plan).toContainText('35 of 35')
  await page.getByRole('button', { name: 'Clutch', exact: true }).click()
  await expect(plan).toContainText('No trial build and no pattern')
  // a gear is clicked: it comes with its set, and everything is set again
  await page.locator('svg polygon.gear-body').first().click()
  await expect(plan.getByRole('heading', { level: 2 })).toHaveText('Picked by hand')
  await expect(plan).toContainText('Disturbed, set again')
  await expect(plan).toContainText('sold together with it')
  await plan.getByRole('button', { name: 'take in shift shaft seal and o-ring' }).click()
  await plan.getByLabel('Why').fill('owner wants the gears renewed')
  await plan.getByRole('button', { name: 'Take this scope' }).click()
  await expect(page).toHaveURL(/route$/)
  const job = await jobOf(page, id)
  expect(job.scopes.at(-1)).toMatchObject({ usual: 'own', reason: 'owner wants the gears renewed' })
  expect(job.plan.off.map((p) => p.id)).toEqual(
    expect.arrayContaining(['clutch-dog', 'shift-seal', 'pinion']),
  )
})

test(
  'a clutch with gears not disturbed is checked by one reading, without a trial build',
  { tag: '@long' },
  async ({ page }) => {
    const id = await openJob(page, 'lomvi-90', { usual: 'clutch' })
    await fastTo(page, id, 'check-set')
    await show(page, `/jobs/${id}/route`)
    await expect(panel(page).getByRole('heading', { name: /One check reading/ })).toBeVisible()
    await expect(page.getByRole('button', { name: /^Set\d/ })).toHaveCount(0)
    await panel(page).getByRole('button', { name: CLOSED }).click()
    await expect(
      panel(page).getByRole('heading', { name: 'Pressure-test this case on its own' }),
    ).toBeVisible()
  },
)

test(
  'a refit is proved, joined, filled and run, and nothing is opened',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'lomvi-90', { usual: 'refit' })
    await show(page, `/jobs/${id}/scope`)
    await expect(page.getByLabel('Plan')).toContainText('Nothing is opened')
    await workTo(page, id)
    const done = (await jobOf(page, id)).closings.map((c) => c.step)
    expect(done).toEqual(
      expect.arrayContaining(['unit-look', 'leak-case', 'join', 'fill-mounted', 'first-run', 'handover']),
    )
    expect(done).not.toContain('apart')
  },
)

test('a bought-in unit cannot be handed over untested', async ({ page }) => {
  const id = await openJob(page, 'lomvi-90', { usual: 'unit' })
  await fastTo(page, id, 'leak-case')
  await show(page, `/jobs/${id}/route`)
  // the honest way out: it was not done; what must rest on it stays shut
  await panel(page).getByRole('button', { name: 'none of this was done here' }).click()
  await expect(panel(page)).toContainText('not done here')
  await panel(page).getByRole('button', { name: CLOSED }).click()
  await expect(panel(page).getByRole('heading', { name: 'Pressure-test this case on its own' })).toBeHidden()
  await show(page, `/jobs/${id}/route?step=handover`)
  await expect(panel(page)).toContainText('not handed over untested')
  await panel(page).getByRole('button', { name: 'Go on all the same' }).click()
  await page.getByLabel('Reason').fill('the owner waits on the quay')
  await page.getByRole('dialog').getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('is refused')
})

test('a leak is repaired in a loop: place, reach, and what was opened comes up again', async ({ page }) => {
  test.setTimeout(300_000)
  const id = await openJob(page, 'lomvi-90', { usual: 'clutch' })
  const job = await fastTo(page, id, 'leak-case')
  const step = job.progress.due!.step
  await show(page, `/jobs/${id}/route`)
  await answerShown(page, job, step)
  await panel(page).locator('.ask[data-fact="leak-case.end"] input').fill('40')
  await panel(page).getByRole('button', { name: CLOSED }).click()
  await expect(page.getByLabel('Attempts that did not count')).toContainText('Not proved tight')
  // the loop says what it reaches before it is begun
  await page.locator('details.about summary').click()
  await page.getByRole('button', { name: 'open it again for a repair' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Part').selectOption({ label: 'Propeller shaft seals' })
  await dialog.getByLabel('What was seen, and where').fill('bubbles at the propeller shaft')
  await expect(dialog).toContainText('Nothing that sets the gears is disturbed')
  await dialog.getByRole('button', { name: 'Open the repair' }).click()
  await expect(panel(page).getByRole('heading', { name: '(repair 1)' })).toBeVisible()
  await workTo(page, id, 'fill-mounted')
  const after = await jobOf(page, id)
  expect(after.facts['leak-case.verdict']).toBe('tight')
  expect(after.closings.filter((c) => c.step === 'leak-case')).toHaveLength(2)
  await show(page, `/jobs/${id}/record`)
  await expect(page.getByRole('region', { name: 'Repairs after closing' })).toContainText(
    'bubbles at the propeller shaft',
  )
})

test('upper and lower are one unit, to the joined test', { tag: '@long' }, async ({ page }) => {
  test.setTimeout(300_000)
  const lower = await openJob(page, 'alke-2-lower', { usual: 'seals:propshaft', mounted: false })
  await show(page, `/jobs/${lower}/route`)
  await page.locator('details.about summary').click()
  await page.getByRole('button', { name: 'its other half in this job' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('Other half')).toHaveValue('alke-2-upper')
  await dialog.getByLabel('Its serial number').fill('A2U-555')
  await dialog.getByRole('button', { name: 'Take it in' }).click()
  await expect(page.getByRole('heading', { name: /Alke 2 upper/ }).first()).toBeVisible()
  const upper = /jobs\/([^/]+)\//.exec(page.url())![1]!
  expect(upper).not.toBe(lower)
  await page.getByRole('button', { name: 'Seals of the input shaft' }).click()
  await page.getByLabel('the unit stays on the boat').uncheck()
  await page.getByRole('button', { name: 'Take this scope' }).click()
  await expect(page).toHaveURL(/route$/)

  await fastTo(page, lower, 'join')
  await show(page, `/jobs/${lower}/route?step=join`)
  await expect(panel(page)).toContainText('other case of this unit is not closed and proved yet')
  await fastTo(page, upper, 'handover')
  await show(page, `/jobs/${lower}/route`)
  await page.getByRole('link', { name: 'Alke 2 upper' }).click()
  await expect(panel(page)).toContainText('joined, filled and run on its route first')
  await fastTo(page, lower, 'unit-overall')
  await show(page, `/jobs/${lower}/route`)
  await expect(panel(page).getByRole('heading', { name: 'Count the ratio of the joined unit' })).toBeVisible()
  await workTo(page, lower, 'fill-mounted')
  expect((await jobOf(page, lower)).facts['leak-joined.verdict']).toBe('tight')
})

test('two technicians on one job see each their work, and close a step once', async ({ page, another }) => {
  const id = await openJob(page, 'lomvi-90', undefined)
  await fastTo(page, id, 'identify')
  await show(page, `/jobs/${id}/route`)
  const other = await another({ who: 'joar' })
  await other.goto(`/jobs/${id}/route?step=drain`)
  await expect(panel(other).getByRole('heading', { name: 'Drain the oil and read it' })).toBeVisible()
  const job = await jobOf(page, id)
  const drain = job.route.steps.find((s) => s.id === 'drain')!
  await answerShown(other, job, drain)
  const asked: string[] = []
  other.on('request', (r) => void (r.method() === 'GET' && asked.push(new URL(r.url()).pathname)))
  await panel(other).getByRole('button', { name: CLOSED }).click()
  // the first one is not disturbed in his own step, and sees the other's done
  await expect(page.locator('.steps li', { hasText: 'Drain the oil and read it' })).toContainText('done')
  await expect(panel(page).getByRole('heading', { name: /Identify drive/ })).toBeVisible()
  // his own write answered for itself; what somebody else writes is asked for, once, and the bench is no business of this page
  await post(page, `/api/jobs/${id}/open-items`, { text: 'Anode on order' })
  await expect(other.getByRole('button', { name: '1 open' })).toBeVisible()
  expect(asked.filter((path) => path === `/api/jobs/${id}` || path === '/api/jobs')).toEqual([
    `/api/jobs/${id}`,
  ])
  const twice = await post(page, `/api/jobs/${id}/steps`, { step: 'drain', answers: {} }, 'joar')
  expect(twice.status).toBe(422)
  expect(twice.body.error!.message).toContain('done already')
})

test('two windows on one step: what is half given stays when the other closes it, and can be taken as a correction', async ({
  page,
  another,
}) => {
  const id = await openJob(page, 'lomvi-90', undefined)
  await fastTo(page, id, 'drain')
  await show(page, `/jobs/${id}/route`)
  await expect(panel(page).getByRole('heading', { name: 'Drain the oil and read it' })).toBeVisible()
  const other = await another({ who: 'joar' })
  await other.goto(`/jobs/${id}/route`)
  const drain = (await jobOf(page, id)).route.steps.find((s) => s.id === 'drain')!
  // half of it here, all of it there
  const volume = panel(page).getByLabel(/Drained/)
  await volume.fill('333')
  await answerShown(other, await jobOf(page, id), drain)
  await panel(other).getByRole('button', { name: CLOSED }).click()
  const word = panel(page).getByRole('region', { name: 'Closed meanwhile' })
  await expect(word).toContainText('Joar Skjelbu has closed this step meanwhile')
  await expect(word).toContainText('333 ml')
  await expect(panel(page).getByRole('heading', { name: 'Drain the oil and read it' })).toBeVisible()
  await word.getByRole('button', { name: 'Correct it with mine' }).click()
  await expect(panel(page).getByLabel(/Drained/)).toHaveValue('333')
  await panel(page).getByRole('button', { name: 'Correct it', exact: true }).click()
  await page.getByRole('dialog').getByRole('textbox').fill('measured it here')
  await page.getByRole('dialog').getByRole('button', { name: 'Correct it' }).click()
  // then on with what is due
  await expect(panel(page).getByRole('heading', { name: 'Drain the oil and read it' })).toBeHidden()
  const closing = (await jobOf(page, id)).closings.findLast((c) => c.step === 'drain' && !c.takenBack)!
  expect(Object.values(closing.answers)).toContain(333)
})

test('open items are written from any page of the job, settled by name, and hold the handover', async ({
  page,
}) => {
  const id = await openJob(page, 'lomvi-90', { usual: 'pump' })
  await show(page, `/jobs/${id}/setting`)
  await page.getByRole('button', { name: 'Open items' }).click()
  await page.getByLabel('What is open').fill('Plain plug where the magnetic one belongs')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('dialog')).toContainText('Plain plug')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: '1 open' })).toBeVisible()
  await fastTo(page, id, 'handover')
  await show(page, `/jobs/${id}/route`)
  await expect(panel(page)).toContainText('Open items are left')
  await page.getByRole('button', { name: '1 open' }).click()
  await page.getByRole('button', { name: 'settle it' }).click()
  await page.getByLabel(/How was it settled/).fill('magnetic plug fitted')
  await page.getByRole('button', { name: 'Settled' }).click()
  await expect(page.getByRole('dialog')).toContainText('Settled: magnetic plug fitted')
  await page.keyboard.press('Escape')
  await expect(panel(page).getByRole('button', { name: CLOSED })).toBeEnabled()
})
