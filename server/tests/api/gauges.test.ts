import type { Gauge, GaugeHistory } from '@moray/contract/replies'
import { eventText } from '@moray/core/job/event-text'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const FIGURES = {
  resolution: 0.0127,
  mpe: 0.0127,
  repeatability: 0.005,
  perTurnMm: 2.54,
  masters: [],
  intervalMonths: 12,
}
const DIAL = { kind: 'plunger-dial', name: 'Dial 3, half thou', figures: FIGURES, calibratedOn: '2026-02-28' }

const post = (app: TestApp, path: string, body: unknown) => app.post<Gauge>(path, body)
const gauges = (app: TestApp) => app.get<Gauge[]>('/api/gauges')
const history = (app: TestApp, id: string) => app.get<GaugeHistory>(`/api/gauges/${id}/history`)

describe('a gauge of the shop’s own', () => {
  it('is added, measured with, and stands with what is told of it', async () => {
    const app = await testApp()
    const { status, body } = await post(app, '/api/gauges', DIAL)
    expect(status, JSON.stringify(body)).toBe(201)
    expect(body).toEqual({
      id: 'g13',
      kind: 'plunger-dial',
      name: DIAL.name,
      ...FIGURES,
      wrench: null,
      calibratedOn: '2026-02-28',
      dueOn: '2027-02-28',
      overdue: false,
      retired: false,
    })
    expect((await gauges(app)).filter((g) => g.id === 'g13')).toEqual([body])
    expect(await history(app, 'g13')).toMatchObject({
      calibrations: [{ on: '2026-02-28', note: 'as it came into the shop', by: 'Ylva Tangvik' }],
      events: [{ kind: 'gauge', by: 'Ylva Tangvik' }],
    })
    const read = await post(app, '/api/jobs/rordrum/readings', {
      build: 0,
      measure: 'backlash',
      text: '.16',
      unit: 'mm',
      gaugeId: 'g13',
    })
    expect(read.status, JSON.stringify(read.body)).toBe(201)
  })
  it('that is a wrench has a range, a length and adapters, and nothing else has', async () => {
    const app = await testApp()
    const wrench = { fromNm: 40, toNm: 200, lengthMm: 430, adapters: [{ label: 'Flat 46', lengthMm: 50 }] }
    const { perTurnMm: _turn, ...figures } = { ...FIGURES, wrench }
    const add = (body: object) =>
      post(app, '/api/gauges', { ...DIAL, kind: 'click-wrench', name: 'Click', figures, ...body })
    const { body } = await add({})
    expect(body.wrench).toEqual(wrench)
    expect((await gauges(app)).find((g) => g.id === body.id)!.wrench).toEqual(wrench)
    const shorter = { ...wrench, lengthMm: 425 }
    await post(app, `/api/gauges/${body.id}/figures`, {
      figures: { ...figures, wrench: shorter },
      reason: 'measured again',
    })
    expect((await history(app, body.id)).events.map((e) => eventText(e))[0]).toContain(
      '40 to 200 Nm, 430 mm long, Flat 46 50 mm, now 40 to 200 Nm, 425 mm long',
    )
    expect(
      (await add({ name: 'Turned', figures: { ...figures, wrench: { ...wrench, fromNm: 300 } } })).status,
    ).toBe(422)
    expect(
      (await post(app, '/api/gauges', { ...DIAL, name: 'No wrench', figures: { ...FIGURES, wrench } }))
        .status,
    ).toBe(422)
  })
  it('with a master is set on its measured length', async () => {
    const app = await testApp()
    const { body } = await post(app, '/api/gauges', {
      kind: 'depth-gauge',
      name: 'Depth gauge 2',
      calibratedOn: '2026-01-01',
      figures: { ...FIGURES, masters: [{ label: 'two inch', lengthMm: 50.801 }] },
    })
    expect(body.masters).toEqual([{ id: 'm1', label: 'two inch', lengthMm: 50.801 }])
  })
  it('with an arbor reads to its measured diameter, and without one to the sheet’s', async () => {
    const app = await testApp()
    const { perTurnMm: _turn, ...figures } = FIGURES
    const add = (name: string, masters: object[]) =>
      post(app, '/api/gauges', {
        kind: 'depth-micrometer',
        name,
        calibratedOn: '2026-01-01',
        figures: { ...figures, masters },
      })
    const own = (await add('Depth mic 2', [{ label: '20', lengthMm: 20.04 }])).body
    const none = (await add('Depth mic 3', [])).body
    const other = (await add('Depth mic 4', [{ label: '25', lengthMm: 25 }])).body
    const job = await app.post<{ id: string }>('/api/jobs', {
      sheetId: 'havsule-duo-lower',
      serial: 'HDL-1',
      boat: 'B',
      owner: 'O',
      water: 'salt',
      complaint: 'whine',
    })
    const at = async (gaugeId: string) => {
      const r = await app.post(`/api/jobs/${job.body.id}/readings`, {
        build: 0,
        measure: 'depth',
        text: '23.2',
        unit: 'mm',
        gaugeId,
        confirmed: true,
      })
      expect(r.status, JSON.stringify(r.body)).toBe(201)
      return (await app.job(job.body.id)).builds[0]!.readings.at(-1)!.value
    }
    expect((await at(own.id)) - (await at(none.id))).toBeCloseTo(0.02, 9)
    expect(await at(other.id)).toBe(await at(none.id))
  })
  it('changes, and readings that were taken keep it as it was', async () => {
    const app = await testApp()
    const before = (await app.job('alke-upper')).builds.flatMap((b) => b.readings).map((r) => r.gauge)
    expect(before.length).toBeGreaterThan(0)
    const dial = (await gauges(app)).find((g) => g.id === 'g02')!
    const { status, body } = await post(app, '/api/gauges/g02/figures', {
      figures: { ...FIGURES, resolution: 0.02, perTurnMm: 1 },
      reason: 'pointer bent',
    })
    expect(status, JSON.stringify(body)).toBe(201)
    expect(body).toEqual({ ...dial, mpe: 0.0127, resolution: 0.02 })
    const after = (await app.job('alke-upper')).builds.flatMap((b) => b.readings).map((r) => r.gauge)
    expect(after).toEqual(before)
    const [event] = (await history(app, 'g02')).events
    expect(eventText(event!)).toBe(
      'Dial 1, metric: resolution 0.01, now 0.02; permissible error 0.01, now 0.0127 (pointer bent)',
    )
  })
  it('may come without a day: whether it was valid is not known then, in its readings too, until it is calibrated', async () => {
    const app = await testApp()
    const { calibratedOn: _, ...dayless } = { ...DIAL, name: 'Dial of nobody knows when' }
    const { body } = await post(app, '/api/gauges', dayless)
    expect(body).toMatchObject({ calibratedOn: null, dueOn: null, overdue: null })
    expect((await history(app, body.id)).calibrations).toEqual([])
    const read = { build: 0, measure: 'backlash', text: '.16', unit: 'mm', gaugeId: body.id }
    expect((await post(app, '/api/jobs/rordrum/readings', read)).status).toBe(201)
    const taken = (await app.job('rordrum')).builds[0]!.readings.at(-1)!
    expect([taken.gaugeName, taken.gaugeOverdue]).toEqual(['Dial of nobody knows when', null])
    const on = (day: string) =>
      post(app, `/api/gauges/${body.id}/calibrations`, { on: day, note: 'by the service' })
    expect((await on('2026-09-20')).body).toMatchObject({ calibratedOn: '2026-09-20', overdue: false })
  })
  it('is calibrated; a calibration that is entered late does not make it older', async () => {
    const app = await testApp()
    const overdue = (await gauges(app)).find((g) => g.overdue)!
    const on = (day: string, note: string) =>
      post(app, `/api/gauges/${overdue.id}/calibrations`, { on: day, note })
    const { body } = await on('2026-09-20', 'block 25 mm reads 25.00')
    expect([body.calibratedOn, body.overdue]).toEqual(['2026-09-20', false])
    expect((await on('2024-05-05', 'found in the drawer')).body.calibratedOn).toBe('2026-09-20')
    const { calibrations } = await history(app, overdue.id)
    expect(calibrations.map((c) => c.on)).toEqual(['2026-09-20', expect.any(String), '2024-05-05'])
  })
  it('takes no more readings once it is out of use, and does again', async () => {
    const app = await testApp()
    const retired = (yes: boolean) =>
      post(app, '/api/gauges/g05/retired', { retired: yes, reason: 'it fell' })
    const read = () =>
      post(app, '/api/jobs/rordrum/readings', {
        build: 0,
        measure: 'backlash',
        text: '.16',
        unit: 'mm',
        gaugeId: 'g05',
      })
    expect((await retired(true)).body.retired).toBe(true)
    const refused = await read()
    expect([refused.status, refused.body.error?.fields[0]]).toEqual([
      422,
      { path: 'gaugeId', message: '"Backlash arm with dial" takes no more readings; choose another gauge' },
    ])
    expect((await retired(true)).body.error?.code).toBe('as-before')
    await retired(false)
    expect((await read()).status).toBe(201)
  })
})

