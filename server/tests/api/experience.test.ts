import type { SheetDraft } from '@moray/contract/replies'
import type { SheetExperience } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

/** A drive of one stack and one backlash, by rule; units of it are built and accepted one after the other. */
async function shop() {
  const app = await testApp()
  await app.post('/api/drives', { name: 'Kobbe 40', family: 'stern-upper' })
  const figure = (path: string, text: string, unit = 'mm') =>
    app.post('/api/drives/kobbe-40/figures', { path, text, unit, source: 'manual', was: '' })
  const { body } = await app.get<SheetDraft>('/api/drives/kobbe-40/draft')
  const was = JSON.stringify(body.adjusters.find((a) => a.id === 'cover'))
  await app.post('/api/drives/kobbe-40/rows', { list: 'adjusters', id: 'cover', was })
  await figure('adjusters.input.effect', '-1')
  await figure('adjusters.input.rules.backlash', '-1.2')
  await figure('measures.backlash.window', '.2 to .3')
  const made = await app.post('/api/drives/kobbe-40/versions', {})
  expect(made.status, JSON.stringify(made.body)).toBe(201)
  return app
}

async function unit(app: TestApp, n: number, stack: string, backlash: string, accept = true) {
  const job = await app.post<{ id: string }>('/api/jobs', {
    sheetId: 'kobbe-40',
    serial: `KB-${n}`,
    boat: 'Terna',
    owner: 'Vik',
    water: 'salt',
    complaint: 'whines',
  })
  const at = `/api/jobs/${job.body.id}`
  await app.post(`${at}/stacks`, { location: 'input', unit: 'mm', pieces: [{ text: stack }] })
  const sheet = (await app.job(job.body.id)).sheet
  for (const m of sheet.measures)
    for (let i = 0; i < m.readings; i++) {
      const r = await app.post(`${at}/readings`, {
        build: 0,
        measure: m.id,
        text: backlash,
        unit: 'mm',
        gaugeId: 'g05',
        confirmed: true,
      })
      expect(r.status, JSON.stringify(r.body)).toBe(201)
    }
  if (accept) {
    const r = await app.post(`${at}/acceptance`, { build: 0, reason: 'as it should be' })
    expect(r.status, JSON.stringify(r.body)).toBe(201)
  }
  return job.body.id
}

describe('what units have taught', () => {
  it('is told from the fourth accepted unit on, with its counts', async () => {
    const app = await shop()
    const taught = (without = '') =>
      app.get<SheetExperience>(`/api/drives/kobbe-40/experience${without ? `?without=${without}` : ''}`)
    const ids = [
      await unit(app, 1, '.80', '.24'),
      await unit(app, 2, '.82', '.25'),
      await unit(app, 3, '.78', '.26'),
    ]
    await unit(app, 4, '2.5', '.9', false)
    expect((await taught()).experience).toBeNull()
    ids.push(await unit(app, 5, '.84', '.25'))
    const { experience } = await taught()
    expect(experience).toMatchObject({ units: 4, at: { input: expect.closeTo(0.81, 6) } })
    // each unit carried to the common stack by the rule: .24 - 1.2 × .01, .25 + 1.2 × .01, .26 - 1.2 × .03, .25 + 1.2 × .03
    expect(experience!.measures.backlash).toMatchObject({ mean: expect.closeTo(0.25, 6), units: 4 })
    expect(experience!.measures.backlash!.sd).toBeGreaterThan(0.02)
    // a job does not learn from itself
    expect((await taught(ids[0])).experience).toBeNull()
  })
  it('is nothing of a drive that nobody knows', async () => {
    const app = await testApp()
    expect((await app.request('/api/drives/nowhere/experience')).status).toBe(404)
  })
})
