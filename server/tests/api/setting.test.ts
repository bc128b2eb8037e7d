import type { DrawerLine, DrawerMovement } from '@moray/contract/replies'
import { beforeAll, describe, expect, it } from 'vitest'
import { itOnOne } from '../databases.ts'
import { testApp, waitsFor, type TestApp } from '../test-app.ts'
import { bestPlan, enterFound, enterReadings, FOUND, JOB, planBody, readingsAsPromised } from '../walk.ts'

const walks = itOnOne()

describe('the main job, from found to as built', () => {
  it('goes round once and keeps the whole record', async () => {
    const app = await testApp()
    await enterFound(app)
    let job = await enterReadings(app)
    expect(job.builds[0]!.assessment).toMatchObject({ complete: true, allIn: false })
    expect(waitsFor(job)).toBe('Choose the next stacks')

    const plan = await bestPlan(app, job)
    const before = await app.get<DrawerLine[]>('/api/drawer')
    const taken = await app.change(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    expect(taken.status).toBe(201)
    job = taken.body
    const trial = job.builds[1]!
    expect(trial.plan!.probability).toBeCloseTo(plan.probability, 12)
    expect(trial.plan!.predicted.depth!.value).toBeCloseTo(plan.predicted.depth!.value, 12)

    // what left the drawer is what the plan named, and it is booked
    const after = await app.get<DrawerLine[]>('/api/drawer')
    const used = Object.values(plan.stacks)
      .flatMap((s) => s.pieceIds)
      .filter((id) => id.startsWith('d'))
    const gone = before.reduce((n, l, i) => n + l.count - after[i]!.count, 0)
    expect(gone).toBe(used.length)
    expect(used.length).toBeGreaterThan(0)
    const line = used[0]!.slice(1)
    const movements = await app.get<DrawerMovement[]>(`/api/drawer/${line}/movements`)
    expect(movements[0]).toMatchObject({ kind: 'reserve', by: 'Ylva Tangvik', jobNumber: '26-118' })
    expect(after.find((l) => l.id === line)!.reserved).toBe(used.filter((id) => id === `d${line}`).length)

    job = await enterReadings(app, 1, JOB, readingsAsPromised(plan))
    expect(job.builds[1]!.assessment.allIn).toBe(true)
    expect(job.builds[1]!.check.map((c) => c.disagrees)).toEqual([false, false, false])
    const accepted = await app.change(`/api/jobs/${JOB}/acceptance`, { build: 1 })
    expect(accepted.body.acceptance).toMatchObject({ build: 1, by: 'Ylva Tangvik', reason: null })
    // the route goes on behind the setting by itself
    expect(waitsFor(accepted.body)).toMatch(/^Read the contact pattern/)
    const own = ['stack', 'reading', 'trial', 'accepted']
    expect((await app.events(JOB)).map((e) => e.kind).filter((k) => own.includes(k))).toEqual([
      ...Array(3).fill('stack'),
      // three of each measure, and the torque of the bearings, which holds for the trial too
      ...Array(10).fill('reading'),
      'trial',
      ...Array(9).fill('reading'),
      'accepted',
    ])
    // fitted for good: no longer counted as lying in a trial
    expect((await app.get<DrawerLine[]>('/api/drawer')).find((l) => l.id === line)!.reserved).toBe(0)
  })

  walks('gives back what the next trial does not need', async () => {
    const app = await testApp()
    await enterFound(app)
    const plan = await bestPlan(app, await enterReadings(app))
    await app.post(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    const job = await enterReadings(app, 1, JOB, readingsAsPromised(plan))
    const start = (await app.get<DrawerLine[]>('/api/drawer')).reduce((n, l) => n + l.count, 0)
    const inTrial = job.builds[1]!.stacks.flatMap((s) => s.pieces).filter((p) => p.origin === 'drawer').length
    // back to exactly what was found in the case
    const back = job.builds[0]!.stacks.map((s) => ({
      location: s.location,
      pieces: s.pieces.map((p) => ({ id: p.id })),
    }))
    const { status } = await app.post(`/api/jobs/${JOB}/trials`, { fromBuild: 1, stacks: back })
    expect(status).toBe(201)
    expect((await app.get<DrawerLine[]>('/api/drawer')).reduce((n, l) => n + l.count, 0)).toBe(
      start + inTrial,
    )
  })

  it('knows both of: a piece typed, and a piece like one in the drawer', async () => {
    const app = await testApp()
    const { body } = await app.change(`/api/jobs/${JOB}/stacks`, {
      location: 'pinion',
      unit: 't',
      pieces: [{ lineId: 's015' }, { text: '10' }],
    })
    const [stack] = body.builds[0]!.stacks
    expect(stack!.pieces.map((p) => p.thicknessMm)).toEqual([0.402, 0.254])
    expect(stack!.pieces.every((p) => p.origin === 'case')).toBe(true)
    expect((await app.get<DrawerLine[]>('/api/drawer')).find((l) => l.id === 's015')!.count).toBe(4)
  })
})

describe('evidence', () => {
  it('is superseded with a reason, never changed', async () => {
    const app = await testApp()
    await enterFound(app)
    let job = await enterReadings(app)
    const wrong = job.builds[0]!.readings[0]!
    const path = `/api/jobs/${JOB}/readings/${wrong.id}/supersede`
    expect((await app.post(path, {})).status).toBe(422)
    job = (await app.change(path, { reason: 'turn counter misread', text: '11.475' })).body
    const readings = job.builds[0]!.readings.filter((r) => r.measure === 'depth')
    expect(readings).toHaveLength(4)
    expect(readings[0]).toMatchObject({
      raw: 11.48,
      superseded: { reason: 'turn counter misread', by: 'Ylva Tangvik', replacedBy: readings[3]!.id },
    })
    expect(job.builds[0]!.assessment.measures.depth!.count).toBe(3)
    expect((await app.post(path, { reason: 'again' })).body.error.code).toBe('already-superseded')
    expect((await app.post(`/api/jobs/${JOB}/readings/99999/supersede`, { reason: 'gone' })).status).toBe(404)
  })

  it('cannot be changed or deleted in the database either', async () => {
    const app = await testApp()
    const columns = {
      reading: 'value',
      reading_superseded: 'reason',
      stack: 'location',
      stack_superseded: 'reason',
      stack_piece: 'thickness_mm',
      build: 'number',
      event: 'text',
      shim_movement: 'delta',
      acceptance: 'reason',
    }
    await enterFound(app)
    const job = await enterReadings(app)
    await app.post(`/api/jobs/${JOB}/readings/${job.builds[0]!.readings[0]!.id}/supersede`, {
      reason: 'slipped',
    })
    await app.post(`/api/jobs/${JOB}/stacks`, {
      location: 'pinion',
      unit: 'mm',
      pieces: [{ text: '.6' }],
      reason: 'counted again',
    })
    for (const [table, column] of Object.entries(columns)) {
      await expect(app.db.query(`update ${table} set ${column} = ${column}`), table).rejects.toThrow(
        /evidence/,
      )
      await expect(app.db.query(`delete from ${table}`), table).rejects.toThrow(/evidence/)
    }
  })

  it('asks for a reason when a found stack is entered again, and keeps both', async () => {
    const app = await testApp()
    await enterFound(app)
    const again = {
      location: 'pinion',
      unit: 'mm',
      pieces: [{ text: '.40' }, { text: '.22' }, { text: '.05' }],
    }
    const refused = await app.post(`/api/jobs/${JOB}/stacks`, again)
    expect(refused.body.error).toMatchObject({ code: 'reason-needed', fields: [{ path: 'reason' }] })
    const { body } = await app.change(`/api/jobs/${JOB}/stacks`, {
      ...again,
      reason: 'one was stuck to the gear',
    })
    const stacks = body.builds[0]!.stacks.filter((s) => s.location === 'pinion')
    expect(stacks.map((s) => s.superseded?.reason)).toEqual(['one was stuck to the gear', undefined])
    expect((await app.pieces(body)).filter((p) => p.origin === 'case')).toHaveLength(7)
  })

  it('is closed once the next trial stands on it', async () => {
    const app = await testApp()
    await enterFound(app)
    const job = await enterReadings(app)
    await app.post(`/api/jobs/${JOB}/trials`, planBody(await bestPlan(app, job), 0))
    const late = { build: 0, measure: 'depth', text: '11.5', unit: 'mm', gaugeId: 'g01' }
    expect((await app.post(`/api/jobs/${JOB}/readings`, late)).body.error.code).toBe('stale-build')
    const old = job.builds[0]!.readings[0]!
    expect(
      (await app.post(`/api/jobs/${JOB}/readings/${old.id}/supersede`, { reason: 'late' })).body.error.code,
    ).toBe('stale-build')
    expect(
      (
        await app.post(`/api/jobs/${JOB}/stacks`, {
          location: 'pinion',
          unit: 'mm',
          pieces: [{ text: '1' }],
          reason: 'late',
        })
      ).body.error.code,
    ).toBe('too-late')
  })

  it('marks readings of a gauge past its calibration', async () => {
    const app = await testApp()
    const { body } = await app.change(`/api/jobs/${JOB}/readings`, {
      build: 0,
      measure: 'backlash-forward',
      text: '16t',
      unit: 'mm',
      gaugeId: 'g03',
    })
    expect(body.builds[0]!.readings[0]).toMatchObject({
      gaugeOverdue: true,
      value: expect.closeTo(0.4064, 10),
    })
  })

  it('uses the measured length of the master', async () => {
    const app = await testApp()
    const take = (masterId: string) =>
      app.change(`/api/jobs/${JOB}/readings`, {
        build: 0,
        measure: 'depth',
        text: '11.6',
        unit: 'mm',
        gaugeId: 'g01',
        masterId,
      })
    expect((await take('m50')).body.builds[0]!.readings[0]).toMatchObject({
      masterMm: 50.003,
      value: expect.closeTo(38.403, 10),
    })
    expect((await take('m60')).body.error.fields[0]).toMatchObject({
      path: 'masterId',
      message: expect.stringContaining('50 mm master'),
    })
    expect((await take('m99')).body.error.fields[0]!.path).toBe('masterId')
  })
})

describe('what is refused, with the place named', () => {
  const reading = { build: 0, measure: 'backlash-forward', text: '.42', unit: 'mm', gaugeId: 'g05' }
  // nothing comes of what is refused: all of it is tried on one job
  let app: TestApp
  beforeAll(async () => {
    app = await testApp()
  })
  it.each([
    ['not understood', { text: '42q' }, 'text', 'not-understood'],
    ['implausible', { text: '3.5' }, 'text', 'implausible'],
    ['impossible', { text: '23' }, 'text', 'impossible'],
    ['impossible, and meant all the same', { text: '23', confirmed: true }, 'text', 'impossible'],
    ['implausible in inches', { text: '.42', unit: 'in' }, 'text', 'implausible'],
    ['pointer past a turn', { text: '1r 150h' }, 'text', 'pointer-past-turn'],
    ['no such measure', { measure: 'mood' }, 'measure', 'invalid-input'],
    ['no such gauge', { gaugeId: 'g99' }, 'gaugeId', 'invalid-input'],
    ['a gauge that reads from no master', { measure: 'depth', text: '11.6' }, 'gaugeId', 'invalid-input'],
    [
      'a master that the gauge has not',
      { measure: 'depth', text: '11.6', gaugeId: 'g01', masterId: 'm99' },
      'masterId',
      'invalid-input',
    ],
  ])('%s', async (_, change, path, code) => {
    const { status, body } = await app.post(`/api/jobs/${JOB}/readings`, { ...reading, ...change })
    expect(status).toBe(422)
    expect(body.error.code).toBe(code)
    expect(body.error.fields[0]!.path).toBe(path)
    expect((await app.job(`${JOB}`)).builds[0]!.readings).toEqual([])
  })

  it('takes an implausible value that is meant', async () => {
    const app = await testApp()
    expect(
      (await app.post(`/api/jobs/${JOB}/readings`, { ...reading, text: '3.5', confirmed: true })).status,
    ).toBe(201)
  })

  it('does not build before everything is measured', async () => {
    const app = await testApp()
    await enterFound(app)
    const stacks = [{ location: 'pinion', pieces: [{ id: 'ds001' }] }]
    expect((await app.post(`/api/jobs/${JOB}/trials`, { fromBuild: 0, stacks })).body.error.code).toBe(
      'not-measured',
    )
    expect((await app.post(`/api/jobs/${JOB}/acceptance`, { build: 0 })).body.error.code).toBe('not-measured')
  })
})

describe('what is refused of a job that is measured', () => {
  let app: TestApp
  beforeAll(async () => {
    app = await testApp()
    await enterFound(app)
    await enterReadings(app)
  })
  it.each<[string, string[], string]>([
    ['too many pieces', ['ds001', 'ds001', 'ds001', 'ds003', 'ds003'], 'stack-impossible'],
    ['too thin', ['ds001'], 'stack-impossible'],
    ['too thick', ['ds024', 'ds024'], 'stack-impossible'],
    ['more than the drawer holds', ['ds014', 'ds014'], 'stock'],
    ['an empty line', ['ds020'], 'stock'],
    ['a piece that does not exist', ['dzzz'], 'invalid-input'],
  ])('a stack with %s', async (_, ids, code) => {
    const before = await app.get<DrawerLine[]>('/api/drawer')
    const body = { fromBuild: 0, stacks: [{ location: 'pinion', pieces: ids.map((id) => ({ id })) }] }
    const reply = await app.post(`/api/jobs/${JOB}/trials`, body)
    expect(reply.body.error.code).toBe(code)
    expect(reply.body.error.fields.length).toBeGreaterThan(0)
    expect(await app.get('/api/drawer')).toEqual(before)
    expect((await app.job(`${JOB}`)).builds).toHaveLength(1)
  })

  it('a found piece that is used twice', async () => {
    const job = await app.job(JOB)
    const piece = job.builds[0]!.stacks[0]!.pieces[0]!.id
    const { body } = await app.post(`/api/jobs/${JOB}/trials`, {
      fromBuild: 0,
      stacks: [{ location: 'pinion', pieces: [{ id: piece }, { id: piece }] }],
    })
    expect(body.error.message).toContain('exists once')
  })

  // the last of them, because it is taken in the end
  it('an acceptance of what is not in its window, without a reason', async () => {
    expect((await app.post(`/api/jobs/${JOB}/acceptance`, { build: 0 })).body.error).toMatchObject({
      code: 'reason-needed',
      message: expect.stringContaining('Pinion depth'),
    })
    const done = await app.change(`/api/jobs/${JOB}/acceptance`, {
      build: 0,
      reason: 'owner wants it for one trip',
    })
    expect(done.body.acceptance!.reason).toBe('owner wants it for one trip')
    expect(
      (await app.post(`/api/jobs/${JOB}/acceptance`, { build: 0, reason: 'again' })).body.error.code,
    ).toBe('already-accepted')
  })
})

describe('what is accepted', () => {
  it('is closed: no reading, no correction, until it goes round again', async () => {
    const app = await testApp()
    await enterFound(app)
    const plan = await bestPlan(app, await enterReadings(app))
    await app.post(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    let job = await enterReadings(app, 1, JOB, readingsAsPromised(plan))
    await app.post(`/api/jobs/${JOB}/acceptance`, { build: 1 })
    const late = { build: 1, measure: 'depth', text: '11.6', unit: 'mm', gaugeId: 'g01' }
    expect((await app.post(`/api/jobs/${JOB}/readings`, late)).body.error.code).toBe('accepted')
    const id = job.builds[1]!.readings[0]!.id
    expect(
      (await app.post(`/api/jobs/${JOB}/readings/${id}/supersede`, { reason: 'late' })).body.error.code,
    ).toBe('accepted')
    const again = await app.change(`/api/jobs/${JOB}/trials`, planBody(plan, 1))
    expect(again.body).toMatchObject({ state: 'setting', acceptance: null })
    job = await app.job(`${JOB}`)
    expect(job.builds).toHaveLength(3)
  })
})

describe('two at once', () => {
  it('lets one of two jobs have the last piece, and tells the other clearly', async () => {
    const app = await testApp()
    // a second job like the first, and one single 0.10 shim in the drawer
    await app.db.query(
      `insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, state, stage, complaint, opened_at, touched_at)
       select 'lomvi-twin', '26-900', sheet_id, sheet_version, serial, boat, owner, water, hours, null, state, stage,
       complaint, opened_at, touched_at from job where id = $1`,
      [JOB],
    )
    await app.db.query(
      "insert into build (job_id, number, by_person, at) values ('lomvi-twin', 0, 'runa', now())",
    )
    expect((await app.post('/api/drawer/s003/count', { count: 1, reason: 'only one left' })).status).toBe(201)
    const before = (await app.get<DrawerLine[]>('/api/drawer')).find((l) => l.id === 's003')!
    for (const job of [JOB, 'lomvi-twin']) {
      await enterFound(app, job)
      await enterReadings(app, 0, job)
    }
    const body = {
      fromBuild: 0,
      stacks: [{ location: 'pinion', pieces: [{ id: 'ds003' }, { id: 'ds017' }] }],
    }
    const replies = await Promise.all(
      [JOB, 'lomvi-twin'].map((job) => app.change(`/api/jobs/${job}/trials`, body)),
    )
    expect(replies.map((r) => r.status).sort()).toEqual([201, 409])
    const lost = replies.find((r) => r.status === 409)!
    expect(lost.body.error.code).toBe('stock')
    expect(lost.body.error.message).toContain('1 wanted, 0 to be had')
    const line = (await app.get<DrawerLine[]>('/api/drawer')).find((l) => l.id === 's003')!
    expect(line).toMatchObject({ count: 0, reserved: before.reserved + 1 })
  })

  it('tells the second browser that the job has moved on', async () => {
    const app = await testApp()
    await enterFound(app)
    const plan = await bestPlan(app, await enterReadings(app))
    const replies = await Promise.all(
      [1, 2].map(() => app.post(`/api/jobs/${JOB}/trials`, planBody(plan, 0))),
    )
    expect(replies.map((r) => r.status).sort()).toEqual([201, 409])
    expect(replies.find((r) => r.status === 409)!.body.error.code).toBe('stale-build')
    expect((await app.job(`${JOB}`)).builds).toHaveLength(2)
  })

  it('writes once when the same request comes twice', async () => {
    const app = await testApp()
    const headers = { 'x-moray-request': 'same-request-id-1' }
    const body = { location: 'pinion', unit: 'mm', pieces: FOUND.pinion.map((text) => ({ text })) }
    const first = await app.change(`/api/jobs/${JOB}/stacks`, body, headers)
    const second = await app.change(`/api/jobs/${JOB}/stacks`, body, headers)
    expect(second).toEqual(first)
    expect((await app.job(`${JOB}`)).builds[0]!.stacks).toHaveLength(1)
    expect((await app.post('/api/drawer/s003/add', { pieces: 1 }, headers)).body.error.code).toBe(
      'request-reused',
    )
    expect(
      (await app.post('/api/drawer/s003/add', { pieces: 1 }, { 'x-moray-request': 'short' })).status,
    ).toBe(422)
  })
})
