import type { JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

/** A right-angle drive whose output carrier is threaded: 18 notches to a turn of 1.5 mm, found 3 mm in. */
const JOB = 'rordrum'
const NOTCH = 1.5 / 18
const ARM = 'g05'

/** The load of the output bearings, by their nut. */
const load = (app: TestApp, build: number, text: string) =>
  app.change(`/api/jobs/${JOB}/readings`, {
    build,
    measure: 'bearing:output-inner',
    text,
    unit: 'Nm',
    gaugeId: 'g09',
  })
async function read(app: TestApp, build: number, ...texts: string[]) {
  for (const text of texts) {
    const { status, body } = await app.change(`/api/jobs/${JOB}/readings`, {
      build,
      measure: 'backlash',
      text,
      unit: 'mm',
      gaugeId: ARM,
    })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
  }
  return app.job(JOB)
}
const turn = (app: TestApp, fromBuild: number, steps: number, more: object = {}) =>
  app.change(`/api/jobs/${JOB}/trials`, {
    fromBuild,
    stacks: [{ location: 'carrier', pieces: [], steps, ...more }],
  })

describe('a threaded carrier', () => {
  it('is turned round after round, measured again each time, and stands as built', async () => {
    const app = await testApp()
    let job = await read(app, 0, '.31', '.32', '.31')
    expect(job.builds[0]!.state.stacks).toEqual({ carrier: 3 })
    expect(job.builds[0]!.assessment).toMatchObject({ complete: true, allIn: false })

    const first = await turn(app, 0, 3)
    expect(first.status, JSON.stringify(first.body.error ?? '')).toBe(201)
    const trial = first.body.builds[1]!
    expect(trial.state.stacks.carrier).toBeCloseTo(3 + 3 * NOTCH, 12)
    expect(trial.stacks).toMatchObject([{ location: 'carrier', pieces: [] }])
    // promised from the geometry: three notches in close it
    expect(trial.plan!.predicted.backlash!.value).toBeLessThan(0.2)
    expect(trial.plan!.probability).toBeGreaterThan(0)

    // locking pulled it: it reads less than promised, one notch back
    job = await read(app, 1, '.10', '.10', '.11')
    expect(job.builds[1]!.assessment.allIn).toBe(false)
    const second = await turn(app, 1, -1)
    expect(second.body.builds[2]!.state.stacks.carrier).toBeCloseTo(3 + 2 * NOTCH, 12)
    job = await read(app, 2, '.16', '.16', '.17')
    // the bearings are asked for as well: it could be accepted with a reason only
    expect(job.builds[2]!.assessment).toMatchObject({ complete: false, decidable: true, allIn: false })
    expect((await app.post(`/api/jobs/${JOB}/acceptance`, { build: 2 })).body.error.code).toBe(
      'reason-needed',
    )
    job = (await load(app, 2, '1.5')).body
    expect(job.builds[2]!.assessment.allIn).toBe(true)
    const accepted = await app.change(`/api/jobs/${JOB}/acceptance`, { build: 2 })
    expect(accepted.body.acceptance).toMatchObject({ build: 2 })
    const told = (await app.events(JOB)).filter((e) => e.kind === 'trial').map((e) => e.text)
    expect(told).toEqual([
      'Trial 1: output carrier 3 notches in (60°)',
      'Trial 2: output carrier 1 notch out (20°)',
    ])
    // it is read back from the store as it was turned
    const { builds } = await app.get<JobReply>(`/api/jobs/${JOB}`)
    expect(JSON.stringify(builds)).toContain(String(3 + 2 * NOTCH).slice(0, 7))
  })

  it('stays where it is when a trial leaves it out', async () => {
    const app = await testApp()
    await read(app, 0, '.31', '.32', '.31')
    await turn(app, 0, 2)
    await read(app, 1, '.21', '.21', '.21')
    const again = await app.change(`/api/jobs/${JOB}/trials`, { fromBuild: 1, stacks: [] })
    expect(again.body.builds[2]!.state.stacks.carrier).toBeCloseTo(3 + 2 * NOTCH, 12)
  })

  it('goes no further than its thread, takes no pieces, and a stack of shims takes no steps', async () => {
    const app = await testApp()
    await read(app, 0, '.31', '.32', '.31')
    const beyond = await turn(app, 0, 37)
    expect(beyond.status).toBe(422)
    expect(beyond.body.error.fields[0]).toEqual({
      path: 'stacks[0].steps',
      message: 'is 37: beyond the thread of Output carrier. It has 36 more in, 36 out',
    })
    expect((await turn(app, 0, -37)).status).toBe(422)
    expect((await turn(app, 0, 36)).status).toBe(201)
    const fresh = await testApp()
    await read(fresh, 0, '.31', '.32', '.31')
    const pieces = await turn(fresh, 0, 1, { pieces: [{ id: 'ds001' }] })
    expect(pieces.body.error.fields[0]!.message).toContain('takes no pieces')
    expect((await fresh.job(JOB)).builds).toHaveLength(1)
  })

  it('two who turn it at once: one does, the other is told', async () => {
    const app = await testApp()
    await read(app, 0, '.31', '.32', '.31')
    const both = await Promise.all([turn(app, 0, 1), turn(app, 0, 2)])
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    expect((await app.job(JOB)).builds).toHaveLength(2)
  })
})
