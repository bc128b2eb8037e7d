import { expect, test, type Page } from './test.ts'
import { show } from '../pages.ts'
import { isDerived, settingMeasures } from '@moray/core/setting/measures'
import type { JudgedBuild } from '@moray/core/job/judge-builds'
import { sensitivities } from '@moray/core/setting/train'
import { seatReading } from '@moray/core/simulation/seat-reading'
import { jobOf, openJob, post } from './hand.ts'

/** Setting on the real pages, against cases whose truth is known here: what a gauge shows is computed, typed, and what comes of it is looked at. */

const field = (page: Page) => page.locator('.panel input.text')
const heading = (page: Page) => page.locator('.panel h2')

/** What a case truly reads: as found, and how every measure answers. */
interface Truth {
  stacks: Record<string, number>
  reads: Record<string, number>
  /** How far the case answers otherwise than the sheet says: measure id to a factor. */
  answers?: Record<string, number>
}
type Sheet = Awaited<ReturnType<typeof jobOf>>['sheet']
function truly(sheet: Sheet, truth: Truth, measure: string, stacks: Record<string, number>): number {
  const factor = truth.answers?.[measure] ?? 1
  return Object.entries(sensitivities(sheet)[measure]!).reduce(
    (sum, [s, j]) => sum + factor * j * (stacks[s]! - truth.stacks[s]!),
    truth.reads[measure]!,
  )
}

/** Stacks as found, over the wire: how they are typed is another test's. */
async function enterStacks(page: Page, id: string, stacks: Record<string, number>) {
  for (const [location, mm] of Object.entries(stacks)) {
    const { status, body } = await post(page, `/api/jobs/${id}/stacks`, {
      location,
      unit: 'mm',
      pieces: [{ text: `${mm} mm` }],
    })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
  }
}

/** Types what is due in the newest build until it is to be decided, as the gauges show it. */
async function readAll(
  page: Page,
  id: string,
  truth: Truth,
  { really, also }: { really?: Record<string, number>; also?: string } = {},
) {
  for (let n = 0; n < 30; n++) {
    const job = await jobOf(page, id)
    const build: JudgedBuild = job.builds.at(-1)!
    const due = build.assessment.due.find((d) => d.kind === 'reading')?.measure
    const next = due ?? (also && !build.state.readings[also] ? also : undefined)
    if (!next) return job
    const measure = settingMeasures(job.sheet).find((m) => m.id === next)!
    const stacks = { ...build.state.stacks, ...really }
    const value = truly(job.sheet, truth, measure.id, stacks)
    if (!(await heading(page).innerText()).startsWith(measure.label))
      await show(page, `/jobs/${id}/setting?at=measure:${measure.id}`)
    await expect(heading(page)).toHaveText(measure.label)
    let shown = value
    if (measure.kind === 'crush') {
      await page.getByText(value < 0 ? 'float of the ring' : 'gap under the cover', { exact: true }).click()
      shown = Math.abs(value)
    } else if (measure.kind === 'seat') {
      const { raw, how } = seatReading(measure, stacks[measure.by]! + value)
      await page.getByLabel('Case, from its mark or measured').fill(`${how.seat!.caseMm} mm`)
      await page.getByLabel('Nominal distance, from the manual').fill(`${how.seat!.nominalMm} mm`)
      shown = raw
    } else if (measure.kind === 'depth') {
      if (measure.how.method !== 'master-drop') throw new Error('another depth than this test reads')
      shown = 50.003 - value
    }
    const answered = page.waitForResponse(
      (r) => r.url().endsWith('/readings') && r.request().method() === 'POST',
    )
    await field(page).fill(`${shown.toFixed(3)} ${measure.kind === 'rolling-torque' ? 'Nm' : 'mm'}`)
    await field(page).press('Enter')
    // a likely blunder is asked about; here it is meant
    if (await page.getByText('Enter again if it is meant').isVisible()) await field(page).press('Enter')
    expect((await answered).status(), `${measure.id} ${shown}`).toBe(201)
  }
  throw new Error('never decided')
}

