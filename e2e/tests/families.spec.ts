import { expect, test } from './test.ts'
import { complaints, goTo, show } from '../pages.ts'

/** A drive of each family with nothing but a name on its sheet: everything opens, and nothing is made up for what is missing. */
const FAMILIES = [
  'outboard-fnr',
  'stern-upper',
  'stern-upper-reversing',
  'stern-lower-fnr',
  'stern-lower-twin',
  'right-angle-threaded',
  'outboard-straight',
  'belt-lower',
]

for (const family of FAMILIES)
  test(`a ${family} of one’s own opens on every page with an empty sheet`, async ({ page }) => {
    const seen = complaints(page)
    const post = async (path: string, data: object) => {
      const r = await page.request.post(path, { headers: { 'x-moray-person': 'ylva' }, data })
      expect(r.ok(), await r.text()).toBe(true)
      return (await r.json()) as { id: string; body: { id: string } }
    }
    const { body } = await post('/api/drives', { name: `Bare ${family}`, family })
    const job = await post('/api/jobs', {
      sheetId: body.id,
      serial: 'B-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    await show(page, '/drives')
    for (const path of [
      `/drives/${body.id}/draft`,
      `/drives/${body.id}/draft?at=made`,
      `/jobs/${job.id}/route`,
      `/jobs/${job.id}/setting`,
      `/jobs/${job.id}/parts?view=grades`,
      `/jobs/${job.id}/parts?view=estimate`,
      `/jobs/${job.id}/record`,
    ]) {
      await goTo(page, path)
      await expect(
        page.getByRole('heading', { name: path.includes('/record') ? /Record/ : `Bare ${family}` }).first(),
      ).toBeVisible()
      expect(await page.locator('main').innerText(), path).not.toMatch(/undefined|NaN|\[object/)
    }
    expect(seen).toEqual([])
  })
