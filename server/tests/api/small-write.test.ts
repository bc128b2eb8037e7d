import type { JobPage, JobReply, Person } from '@moray/contract/replies'
import { gunzipSync } from 'node:zlib'
import { beforeAll, describe, expect, it } from 'vitest'
import { pruneRequests } from '../../src/housekeeping.ts'
import { NOW, testApp, type TestApp } from '../test-app.ts'
import { counting } from './counting.ts'

let app: TestApp
let take: () => string[]
beforeAll(async () => {
  app = await testApp({
    wrap: (db) => {
      const c = counting(db)
      take = c.take
      return c.db
    },
  })
})

const RUNA = { 'x-moray-person': 'runa' }

describe('one small write', () => {
  it('reads any job in two statements, once more in one, and an open one compressed to less than 10 kB', async () => {
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.length).toBe(12)
    for (const job of jobs) {
      take()
      const text = await (await app.request(`/api/jobs/${job.id}`)).text()
      expect(take(), job.id).toHaveLength(2)
      expect(await (await app.request(`/api/jobs/${job.id}`)).text()).toBe(text)
      expect(take(), job.id).toHaveLength(1)
      const compressed = await app.request(`/api/jobs/${job.id}`, { headers: { 'accept-encoding': 'gzip' } })
      expect(compressed.headers.get('content-encoding')).toBe('gzip')
      const bytes = new Uint8Array(await compressed.arrayBuffer())
      expect(gunzipSync(bytes).toString(), job.id).toBe(text)
      if (job.state !== 'finished') expect(bytes.length, job.id).toBeLessThan(10_000)
    }
  })
  it('never answers from before a change: of this job, of its drafts, of the shop, or of the sheets', async () => {
    const read = () => app.get<JobReply>('/api/jobs/lomvi-teist')
    const before = await read()
    await app.post('/api/jobs/lomvi-teist/draft', {
      step: 'leak-found',
      answers: { 'leak-found.turned': 'yes' },
    })
    expect((await read()).drafts).toHaveLength(before.drafts.length + 1)
    // the same draft with other answers, at the very same moment
    await app.post('/api/jobs/lomvi-teist/draft', {
      step: 'leak-found',
      answers: { 'leak-found.turned': 'no' },
    })
    expect((await read()).drafts.at(-1)!.answers).toEqual({ 'leak-found.turned': 'no' })
    await app.post('/api/jobs/lomvi-teist/draft', { step: 'leak-found', answers: {} })
    expect((await read()).drafts).toEqual(before.drafts)
    await app.post('/api/jobs/lomvi-teist/findings', { finding: 'vibration', state: 'there' })
    expect((await read()).findings.map((f) => f.finding)).toContain('vibration')
    const { id, name, role } = (await app.get<Person[]>('/api/people')).find(
      (p) => p.name === before.closings[0]!.by,
    )!
    const renamed = { name: `${name} Aune`, role, retired: false }
    expect((await app.post(`/api/people/${id}`, renamed, RUNA)).status).toBe(201)
    expect((await read()).closings.map((c) => c.by)).toContain(renamed.name)
    const sheet = before.sheetId
    await app.db.query(
      "insert into drive_sheet (id, version, edition, body) select id, version + 1, edition + 1, jsonb_set(body, '{version}', to_jsonb(version + 1)) from drive_sheet where id = $1 order by version desc limit 1",
      [sheet],
    )
    expect((await read()).newestSheetVersion).toBe(before.newestSheetVersion + 1)
    expect((await app.get<{ error?: object }>('/api/jobs/lomvi-done')).error).toBeUndefined()
    expect((await app.request('/api/jobs/nowhere')).status).toBe(404)
  })
  it('plans the reading of a job once, whatever wrote its function last', async () => {
    expect(await app.db.query("select proconfig from pg_proc where proname = 'job_record'")).toEqual([
      { proconfig: ['plan_cache_mode=force_generic_plan'] },
    ])
  })
  it('reads the bench in one statement', async () => {
    take()
    await app.get('/api/jobs?state=open')
    expect(take()).toHaveLength(1)
  })

  /** One of every kind of write, on jobs of the demo, in an order in which each can be done. */
  const writes: [path: string, body: object, headers?: Record<string, string>][] = [
    [
      '/api/jobs/lomvi-skarv/stacks',
      { location: 'pinion', unit: 'mm', pieces: [{ text: '.40' }, { lineId: 's003' }] },
    ],
    [
      '/api/jobs/lomvi-skarv/readings',
      { build: 0, measure: 'backlash-forward', text: '.62', unit: 'mm', gaugeId: 'g05' },
    ],
    ['/api/jobs/havsule-upper/acceptance', { build: 0, reason: 'measured, and meant for this test' }],
    ['/api/jobs/sivkrok/steps', { step: 'receive', answers: { 'in.opened': 'no', 'in.struck': 'no' } }],
    // one of the two cases of a unit: the other one is settled with it
    ['/api/jobs/duo-lower/steps', { step: 'splines', answers: { 'splines.seen': 'stud in, face clean' } }],
    ['/api/jobs/sivkrok/scope', { usual: 'full', reason: 'more than was thought' }],
    ['/api/jobs/sivkrok/open-items', { text: 'a plug of another unit' }],
    ['/api/jobs/lomvi-done/loops', { why: 'leak', targets: ['prop-seals'], note: 'came back weeping' }],
    ['/api/jobs/sivkrok/agreements', { step: 'identify', reason: 'known to me' }, RUNA],
    ['/api/jobs/rordrum/row', { name: 'a part of its own', orientation: 'up' }],
    ['/api/jobs/rordrum/grades', { part: 'input-carrier', grade: 'keep', reason: 'as new' }],
    ['/api/jobs/lomvi-teist/findings', { finding: 'metal', state: 'there' }],
    ['/api/jobs/lomvi-teist/outcome', { cause: 'screw-gasket' }],
    ['/api/jobs/teist-bent/estimates', { rate: 950, consumables: 600 }],
    ['/api/jobs/lomvi-teist/schools', { school: 'filling', choice: 'stand', reason: 'goes by crane' }],
    ['/api/jobs/lomvi-teist/life', { act: 'hold', reason: 'seal kit on Thursday' }],
    ['/api/drawer/s001/add', { pieces: 1 }],
    ['/api/drawer/s001/count', { count: 3, reason: 'counted' }],
    ['/api/drawer/s001/thickness', { text: '.101', unit: 'mm', reason: 'measured again' }],
    ['/api/drawer', { text: '.777', unit: 'mm', count: 2, place: 'Z9' }],
    [
      '/api/jobs',
      { sheetId: 'teist-6', serial: 'T-1', boat: 'B', owner: 'O', water: 'salt', complaint: 'whine' },
    ],
    ['/api/shop/schools', { school: 'filling', choice: 'stand' }, RUNA],
    [
      '/api/shop/likelihoods',
      { finding: 'vibration', cause: 'dry-splines', likelihood: 0.3, reason: 'seen twice' },
      RUNA,
    ],
  ]
  it.each(writes)('%s takes at most ten statements', async (path, body, headers) => {
    // sheets never change, and are read once for each server
    for (const id of ['duo-lower', 'havsule-upper']) await app.get(`/api/jobs/${id}/route-changes`)
    take()
    const { status, body: reply } = await app.post(path, body, headers)
    const asked = take()
    expect(status, JSON.stringify(reply)).toBe(201)
    expect(asked.length, asked.map((s) => s.slice(0, 60)).join('\n')).toBeLessThanOrEqual(10)
  })
  it('keeps a draft in five statements, its lock and its commit among them, and answers nothing', async () => {
    take()
    const response = await app.post('/api/jobs/sivkrok/draft', { step: 'tools', answers: {} })
    expect([response.status, response.body]).toEqual([204, {}])
    expect(take().length).toBeLessThanOrEqual(5)
  })
  it('takes the plan of a trial in at most ten statements', async () => {
    const { body } = await app.change('/api/jobs/alke-lower/life', { act: 'stand', stand: 'Stand 2' })
    const pieces = (await app.pieces(body)).filter((p) => p.origin === 'drawer' && p.count > 0)
    const stacks = Object.entries(body.builds.at(-1)!.state.pieces!).map(([location, ids]) => ({
      location,
      pieces: ids.map((id) => ({ id })),
    }))
    const near = pieces.find((p) => p.thicknessMm < 0.3 && p.thicknessMm > 0.1)!
    stacks[0]!.pieces = [...stacks[0]!.pieces.slice(0, 1), { id: near.id }]
    take()
    const reply = await app.post('/api/jobs/alke-lower/trials', { fromBuild: 2, stacks })
    const asked = take()
    expect(reply.status, JSON.stringify(reply.body)).toBe(201)
    expect(asked.length).toBeLessThanOrEqual(10)
  })
  it('knows the event that it left, so that its own browser loads nothing', async () => {
    const reply = await app.post<JobReply>('/api/jobs/rordrum/findings', { finding: 'metal', state: 'there' })
    const [row] = await app.db.query<{ id: number }>('select max(id) as id from event')
    expect(reply.body.seen).toBe(Number(row!.id))
    expect((await app.get<JobReply>('/api/jobs/rordrum')).seen).toBe(reply.body.seen)
  })
})

