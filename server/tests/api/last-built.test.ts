import type { LastBuilt } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp } from '../test-app.ts'

const lastBuilt = (app: Awaited<ReturnType<typeof testApp>>, id: string) =>
  app.get<LastBuilt | null>(`/api/jobs/${id}/last-built`)

describe('as a unit left here the last time', () => {
  it('its next job begins with what was accepted then: pieces, places, readings, by whom', async () => {
    const app = await testApp()
    const done = await app.job('lomvi-done')
    const accepted = done.builds.find((b) => b.acceptance)!
    const { body } = await app.change('/api/jobs', {
      sheetId: 'lomvi-90',
      serial: done.serial,
      boat: done.boat,
      owner: done.owner,
      water: 'salt',
      complaint: 'back for its seals',
    })
    const found = (await lastBuilt(app, body.id))!
    expect(found).toMatchObject({
      job: 'lomvi-done',
      number: done.number,
      by: accepted.acceptance!.by,
      at: accepted.acceptance!.at,
    })
    for (const [location, mm] of Object.entries(accepted.state.stacks)) {
      const { pieces } = found.stacks.find((s) => s.location === location)!
      expect(pieces.reduce((sum, p) => sum + p.thicknessMm, 0)).toBeCloseTo(mm, 9)
    }
    for (const m of done.sheet.measures)
      expect(found.reads[m.id]).toBeCloseTo(accepted.assessment.measures[m.id]!.judgement!.mean, 9)
  })
  it('is nothing for a unit that never was here, its own acceptance left out', async () => {
    const app = await testApp()
    expect(await lastBuilt(app, 'lomvi-done')).toBeNull()
    expect(await lastBuilt(app, 'lomvi-skarv')).toBeNull()
    expect((await app.request('/api/jobs/nobody/last-built')).status).toBe(404)
  })
  it('is never that of another drive with the same number on its plate', async () => {
    const app = await testApp()
    const { serial } = await app.job('lomvi-done')
    const { body } = await app.change('/api/jobs', {
      sheetId: 'teist-6',
      serial,
      boat: 'Skarv',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    expect(await lastBuilt(app, body.id)).toBeNull()
  })
})