async function buildBest(page: Page, trial: number) {
  const plan = page.locator('.card.open')
  await expect(page.getByText(/best plans? out of the drawer|One plan/)).toBeVisible()
  // the drawer is everybody's: another bench may take a piece of the plan first, and then the hand looks and builds again
  await expect(async () => {
    const [dialog, round] = [page.getByRole('dialog'), page.locator('.round.open .name')]
    if ((await round.innerText()).includes(`Trial ${trial}`)) return
    if (await dialog.isVisible()) await page.keyboard.press('Escape')
    await plan.getByRole('button', { name: 'Build this' }).click({ timeout: 10_000 })
    await dialog.getByRole('button', { name: 'Build this' }).click({ timeout: 10_000 })
    await expect(round).toContainText(`Trial ${trial}`, { timeout: 15_000 })
  }).toPass({ timeout: 90_000 })
}
const decide = (page: Page, id: string) => show(page, `/jobs/${id}/setting?at=decide`)

test(
  'a reversing upper: three gears and a crush by their stacks, the preload by two trials, to as built',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(300_000)
    const id = await openJob(page, 'havhest-r-upper', undefined)
    const truth: Truth = {
      stacks: { upper: 0.8, lower: 0.95, input: 0.9, top: 0.6, preload: 0.8 },
      reads: {
        'bearing:input-inner': 1.5,
        'seat:input': 0.12,
        'backlash-upper': 0.33,
        'backlash-lower': 0.2,
        'bearing:top-ball': -0.1,
      },
      // the bearings answer with two thirds of what the sheet prints
      answers: { 'bearing:input-inner': 0.66 },
    }
    await enterStacks(page, id, truth.stacks)
    await show(page, `/jobs/${id}/setting`)
    // as found, gears in mesh and cover on: backlash only
    await readAll(page, id, truth)
    await decide(page, id)
    await page.getByRole('button', { name: 'Built up again with the same stacks: measure anew' }).click()
    await expect(page.locator('.round.open .name')).toContainText('Trial 1')
    await expect(heading(page)).toHaveText('Rolling torque, input taper, inner')
    // its gear was renewed, which nobody has graded: its seat is read although it is not asked for
    let job = await readAll(page, id, truth, { also: 'seat:input' })
    const first = job.builds.at(-1)!
    expect(first.asked.filter(isDerived).map((m) => m.kind)).toEqual(['rolling-torque', 'crush'])
    const verdict = (b: JudgedBuild, m: string) => b.assessment.measures[m]!.judgement!.verdict
    expect(['bearing:input-inner', 'seat:input', 'bearing:top-ball'].map((m) => verdict(first, m))).toEqual([
      'out',
      'out',
      'out',
    ])
    await decide(page, id)
    // all of it in one question: every stack of the sheet is in the plan
    for (const stack of ['Upper gear shims', 'Input shims', 'Top bearing shims', 'Input preload shims'])
      await expect(page.locator('.card.open .stacks')).toContainText(stack)
    await buildBest(page, 2)
    job = await readAll(page, id, truth)
    expect(verdict(job.builds.at(-1)!, 'bearing:top-ball')).toBe('in')
    // the slope that two trials have shown is the one that the third is built by
    for (let trial = 3; !job.builds.at(-1)!.assessment.allIn; trial++) {
      expect(trial, 'so many trials are not needed').toBeLessThan(6)
      await decide(page, id)
      await buildBest(page, trial)
      job = await readAll(page, id, truth)
    }
    await decide(page, id)
    await page.getByRole('button', { name: 'Accept as built' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Accept as built' }).click()
    await expect(heading(page)).toHaveText('Accepted as built')
    job = await jobOf(page, id)
    const { stacks } = job.builds.at(-1)!.state
    for (const m of job.builds.at(-1)!.asked) {
      const { min = -Infinity, max = Infinity } = m.window
      const value = truly(job.sheet, truth, m.id, stacks)
      expect(value, m.id).toBeGreaterThanOrEqual(min)
      expect(value, m.id).toBeLessThanOrEqual(max)
    }
    // both steps of the route that stand for it have closed by themselves once they are reached
    await show(page, `/jobs/${id}/record`)
    await expect(page.locator('.record')).toContainText('Input preload shims')
    await expect(page.locator('.record')).toContainText('Crush, top bearing')
  },
)

test(
  'a shim that was counted and is not in is caught, with its stack and its thickness',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(200_000)
    const id = await openJob(page, 'lomvi-90', undefined)
    const truth: Truth = {
      stacks: { pinion: 0.62, forward: 0.75, reverse: 0.9 },
      reads: {
        'bearing:driveshaft-lower': 0.6,
        depth: 38.47,
        'backlash-forward': 0.6,
        'backlash-reverse': 0.8,
      },
    }
    await enterStacks(page, id, truth.stacks)
    await show(page, `/jobs/${id}/setting`)
    await readAll(page, id, truth)
    await decide(page, id)
    await buildBest(page, 1)
    const built = (await jobOf(page, id)).builds.at(-1)!
    const pieces = built.stacks.find((s) => s.location === 'reverse' && !s.superseded)!.pieces
    const lost = pieces.reduce((a, b) => (b.thicknessMm > a.thicknessMm ? b : a))
    // one piece of the reverse stack lies on the bench still
    await readAll(page, id, truth, {
      really: { reverse: built.state.stacks.reverse! - lost.thicknessMm },
    })
    await decide(page, id)
    const warned = page.locator('.panel .warned, .panel .fault').filter({ hasText: 'Likeliest' })
    await expect(warned).toContainText('Reverse shims: as if')
    await expect(warned).toContainText('thinner than recorded')
    await expect(warned).toContainText(`The piece of ${lost.thicknessMm.toFixed(3)} mm`)
    await expect(warned).toContainText('measure and count each')
  },
)

