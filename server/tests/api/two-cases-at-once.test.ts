import type { JobPage, JobReply } from '@moray/contract/replies'
import { counted } from '@moray/core/job/closings'
import { describe, expect, it } from 'vitest'
import { itOn } from '../databases.ts'
import { otherServer, testApp, type TestApp } from '../test-app.ts'

const stateOf = async (app: TestApp, id: string) => (await app.get<JobReply>(`/api/jobs/${id}`)).state
/** Takes the last step of a case back: something that the other case of the unit stands by. */
async function takeStepBack(app: TestApp, id: string) {
  const last = counted((await app.job(id)).closings).at(-1)!
  return app.post(`/api/jobs/${id}/steps/${last.id}/take-back`, { reason: 'looked at again' })
}
const close = (app: TestApp, id: string) =>
  app.post(`/api/jobs/${id}/life`, { act: 'close', reason: 'the owner has gone' })

describe('a closed case of a unit', () => {
  it('stays closed when something happens to the other case afterwards', async () => {
    const app = await testApp()
    expect((await close(app, 'duo-lower')).status).toBe(201)
    expect((await takeStepBack(app, 'havsule-upper')).status).toBe(201)
    expect(await stateOf(app, 'duo-lower')).toBe('closed')
  })
  it('stays closed when both happen at the same moment', async () => {
    const app = await testApp()
    const both = await Promise.all([takeStepBack(app, 'havsule-upper'), close(app, 'duo-lower')])
    expect(both.map((r) => r.status)).toEqual([201, 201])
    expect(await stateOf(app, 'duo-lower')).toBe('closed')
  })
  itOn('PostgreSQL')('stays closed where the other write had begun before it', async () => {
    const app = await testApp()
    const other = await otherServer()
    let answer: ReturnType<typeof takeStepBack> | undefined
    // the closing is written and not committed when the other case is written to
    await other.transaction(async (tx) => {
      await tx.query("select 1 from job where id = 'duo-lower' for update")
      answer = takeStepBack(app, 'havsule-upper')
      await waitsForLock(app)
      await tx.query("update job set state = 'closed', stage = 'closed' where id = 'duo-lower'")
    })
    expect((await answer)!.status).toBe(201)
    expect(await stateOf(app, 'duo-lower')).toBe('closed')
    await other.close()
  })
})

describe('the other case of a unit', () => {
  it('says on the bench what it waits for from the moment at which it was added', async () => {
    const app = await testApp()
    const unit = await app.post<JobReply>('/api/jobs', {
      sheetId: 'alke-2-lower',
      serial: 'AK-9',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    const added = await app.post(`/api/jobs/${unit.body.id}/cases`, {
      sheetId: 'alke-2-upper',
      serial: 'AK-9',
    })
    expect(added.status, JSON.stringify(added.body).slice(0, 300)).toBe(201)
    const other = (await app.get<JobPage>('/api/jobs')).jobs.find((j) => j.id === `${unit.body.id}-2`)!
    expect(other.waits.kind).toBe('step')
  })
})

/** Comes back once somebody waits for a lock in this database. */
async function waitsForLock(app: TestApp): Promise<void> {
  for (let tries = 0; tries < 400; tries++) {
    const waiting = await app.db.query(
      "select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'",
    )
    if (waiting.length) return
    await new Promise((r) => setTimeout(r, 25))
  }
  throw new Error('nobody waits')
}

describe('a draft', () => {
  const DRAFT = { step: 'leak-found', answers: { 'leak-found.turned': 'yes' } }
  const draft = (app: TestApp, cookie = '') =>
    app.post('/api/jobs/lomvi-teist/draft', DRAFT, cookie ? { cookie } : {})

  it('under a name with a code needs the code, as every write does', async () => {
    const app = await testApp()
    await app.post('/api/people/ylva/code', { code: '1234' })
    const refused = await draft(app)
    expect([refused.status, refused.body.error.code]).toEqual([401, 'code-needed'])
    expect((await app.job('lomvi-teist')).drafts.filter((d) => d.step === DRAFT.step)).toEqual([])
    const said = await app.request('/api/people/ylva/session', {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-moray-person': 'ylva' },
      body: '{"code":"1234"}',
    })
    const cookie = said.headers.get('set-cookie')!.split(';')[0]!
    expect((await draft(app, cookie)).status).toBe(204)
  })
  it('of a job that is closed at the same moment is not kept', async () => {
    const app = await testApp()
    const both = await Promise.all([close(app, 'lomvi-teist'), draft(app)])
    expect([204, 409]).toContain(both[1]!.status)
    expect((await draft(app)).status).toBe(409)
  })
})
