import { describe, expect, it } from 'vitest'
import { enterFound, enterReadings, JOB, bestPlan, planBody, READ } from '../walk.ts'
import { testApp, type TestApp } from '../test-app.ts'

const TORQUE = 'bearing:driveshaft-lower'
const send = (app: TestApp, measure: string, more: object, job = JOB, build = 0) =>
  app.change(`/api/jobs/${job}/readings`, { build, measure, unit: 'Nm', gaugeId: 'g09', ...more })

describe('a rolling torque', () => {
  it('is read without its lips, judged by the bearings that were fitted, and says how it was taken', async () => {
    const app = await testApp()
    const { body } = await send(app, TORQUE, {
      text: '5.5inlb',
      drag: '1 inlb',
      ticked: ['Gears out of mesh'],
      unticked: ['Bearings oiled, turned over several times'],
    })
    const [reading] = body.builds[0]!.readings
    expect(reading!.raw).toBeCloseTo(5.5 * 0.1129848290276167, 12)
    expect(reading!.value).toBeCloseTo(4.5 * 0.1129848290276167, 12)
    expect(reading!.how).toEqual({
      dragNm: expect.closeTo(0.1129848290276167, 12),
      ticked: 1,
      unticked: ['Bearings oiled, turned over several times'],
    })
    expect((await app.db.query('select ticked from reading where id = $1', [reading!.id]))[0]).toEqual({
      ticked: ['Gears out of mesh'],
    })
    const events = await app.events(JOB)
    expect(events.findLast((e) => e.kind === 'reading')!.text).toMatch(
      /Rolling torque, driveshaft taper, lower: 0\.508 Nm \(4\.5 in-lb\) with Beam wrench/,
    )
    const runIn = (await send(app, TORQUE, { text: '0.35', runIn: true })).body
    expect(runIn.builds[0]!.assessment.measures[TORQUE]!.window).toEqual({ min: 0.25, max: 0.45 })
  })
  it.each([
    ['in millimetres', { text: '0.4 mm' }, 'not-understood', 'text'],
    ['with a length gauge', { text: '0.5', gaugeId: 'g02' }, 'invalid-input', 'gaugeId'],
    ['as a float', { text: '0.5', as: 'float' }, 'invalid-input', 'as'],
    [
      'as a play that the sheet has no slope for',
      { text: '0.1', unit: 'mm', gaugeId: 'g02', as: 'play' },
      'invalid-input',
      'as',
    ],
    [
      'by a swing',
      { text: '0.5', swing: [0, 1, 2].map((at) => ({ at, text: '0.5' })) },
      'invalid-input',
      'swing',
    ],
    ['of another drive altogether', { text: '70' }, 'impossible', 'text'],
  ])('%s is refused by name, and nothing is kept', async (_, more, code, path) => {
    const app = await testApp()
    const { status, body } = await app.post(`/api/jobs/${JOB}/readings`, {
      build: 0,
      measure: TORQUE,
      unit: 'Nm',
      gaugeId: 'g09',
      ...more,
    })
    expect([status, body.error.code, body.error.fields[0]!.path]).toEqual([422, code, path])
    expect((await app.job(JOB)).builds[0]!.readings).toEqual([])
  })
  it.each([
    ['at its lips', { text: '0.3', drag: '0.3' }],
    ['below them', { text: '0.2', drag: '0.3' }],
    ['of nothing', { text: '0' }],
  ])('%s is no preload: refused where its play can be said instead', async (_, more) => {
    const app = await testApp()
    const { body: job } = await app.change('/api/jobs', {
      sheetId: 'havhest-r-upper',
      serial: 'HR-77',
      boat: 'Skarv',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    const TAPERS = 'bearing:input-inner'
    const refused = await app.post(`/api/jobs/${job.id}/readings`, {
      build: 0,
      measure: TAPERS,
      unit: 'Nm',
      gaugeId: 'g09',
      ...more,
    })
    expect([refused.status, refused.body.error.code]).toEqual([422, 'no-preload'])
    const play = await send(app, TAPERS, { text: '0.05', unit: 'mm', gaugeId: 'g02', as: 'play' }, job.id)
    expect(play.status, JSON.stringify(play.body.error ?? '')).toBe(201)
    const state = play.body.builds[0]!.assessment.measures[TAPERS]!
    // 8 Nm to the millimetre: so far below no torque, and doubted by as much of the gauge
    expect(state.judgement).toMatchObject({ mean: expect.closeTo(-0.4, 9), verdict: 'out' })
    expect(state.judgement!.u).toBeGreaterThan(0.05)
  })
  it('of nothing is kept, and out, where the sheet has no slope to say its play by', async () => {
    const app = await testApp()
    const { status, body } = await send(app, TORQUE, { text: '0.2', drag: '0.3' })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    expect(body.builds[0]!.assessment.measures[TORQUE]!.judgement!.verdict).toBe('out')
  })
  it('that nobody read leaves the next trial free, and is accepted with a reason only', async () => {
    const app = await testApp()
    await enterFound(app)
    const { [TORQUE]: _, ...gears } = READ
    const job = await enterReadings(app, 0, JOB, gears as typeof READ)
    expect(job.builds[0]!.assessment).toMatchObject({ complete: false, decidable: true })
    const refused = await app.post(`/api/jobs/${JOB}/acceptance`, { build: 0 })
    expect(refused.body.error).toMatchObject({
      code: 'reason-needed',
      message: expect.stringContaining('Rolling torque, driveshaft taper, lower'),
    })
    const trial = await app.change(`/api/jobs/${JOB}/trials`, planBody(await bestPlan(app, job), 0))
    expect(trial.status).toBe(201)
    const accepted = await app.change(`/api/jobs/${JOB}/acceptance`, { build: 1, reason: 'x' })
    expect(accepted.status).toBe(422)
  })
  it('read on the bare case holds for the trial: nothing that sets it was touched', async () => {
    const app = await testApp()
    await enterFound(app)
    const job = await enterReadings(app)
    const trial = await app.change(`/api/jobs/${JOB}/trials`, planBody(await bestPlan(app, job), 0))
    const state = trial.body.builds[1]!.assessment.measures[TORQUE]!
    expect(state).toMatchObject({ carried: true, missing: 0, count: 1 })
    expect(state.judgement!.mean).toBeCloseTo(0.6, 12)
  })
})

describe('a crush', () => {
  const MEASURE = 'bearing:upper-ball'
  const UPPER = 'havsule-upper'
  it('found afloat leads to a stack that gives it, out of the drawer, beside the gears', async () => {
    const app = await testApp()
    const job = await app.job(UPPER)
    const state = job.builds[0]!.assessment
    expect(state.measures[MEASURE]!.judgement).toMatchObject({
      verdict: 'out',
      mean: expect.closeTo(-0.09, 1),
    })
    const plan = await bestPlan(app, job)
    // under the cover the shims hold it off: less of them takes the float up, and then the crush
    expect(plan.stacks.cover!.thicknessMm).toBeCloseTo(0.5 - 0.09 - 0.06, 1)
    expect(plan.predicted[MEASURE]!.value).toBeGreaterThan(0.02)
    expect(plan.predicted[MEASURE]!.value).toBeLessThan(0.1)
    const free = planBody(plan, 0).stacks.filter((s) => s.location !== 'input')
    const trial = await app.change(`/api/jobs/${UPPER}/trials`, { fromBuild: 0, stacks: free })
    expect(trial.status, JSON.stringify(trial.body.error ?? '')).toBe(201)
    const built = trial.body.builds.at(-1)!
    // its stack was changed, so it is read again; the torque was not touched
    expect(built.assessment.measures[MEASURE]).toMatchObject({ carried: false, missing: 3 })
    expect(built.assessment.measures['bearing:input-inner']).toMatchObject({ carried: true, missing: 0 })
    expect(built.plan!.predicted[MEASURE]!.value).toBeCloseTo(plan.predicted[MEASURE]!.value, 6)
  })
  it('wants to know whether a gap or a float was read', async () => {
    const app = await testApp()
    const { status, body } = await app.post(`/api/jobs/${UPPER}/readings`, {
      build: 0,
      measure: MEASURE,
      text: '0.05',
      unit: 'mm',
      gaugeId: 'g08',
    })
    expect([status, body.error.fields[0]!.path]).toEqual([422, 'as'])
  })
})

describe('a depth that is swung for', () => {
  const swung = (texts: string[], extreme: 'highest' | 'lowest') => ({
    build: 0,
    measure: 'depth',
    text: texts[0],
    unit: 'mm',
    gaugeId: 'g01',
    extreme,
    swing: texts.map((text, at) => ({ at, text })),
  })
  it('is the turning point of its samples, not their mean, with what they leave in doubt', async () => {
    const app = await testApp()
    const texts = ['11.55', '11.50', '11.48', '11.49', '11.54']
    const { status, body } = await app.change(`/api/jobs/${JOB}/readings`, swung(texts, 'lowest'))
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    const [reading] = body.builds[0]!.readings
    expect(reading!.raw).toBeLessThan(11.485)
    expect(reading!.raw).toBeGreaterThan(11.47)
    expect(reading!.how!.swing!.samples).toHaveLength(5)
    expect(reading!.text).toBe(texts.join(' '))
  })
  it('put right by one reading is a swing no longer', async () => {
    const app = await testApp()
    const texts = ['11.55', '11.50', '11.48', '11.49', '11.54']
    const { body } = await app.change(`/api/jobs/${JOB}/readings`, swung(texts, 'lowest'))
    const [reading] = body.builds[0]!.readings
    const after = await app.change(`/api/jobs/${JOB}/readings/${reading!.id}/supersede`, {
      reason: 'read on the dial itself',
      text: '11.47',
    })
    expect(after.status, JSON.stringify(after.body.error ?? '')).toBe(201)
    expect(after.body.builds[0]!.readings.at(-1)).toMatchObject({ raw: 11.47, how: null })
  })
  it('that has not turned yet is refused, with what to do', async () => {
    const app = await testApp()
    const { status, body } = await app.post(
      `/api/jobs/${JOB}/readings`,
      swung(['11.60', '11.55', '11.52', '11.51'], 'highest'),
    )
    expect([status, body.error.code]).toEqual([422, 'swing-not-turned'])
    expect(body.error.fields[0]!.message).toContain('swing on')
  })
})

describe('places round the gear', () => {
  it('are judged one by one: the tightest against the lower limit, the widest against the upper', async () => {
    const app = await testApp()
    let job
    for (const [clockDeg, text] of [
      [0, '.40'],
      [90, '.46'],
      [180, '.54'],
      [270, '.48'],
    ] as const)
      job = (
        await app.change(`/api/jobs/${JOB}/readings`, {
          build: 0,
          measure: 'backlash-forward',
          text,
          unit: 'mm',
          gaugeId: 'g05',
          clockDeg,
          confirmed: true,
        })
      ).body
    const state = job!.builds[0]!.assessment.measures['backlash-forward']!
    expect(state.round).toMatchObject({ smallestMm: 0.4, smallestAtDeg: 0, largestMm: 0.54 })
    expect(state.round!.runoutMm).toBeCloseTo(0.07, 2)
    // 0.47 in the middle of 0.38 to 0.56, and no slip among the places
    expect(state.judgement!.mean).toBeCloseTo(0.47, 6)
    expect(state.outlier).toBe(-1)
  })
})

describe('a gear that is set to its case', () => {
  const UPPER = 'havsule-upper'
  const seat = (app: TestApp, more: object) =>
    app.change(`/api/jobs/${UPPER}/readings`, {
      build: 0,
      measure: 'seat:input',
      unit: 'mm',
      gaugeId: 'g07',
      ...more,
    })
  it('says by how much its stack falls short, and the solver takes it in with the others', async () => {
    const app = await testApp()
    const before = await bestPlan(app, await app.job(UPPER))
    expect(before.stacks.input?.pieceIds ?? []).toEqual([])
    // effect −1: 120.00 − 78.96 − 40.00 = 1.04 wanted, 0.90 built in
    const { status, body } = await seat(app, {
      text: '78.96',
      as: 'case-and-gear',
      seat: { case: '120', nominal: '40' },
    })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    const state = body.builds[0]!.assessment.measures['seat:input']!
    expect(state.judgement).toMatchObject({ mean: expect.closeTo(0.14, 9), verdict: 'out' })
    const plan = await bestPlan(app, body)
    expect(Math.abs(plan.stacks.input!.thicknessMm - 1.04)).toBeLessThan(0.03)
    expect(Math.abs(plan.predicted['seat:input']!.value)).toBeLessThan(0.03)
  })
  it('or from the float with a trial stack: trial + float − clearance', async () => {
    const app = await testApp()
    const { body } = await seat(app, {
      text: '0.20',
      gaugeId: 'g02',
      as: 'float',
      seat: { trial: '0.90', clearance: '0.06' },
    })
    const state = body.builds[0]!.assessment.measures['seat:input']!
    expect(state.judgement!.mean).toBeCloseTo(0.14, 9)
    expect(body.builds[0]!.readings.at(-1)!.how!.seat).toEqual({ trialMm: 0.9, clearanceMm: 0.06 })
  })
  it.each([
    ['without its case', { text: '78.96', as: 'case-and-gear', seat: { nominal: '40' } }, 'seat.caseMm'],
    ['without a word how', { text: '78.96' }, 'as'],
    [
      'that leaves no room',
      { text: '90', as: 'case-and-gear', seat: { case: '120', nominal: '40' } },
      'seat.caseMm',
    ],
    [
      'with a figure that is none',
      { text: '78.96', as: 'case-and-gear', seat: { case: 'wide', nominal: '40' } },
      'seat.case',
    ],
  ])('%s is refused by name', async (_, more, path) => {
    const app = await testApp()
    const { status, body } = await seat(app, more)
    expect([status, body.error.fields[0]!.path]).toEqual([422, path])
  })
})

describe('runout of a shaft', () => {
  const send = (app: TestApp, more: object) =>
    app.change(`/api/jobs/${JOB}/readings`, {
      build: 0,
      measure: 'runout:propshaft:0',
      text: '2h',
      unit: 'mm',
      gaugeId: 'g02',
      ...more,
    })
  it('keeps places round the shaft, below the mark too, and how far along', async () => {
    const app = await testApp()
    const { status, body } = await send(app, { text: '-0.02 mm', clockDeg: 45, alongMm: 120 })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    expect(body.builds[0]!.readings.at(-1)).toMatchObject({ value: -0.02, clockDeg: 45, how: { atMm: 120 } })
  })
  it.each([
    ['without its place', {}, 'clockDeg'],
    ['with a wrench', { clockDeg: 0, gaugeId: 'g09' }, 'gaugeId'],
    ['as a gap', { clockDeg: 0, as: 'gap' }, 'as'],
    ['of a zone that is not there', { clockDeg: 0, measure: 'runout:propshaft:99' }, 'measure'],
  ])('%s is refused by name', async (_, more, path) => {
    const app = await testApp()
    const { status, body } = await send(app, more)
    expect([status, body.error.fields[0]!.path]).toEqual([422, path])
  })
})

describe('a float that was read with a trial stack', () => {
  it('has its own left out and loose things undone by name before the case is closed', async () => {
    const app = await testApp()
    const before = await app.job('havsule-upper')
    // the reading is of the bare case, as the job stands
    expect(before.facts['trial.in']).toBeDefined()
    const seat = before.builds.at(-1)!.asked.find((m) => m.kind === 'seat') ?? {
      id: 'seat:input',
    }
    const { status, body } = await send(
      app,
      seat.id,
      { text: '.30', unit: 'mm', gaugeId: 'g05', as: 'float', seat: { trial: '.90', clearance: '.05' } },
      'havsule-upper',
      before.builds.at(-1)!.number,
    )
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    const said = String(before.facts['trial.in']).split(' ').filter(Boolean)
    const now = String(body.facts['trial.in']).split(' ')
    expect(now).toEqual(expect.arrayContaining([...said, 'rings', 'bolts', 'retainer']))
    const undo = body.route.steps.find((s) => s.id === 'trial-out')!.asks[0]!
    expect(undo.kind === 'list' && undo.options.map((o) => o.value)).toEqual(now)
  })
})