test('places round the gear are read by the clock, a swing by its turning point, and a coarse gauge is told before', async ({
  page,
}) => {
  const id = await openJob(page, 'lomvi-90', undefined)
  await show(page, `/jobs/${id}/setting?at=measure:backlash-forward`)
  for (const [hour, text] of [
    ['12', '.44'],
    ['3', '.47'],
    ['6', '.51'],
    ['9', '.48'],
  ] as const) {
    // the next place comes up by itself after the first
    if (hour === '12') await page.locator('.places label', { hasText: "12 o'clock" }).click()
    const answered = page.waitForResponse((r) => r.url().endsWith('/readings'))
    await field(page).fill(`${text} mm`)
    await field(page).press('Enter')
    expect((await answered).status()).toBe(201)
    if (hour !== '9') {
      await page.goto(`/jobs/${id}/setting?at=measure:backlash-forward`)
      await expect(page.locator('.readings li').first()).toBeVisible()
    }
  }
  await show(page, `/jobs/${id}/setting?at=measure:backlash-forward`)
  await expect(page.locator('.panel')).toContainText("tightest, 12 o'clock")
  await expect(page.locator('.panel .round')).toContainText('0.44 mm')
  await expect(page.locator('.panel .round')).toContainText('0.51 mm')

  await show(page, `/jobs/${id}/setting?at=measure:depth`)
  await page.getByText('Swung over it').click()
  for (const text of ['11.56', '11.51', '11.48', '11.49', '11.54']) {
    await field(page).fill(text)
    await field(page).press('Enter')
  }
  await expect(page.locator('.turning')).toContainText('11.4')
  const taken = page.waitForResponse((r) => r.url().endsWith('/readings'))
  await page.getByRole('button', { name: 'Take the turning point' }).click()
  expect((await taken).status()).toBe(201)
  await expect(page.locator('.readings li')).toContainText('lowest of a swing of 5')

  // an old dial of a twentieth on a window of a tenth: said before anything is measured, with what would do
  const { status } = await post(page, '/api/gauges', {
    kind: 'lever-dial',
    name: 'Old dial of the shop',
    figures: {
      resolution: 0.05,
      mpe: 0.05,
      repeatability: 0.02,
      masters: [],
      perTurnMm: 1,
      intervalMonths: 12,
    },
    calibratedOn: '2026-11-01',
  })
  expect(status).toBe(201)
  await show(page, `/jobs/${await openJob(page, 'alke-2-upper', undefined)}/setting?at=measure:backlash`)
  const panel = page.locator('.panel')
  await expect(heading(page)).toHaveText('Backlash at the yoke')
  await expect(panel).not.toContainText('too coarse')
  await panel.getByRole('combobox', { name: 'Gauge' }).click()
  await page.getByRole('option', { name: 'Old dial of the shop' }).click()
  await expect(panel).toContainText('too coarse to tell that this window is met')
  await expect(panel).toContainText('Backlash arm with dial')
})