describe('refuses a gauge', () => {
  const figures = (change: object) => ({ ...DIAL, figures: { ...FIGURES, ...change } })
  it.each<[string, object, string, RegExp]>([
    ['of no kind', { ...DIAL, kind: 'ruler' }, 'kind', /one of depth-gauge/],
    ['without a name', { ...DIAL, name: '  ' }, 'name', /is empty/],
    ['of a name that is there', { ...DIAL, name: 'Feeler set' }, 'name', /is there already/],
    ['on no day', { ...DIAL, calibratedOn: '2026-02-30' }, 'calibratedOn', /a day as/],
    ['of a day to come', { ...DIAL, calibratedOn: '2027-01-01' }, 'calibratedOn', /still to come/],
    ['without a step', figures({ resolution: 0 }), 'figures.resolution', /must not be below/],
    ['whose turn is one step', figures({ perTurnMm: 0.0127 }), 'figures.perTurnMm', /many steps/],
    [
      'with a master it cannot use',
      figures({ masters: [{ label: 'a', lengthMm: 1 }] }),
      'figures.masters',
      /set on none/,
    ],
    ['that wants a master', { ...DIAL, kind: 'depth-gauge' }, 'figures.masters', /are missing/],
    ['with a pointer it has not', { ...DIAL, kind: 'feeler-set' }, 'figures.perTurnMm', /has no pointer/],
    [
      'with two masters of one mark',
      {
        ...figures({ masters: [1, 2].map((lengthMm) => ({ label: 'a', lengthMm })) }),
        kind: 'depth-gauge',
      },
      'figures.masters.1.label',
      /twice/,
    ],
  ])('%s', async (_, body, path, message) => {
    const app = await testApp()
    const { status, body: answer } = await post(app, '/api/gauges', body)
    expect(status).toBeGreaterThanOrEqual(400)
    expect(answer.error!.fields[0]!.path).toBe(path)
    expect(answer.error!.fields[0]!.message).toMatch(message)
    expect(await gauges(app)).toHaveLength(12)
  })
  it('that does not exist, and figures that are what they were', async () => {
    const app = await testApp()
    const reason = 'as the certificate says'
    expect((await post(app, '/api/gauges/g99/figures', { figures: FIGURES, reason })).status).toBe(404)
    await post(app, '/api/gauges', DIAL)
    const { body } = await post(app, '/api/gauges/g13/figures', { figures: FIGURES, reason })
    expect(body.error!.fields).toEqual([
      { path: 'figures', message: 'are what they were; change one, or leave it' },
    ])
  })
  it('when two add the same at once: one is there', async () => {
    const app = await testApp()
    const both = await Promise.all([post(app, '/api/gauges', DIAL), post(app, '/api/gauges', DIAL)])
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    expect((await gauges(app)).filter((g) => g.name === DIAL.name)).toHaveLength(1)
  })
})
