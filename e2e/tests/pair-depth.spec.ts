import { expect, test } from './test.ts'
import { show } from '../pages.ts'
import type { SheetDraft } from '@moray/contract/replies'
import { meshGeometry } from '@moray/core/gears/mesh'
import { pairDepthMeasures } from '@moray/core/setting/pair-depth'
import { jobOf, openJob, post } from './hand.ts'

const sine = (deg: number) => Math.sin((deg * Math.PI) / 180)

test(
  'a depth that no manual prints is found by a ride-height search, and judges the pinion from then on',
  { tag: '@long' },
  async ({ page }) => {
    const name = `Ukjent ${crypto.randomUUID().slice(0, 8)}`
    const made = await post(page, '/api/drives', { name, family: 'outboard-fnr' })
    expect(made.status, JSON.stringify(made.body)).toBe(201)
    const drive = (made.body as unknown as SheetDraft).body.id
    const figure = (path: string, text: string, source = 'manual') =>
      post(page, `/api/drives/${drive}/figures`, { path, text, source, was: '' })
    for (const [path, text] of [
      ['gears.pinion.teeth', '13'],
      ['gears.forward-gear.teeth', '28'],
      ['measures.depth.nominal', 'of-the-pair'],
      ['measures.depth.how.method', 'arbor'],
      ['measures.depth.how.arborDiameterMm', '20'],
    ] as const) {
      const { status, body } = await figure(path, text, path.endsWith('teeth') ? 'counted' : 'manual')
      expect(status, `${path} ${JSON.stringify(body)}`).toBe(201)
    }
    const job = await openJob(page, drive, undefined)
    const { sheet } = await jobOf(page, job)
    const [pair] = pairDepthMeasures(sheet)
    const g = meshGeometry(pair!.mesh)
    const wedge = sine(g.pinionPitchAngleDeg) / sine(g.gearPitchAngleDeg)
    const best = 46.3
    const ride = (p: number) => (60 - wedge * (p - best) + 0.5 * (p - best) ** 2).toFixed(3)

    await show(page, `/jobs/${job}/setting?at=measure:pair:depth`)
    await expect(page.locator('.panel h2')).toContainText('Wanted by this pair')
    await page.getByRole('button', { name: 'All of it holds' }).click()
    const places = ['45.90', '46.10', '46.35', '46.60', '46.80']
    for (const [i, place] of places.entries()) {
      if (i < 4) await expect(page.getByRole('button', { name: 'Take it as wanted' })).toBeDisabled()
      await page.getByLabel(`Place ${i + 1} of the pinion`).fill(place)
      await page.getByRole('textbox', { name: `Gear rides out, place ${i + 1}` }).fill(ride(Number(place)))
      await page.getByRole('textbox', { name: `Gear rides out, place ${i + 1}` }).press('Enter')
      await expect(page.locator('.ride .points li')).toHaveCount(i + 1)
    }
    const says = await page.locator('.ride strong.live').innerText()
    expect(Math.abs(Number.parseFloat(says) - best)).toBeLessThanOrEqual(0.02)
    // the points are kept while they are gathered
    await page.reload()
    await expect(page.locator('.ride .points li')).toHaveCount(places.length)
    await page.getByRole('button', { name: 'Take it as wanted' }).click()
    await expect(page.locator('.ride .points li')).toHaveCount(0)
    await expect
      .poll(async () => (await jobOf(page, job)).builds[0]!.assessment.measures.depth!.window.min)
      .toBeCloseTo(best - 0.05, 1)
    const [kept] = (await jobOf(page, job)).builds[0]!.readings
    expect(kept!.how!.rides).toHaveLength(places.length)

    // the pinion is held against it
    await show(page, `/jobs/${job}/setting?at=measure:depth`)
    const field = page.getByRole('textbox', { name: /Reading to the arbor, reading 1/ })
    await field.fill('36.30')
    await field.press('Enter')
    await expect(page.locator('.result .live')).toContainText('46.30')
    await expect(page.locator('.result')).toContainText('inside')
  },
)