test('a hand that is quicker than the line loses no entry: nothing is typed before the gauges are there, or while they fail', async ({
  page,
}) => {
  const id = await openJob(page, 'lomvi-90', undefined)
  let answer!: () => void
  const held = new Promise<void>((go) => (answer = go))
  let down = true
  await page.route('**/api/gauges', async (route) => {
    if (down)
      return route.fulfill({
        status: 503,
        json: { error: { code: 'busy', message: 'Not now.', fields: [] } },
      })
    await held
    await route.continue()
  })
  await page.goto(`/jobs/${id}/setting?at=measure:backlash-forward`)
  const failed = page.locator('.panel .state')
  await expect(failed).toContainText('Could not load the gauges. Not now.')
  down = false
  await failed.getByRole('button', { name: 'Try again' }).click()
  await expect(failed).toContainText('Loading the gauges')
  await expect(field(page)).toHaveCount(0)
  answer()
  await field(page).fill('.47 mm')
  await field(page).press('Enter')
  await expect(page.locator('.readings li')).toHaveCount(1)
})

test(
  'two coaxial shafts are read round the clock, each with its own verdict, and the bent one is marked',
  { tag: '@long' },
  async ({ page }) => {
    test.setTimeout(200_000)
    const id = await openJob(page, 'havsule-duo-lower', undefined)
    const { sheet } = await jobOf(page, id)
    const [first, second] = sheet.axes.filter((a) => a.line === 'horizontal').map((a) => a.id) as [
      string,
      string,
    ]
    const read = async (axis: string, zone: number, e: number, along: string) => {
      await show(page, `/jobs/${id}/setting?at=runout:${axis}:${zone}`)
      const label = sheet.axes.find((a) => a.id === axis)!.label
      await expect(heading(page)).toContainText(label)
      if (await page.getByRole('button', { name: 'All of it holds' }).isVisible())
        await page.getByRole('button', { name: 'All of it holds' }).click()
      await page.getByLabel('How far along the shaft').fill(along)
      for (let i = 0; i < 8; i++) {
        await expect(page.locator('.panel')).toContainText(`Indicator at ${i + 1} of 8`)
        const answered = page.waitForResponse((r) => r.url().endsWith('/readings'))
        // high at the fourth of eight: 135 degrees
        await field(page).fill(`${(e * Math.cos(((45 * i - 135) * Math.PI) / 180)).toFixed(3)} mm`)
        await field(page).press('Enter')
        const reply = await answered
        expect(reply.status(), await reply.text()).toBe(201)
      }
    }
    await read(first, 0, 0.005, '100')
    const round = page.getByRole('region', { name: 'Round the shaft' })
    await expect(round.locator('tbody tr').first()).toContainText('inside')
    await read(second, 0, 0.004, '80')
    await read(second, 1, 0.005, '160')
    await read(second, 2, 0.12, '240')
    await expect(round.locator('tbody tr').nth(2)).toContainText('outside')
    await expect(round.locator('tbody tr').nth(2)).toContainText('4 of 8 (135°)')
    await expect(round).toContainText('Bent')
    await expect(round).toContainText('Mark the high side at 4 of 8')
    await expect(round.locator('canvas, svg').first()).toBeVisible()
    // the other shaft is as it was
    await show(page, `/jobs/${id}/setting?at=runout:${first}:0`)
    await expect(round.locator('tbody tr').first()).toContainText('inside')
    await show(page, `/jobs/${id}/record`)
    await expect(page.getByRole('region', { name: 'Runout of shafts' })).toContainText('outside')
  },
)