describe('the log of requests', () => {
  const finding = (name: string, id: string, headers = {}) =>
    app.post<JobReply>(
      '/api/jobs/rordrum/findings',
      { finding: name, state: 'there' },
      { 'x-moray-request': id, ...headers },
    )
  it('answers a repeated request from the present state and writes nothing', async () => {
    const id = crypto.randomUUID()
    const kept = () =>
      app.db.query("select 1 from job_finding where job_id = 'rordrum' and finding = 'milky-oil'")
    const before = (await kept()).length
    const first = await finding('milky-oil', id)
    await finding('metal', crypto.randomUUID())
    const again = await finding('milky-oil', id)
    expect(again.status).toBe(201)
    expect(again.body.seen).toBeGreaterThan(first.body.seen)
    expect(await kept()).toHaveLength(before + 1)
  })
  it('refuses another body, another place or another person under the same id, and loses neither', async () => {
    const id = crypto.randomUUID()
    await finding('leak-still', id)
    const other = await finding('vibration', id)
    expect([other.status, other.body.error.code]).toEqual([409, 'request-reused'])
    expect((await finding('leak-still', id, { 'x-moray-person': 'joar' })).status).toBe(409)
    const elsewhere = await app.post(
      '/api/jobs/rordrum/outcome',
      { cause: 'shaft-bent' },
      { 'x-moray-request': id },
    )
    expect(elsewhere.status).toBe(409)
    expect((await finding('vibration', crypto.randomUUID())).status).toBe(201)
  })
  it('keeps a few hundred bytes for a write, and forgets them after a day', async () => {
    const [size] = await app.db.query<{ most: number; n: number }>(
      'select max(pg_column_size(r))::int as most, count(*)::int as n from request_log r',
    )
    expect(size!.n).toBeGreaterThan(20)
    expect(size!.most).toBeLessThan(400)
    await pruneRequests(app.db, NOW)
    expect(await app.db.query('select 1 from request_log limit 1')).toHaveLength(1)
    await pruneRequests(app.db, new Date(NOW.getTime() + 25 * 3_600_000))
    expect(await app.db.query('select 1 from request_log limit 1')).toHaveLength(0)
  })
})
