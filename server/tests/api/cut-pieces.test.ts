import type { DrawerLine, DrawerMovement } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { itOnOne } from '../databases.ts'
import { testApp, type TestApp } from '../test-app.ts'
import { bestPlan, enterFound, enterReadings, JOB, planBody } from '../walk.ts'

const walks = itOnOne()

const laminated = { kind: 'laminated', step: '.05', least: '.30' }
const addLine = (app: TestApp, more: object = {}) =>
  app.post<DrawerLine>('/api/drawer', {
    text: '1.00',
    unit: 'mm',
    count: 2,
    place: 'Z1',
    cut: laminated,
    ...more,
  })
const lineOf = async (app: TestApp, id: string) =>
  (await app.get<DrawerLine[]>('/api/drawer')).find((l) => l.id === id)!

/** The main job measured as found, with a line of laminated shims in the drawer. */
async function measured() {
  const app = await testApp()
  const { body: line } = await addLine(app)
  await enterFound(app)
  const job = await enterReadings(app)
  const trial = (toMm: number | undefined, fromBuild = 0) =>
    app.change(`/api/jobs/${JOB}/trials`, {
      fromBuild,
      stacks: [{ location: 'forward', pieces: [{ id: `d${line.id}`, ...(toMm ? { toMm } : {}) }] }],
    })
  return { app, line, job, trial }
}

describe('a line of pieces that are made thinner', () => {
  it('says how, and stands beside one of whole pieces of that thickness', async () => {
    const app = await testApp()
    const { status, body } = await addLine(app)
    expect(status).toBe(201)
    expect(body).toMatchObject({
      thicknessMm: 1,
      cut: { kind: 'laminated', layerMm: 0.05, minMm: 0.3 },
    })
    expect((await addLine(app)).body.error.code).toBe('line-exists')
    expect((await addLine(app, { cut: undefined })).status).toBe(201)
    const blank = await addLine(app, { text: '6.10', cut: { kind: 'ground', step: '.01', least: '5.00' } })
    expect(blank.body.cut).toEqual({ kind: 'ground', stepMm: 0.01, minMm: 5 })
  })
  it.each([
    [
      'a rest thicker than the piece',
      { ...laminated, least: '1.2' },
      'cut.least',
      'at most the piece itself',
    ],
    ['a rest of nothing', { ...laminated, least: '0' }, 'cut.least', 'thicker than 0'],
    ['a step of nothing', { ...laminated, step: '0' }, 'cut.step', 'comes off at a time'],
    ['a step beyond count', { ...laminated, kind: 'ground', step: '.001' }, 'cut.step', 'coarser step'],
    ['a step that is no length', { ...laminated, step: 'thin' }, 'cut.step', ''],
    ['a way that nobody knows', { ...laminated, kind: 'filed' }, 'cut.kind', ''],
  ])('refuses %s', async (_, cut, path, says) => {
    const app = await testApp()
    const before = (await app.get<DrawerLine[]>('/api/drawer')).length
    const { status, body } = await addLine(app, { cut })
    expect(status).toBe(422)
    expect(body.error.fields[0]).toMatchObject({ path, message: expect.stringContaining(says) })
    expect(await app.get<DrawerLine[]>('/api/drawer')).toHaveLength(before)
  })
  it('keeps a thickness that is corrected above what may be left', async () => {
    const app = await testApp()
    const { body: line } = await addLine(app)
    const correct = (text: string) =>
      app.post(`/api/drawer/${line.id}/thickness`, { text, unit: 'mm', reason: 'measured again' })
    expect((await correct('.25')).body.error.message).toContain('thinner than what may be left')
    expect((await correct('.98')).status).toBe(201)
  })
})

describe('a piece that is made thinner for a trial', () => {
  walks('leaves the drawer for good, and is a piece of this case from then on', async () => {
    const { app, line, trial } = await measured()
    const { status, body: job } = await trial(0.65)
    expect(status).toBe(201)
    const [piece] = job.builds[1]!.stacks.find((s) => s.location === 'forward')!.pieces
    expect(piece).toMatchObject({ origin: 'case', thinned: true, text: '0.650 mm' })
    expect(piece!.thicknessMm).toBeCloseTo(0.65, 12)
    expect(await lineOf(app, line.id)).toMatchObject({ count: 1, reserved: 0 })

    // the next trial does without it: nothing comes back, and it can be built in again
    await enterReadings(app, 1)
    const without = await app.change(`/api/jobs/${JOB}/trials`, {
      fromBuild: 1,
      stacks: [{ location: 'forward', pieces: [{ id: `d${line.id}` }] }],
    })
    expect(without.status).toBe(201)
    expect(await lineOf(app, line.id)).toMatchObject({ count: 0, reserved: 1 })
    const again = (await app.pieces(without.body)).find((p) => p.id === piece!.id)!
    expect(again).toMatchObject({ origin: 'case', count: 1 })
    await enterReadings(app, 2)
    const back = await app.change(`/api/jobs/${JOB}/trials`, {
      fromBuild: 2,
      stacks: [{ location: 'forward', pieces: [{ id: piece!.id }] }],
    })
    expect(back.status).toBe(201)
    expect(back.body.builds[3]!.stacks.find((s) => s.location === 'forward')!.pieces[0]!.id).toBe(piece!.id)
    // the whole one went back, the thinned one was never counted twice
    expect(await lineOf(app, line.id)).toMatchObject({ count: 1, reserved: 0 })
    const kinds = (await app.get<DrawerMovement[]>(`/api/drawer/${line.id}/movements`)).map((m) => m.delta)
    expect(kinds).toEqual([1, -1, -1, 2])
  })
  it('is refused at a thickness that it cannot have, and where it cannot be cut at all', async () => {
    const { app, line, job, trial } = await measured()
    expect((await trial(0.63)).body.error.fields[0]).toMatchObject({
      path: 'stacks[0].pieces[0].toMm',
      message: expect.stringContaining('not to that'),
    })
    const whole = job.builds[0]!.stacks[0]!.pieces[0]!
    const { body } = await app.change(`/api/jobs/${JOB}/trials`, {
      fromBuild: 0,
      stacks: [{ location: 'forward', pieces: [{ id: whole.id, toMm: 0.1 }] }],
    })
    expect(body.error.fields[0]!.message).toContain('cannot be made thinner')
    expect(await lineOf(app, line.id)).toMatchObject({ count: 2, reserved: 0 })
  })
  it('is what the solver takes where whole ones do not reach', async () => {
    const { app, job, line } = await measured()
    await app.post(`/api/drawer/${line.id}/add`, { pieces: 4 })
    const plan = await bestPlan(app, job, (p) => p.id === `d${line.id}`)
    const thin = Object.values(plan.stacks).flatMap((s) => s.thin ?? [])
    expect(thin.length).toBeGreaterThan(0)
    const taken = await app.change(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    expect(taken.status).toBe(201)
    expect(taken.body.builds[1]!.plan!.probability).toBeCloseTo(plan.probability, 12)
    expect(taken.body.builds[1]!.stacks.flatMap((s) => s.pieces.filter((p) => p.thinned))).toHaveLength(
      thin.length,
    )
  })
})
