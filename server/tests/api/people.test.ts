import type { Person } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const RUNA = { 'x-moray-person': 'runa' }
const JOAR = { name: 'Joar Skjelbu', role: 'technician', retired: false }
const change = (app: TestApp, id: string, body: object, as = RUNA) =>
  app.post<Person[]>(`/api/people/${id}`, body, as)

describe('who works here', () => {
  it('is renamed and made lead by the lead; what he wrote keeps his name, the present one', async () => {
    const app = await testApp()
    const { status, body } = await change(app, 'joar', { ...JOAR, name: 'Joar Skjelbu Vik', role: 'lead' })
    expect(status, JSON.stringify(body)).toBe(201)
    expect(body.find((p) => p.id === 'joar')).toEqual({
      id: 'joar',
      name: 'Joar Skjelbu Vik',
      role: 'lead',
      retired: false,
      coded: false,
    })
    const by = (await app.job('alke-upper')).builds.flatMap((b) => b.readings).map((r) => r.by)
    expect(new Set(by)).toEqual(new Set(['Joar Skjelbu Vik']))
    // he is lead now, and may do what only a lead may
    expect(
      (
        await change(
          app,
          'ylva',
          { name: 'Ylva T', role: 'technician', retired: false },
          { 'x-moray-person': 'joar' },
        )
      ).status,
    ).toBe(201)
  })
  it('is changed by no technician, not even himself', async () => {
    const { status, body } = await change(
      await testApp(),
      'ylva',
      { name: 'Ylva', role: 'lead', retired: false },
      { 'x-moray-person': 'ylva' },
    )
    expect([status, body.error.code]).toEqual([403, 'lead-only'])
  })
  it('writes nothing once he works here no more, and again when he is back', async () => {
    const app = await testApp()
    const write = () =>
      app.post('/api/drawer', { text: '.5', unit: 'mm', count: 1, place: 'X' }, { 'x-moray-person': 'joar' })
    const gone = await change(app, 'joar', { ...JOAR, retired: true })
    expect(gone.body.at(-1)).toMatchObject({ id: 'joar', retired: true })
    const refused = await write()
    expect([refused.status, refused.body.error.code]).toEqual([422, 'no-person'])
    const draft = { step: 'receive', answers: {} }
    const kept = await app.post('/api/jobs/lomvi-skarv/draft', draft, { 'x-moray-person': 'joar' })
    expect(kept.status).toBe(422)
    await change(app, 'joar', JOAR)
    expect((await write()).status).toBe(201)
  })
  it('keeps a lead, also when two leads leave at once', async () => {
    const app = await testApp()
    const runa = { name: 'Runa Holmsund', role: 'lead', retired: false }
    for (const without of [
      { ...runa, role: 'technician' },
      { ...runa, retired: true },
    ]) {
      const { status, body } = await change(app, 'runa', without)
      expect([status, body.error.code]).toEqual([409, 'last-lead'])
    }
    await change(app, 'joar', { ...JOAR, role: 'lead' })
    const both = await Promise.all([
      change(app, 'runa', { ...runa, retired: true }),
      change(app, 'joar', { ...JOAR, role: 'lead', retired: true }, { 'x-moray-person': 'joar' }),
    ])
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    const leads = (await app.get<Person[]>('/api/people')).filter((p) => p.role === 'lead' && !p.retired)
    expect(leads).toHaveLength(1)
  })
  it('has a name of his own', async () => {
    const app = await testApp()
    const { status, body } = await change(app, 'joar', { ...JOAR, name: 'Ylva Tangvik' })
    expect([status, body.error.code, body.error.fields[0]!.path]).toEqual([409, 'name-taken', 'name'])
    expect((await change(app, 'nobody', { ...JOAR, name: 'No One' })).status).toBe(404)
  })
})
