import type { Device, Pairing, Person } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { itOnOne } from '../databases.ts'
import { bestPlan, enterFound, enterReadings, JOB, planBody, readingsAsPromised } from '../walk.ts'
import { testApp, type TestApp } from '../test-app.ts'

const walks = itOnOne()

/** A request of another machine: it comes through something that says for whom. */
const AWAY = { 'x-forwarded-for': '192.168.7.20' }
const JSON_TYPE = { 'content-type': 'application/json' }
const RUNA = { 'x-moray-person': 'runa' }

const from = (app: TestApp, path: string, cookie = '', init: RequestInit = {}) =>
  app.request(path, {
    ...init,
    headers: { ...AWAY, ...(cookie ? { cookie } : {}), ...(init.headers as object) },
  })
const cookieOf = (r: Response) => (r.headers.get('set-cookie') ?? '').split(';')[0]!
const pairWith = (app: TestApp, code: string, name = 'Tablet at stand 2') =>
  from(app, '/api/devices/paired', '', {
    method: 'POST',
    headers: JSON_TYPE,
    body: JSON.stringify({ code, name }),
  })
const codeOf = async (app: TestApp) =>
  (await app.post<Pairing>('/api/devices/pairings', { wanted: true })).body

describe('a device from beyond this machine', () => {
  it.each([
    '/api/jobs',
    '/api/people',
    '/api/drives',
    '/api/jobs/lomvi-skarv',
    '/api/files/abc',
    '/api/live',
    '/api/devices',
    '/api/schemas',
    '/api/nowhere',
  ])('reads nothing of %s before it is paired', async (path) => {
    const app = await testApp()
    const r = await from(app, path)
    expect(r.status).toBe(401)
    expect(await r.text()).toContain('not known in the shop')
  })
  it('writes nothing either, whoever it says to be', async () => {
    const app = await testApp()
    const r = await from(app, '/api/jobs/lomvi-skarv/findings', '', {
      method: 'POST',
      headers: { ...JSON_TYPE, ...RUNA },
      body: JSON.stringify({ finding: 'metal', state: 'there' }),
    })
    expect(r.status).toBe(401)
    const pairing = await from(app, '/api/devices/pairings', '', {
      method: 'POST',
      headers: { ...JSON_TYPE, ...RUNA },
      body: '{"wanted":true}',
    })
    expect(pairing.status).toBe(401)
  })
  it('is let in by a code that is shown on a known one, once, and put out again', async () => {
    const app = await testApp()
    const { code } = await codeOf(app)
    const paired = await pairWith(app, `${code.slice(0, 4).toLowerCase()} ${code.slice(4)}`)
    expect(paired.status).toBe(201)
    const set = paired.headers.get('set-cookie')!
    for (const word of ['HttpOnly', 'SameSite=Strict', 'Path=/']) expect(set).toContain(word)
    const cookie = cookieOf(paired)
    expect((await from(app, '/api/jobs', cookie)).status).toBe(200)
    expect((await pairWith(app, code)).status).toBe(403)
    const [device] = await app.get<Device[]>('/api/devices')
    expect(device).toMatchObject({ name: 'Tablet at stand 2', pairedBy: 'Ylva Tangvik', revoked: false })
    // what is kept lets nobody in
    const [row] = await app.db.query<{ token_hash: string }>('select token_hash from device')
    expect((await from(app, '/api/jobs', `moray_device=${row!.token_hash}`)).status).toBe(401)
    await app.post(`/api/devices/${device!.id}/revoked`, { reason: 'it was lost' })
    expect((await from(app, '/api/jobs', cookie)).status).toBe(401)
    expect((await app.post(`/api/devices/${device!.id}/revoked`, { reason: 'again' })).status).toBe(404)
  })
  it('of two that use one code at once, one is let in', async () => {
    const app = await testApp()
    const { code } = await codeOf(app)
    const all = await Promise.all([1, 2, 3, 4].map((n) => pairWith(app, code, `Phone ${n}`)))
    expect(all.map((r) => r.status).sort()).toEqual([201, 403, 403, 403])
    expect(await app.get<Device[]>('/api/devices')).toHaveLength(1)
  })
  it('comes too late with a code of yesterday, and too often with wrong ones', async () => {
    const app = await testApp()
    const { code } = await codeOf(app)
    await app.db.query("update device_pairing set at = at - interval '11 minutes'")
    expect((await pairWith(app, code)).status).toBe(403)
    const tries = []
    for (let i = 0; i < 22; i++) tries.push((await pairWith(app, `WRONG${i}`)).status)
    expect(tries.filter((s) => s === 429).length).toBeGreaterThan(0)
    // for that minute a right one waits as well
    expect((await pairWith(app, (await codeOf(app)).code)).status).toBe(429)
  })
  it('hears a code only once', async () => {
    const app = await testApp()
    const headers = { 'x-moray-request': 'pairing-0001' }
    const first = await app.post<Pairing>('/api/devices/pairings', { wanted: true }, headers)
    expect(first.body.code).toMatch(/^[A-Z2-9]{12}$/)
    expect((await app.post('/api/devices/pairings', { wanted: true }, headers)).status).toBe(409)
  })
})

describe('a code of four digits', () => {
  const give = (app: TestApp, id: string, code: string, headers = RUNA) =>
    app.post<Person[]>(`/api/people/${id}/code`, { code }, headers)
  const say = (app: TestApp, id: string, code: string) =>
    app.request(`/api/people/${id}/session`, {
      method: 'POST',
      headers: JSON_TYPE,
      body: JSON.stringify({ code }),
    })
  const note = (app: TestApp, headers: Record<string, string>) =>
    app.post('/api/jobs/lomvi-skarv/findings', { finding: 'metal', state: 'there' }, headers)

  it('is asked for before anything is written under that name, and only there', async () => {
    const app = await testApp()
    expect((await give(app, 'ylva', '4711')).status).toBe(201)
    const refused = await note(app, {})
    expect(refused.status).toBe(401)
    expect(refused.body.error.code).toBe('code-needed')
    expect((await note(app, RUNA)).status).toBe(201)
    const right = await say(app, 'ylva', '4711')
    expect(right.status).toBe(201)
    expect(right.headers.get('set-cookie')).toContain('HttpOnly')
    const cookie = cookieOf(right)
    expect((await note(app, { cookie })).status).toBe(201)
    // the code of one is not that of another
    await give(app, 'joar', '1234')
    expect((await note(app, { cookie, 'x-moray-person': 'joar' })).status).toBe(401)
    expect((await app.get<Person[]>('/api/people')).find((p) => p.id === 'ylva')!.coded).toBe(true)
  })
  walks('signs what is accepted as built, said for it and not in the morning', async () => {
    const app = await testApp()
    await enterFound(app)
    const plan = await bestPlan(app, await enterReadings(app))
    await app.post(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    await enterReadings(app, 1, JOB, readingsAsPromised(plan))
    const accept = (cookie = '') => app.change(`/api/jobs/${JOB}/acceptance`, { build: 1 }, { cookie })
    await give(app, 'ylva', '4711')
    const cookie = cookieOf(await say(app, 'ylva', '4711'))
    // the code was said some hours ago: enough to write, not to sign
    await app.db.query("update person_session set ends_at = ends_at - interval '3 hours'")
    expect((await note(app, { cookie })).status).toBe(201)
    expect((await accept(cookie)).body.error).toMatchObject({
      code: 'code-needed',
      message: expect.stringContaining('As built is signed with the code'),
    })
    const signed = await accept(cookieOf(await say(app, 'ylva', '4711')))
    expect(signed.status).toBe(201)
    expect(signed.body.acceptance).toMatchObject({ by: 'Ylva Tangvik', signed: true })
    expect((await app.events(JOB)).at(-1)!.text).toContain('signed with the code of the name')
  })
  it('leaves a name without a code unsigned', async () => {
    const app = await testApp()
    await enterFound(app)
    const plan = await bestPlan(app, await enterReadings(app))
    await app.post(`/api/jobs/${JOB}/trials`, planBody(plan, 0))
    await enterReadings(app, 1, JOB, readingsAsPromised(plan))
    const { body } = await app.change(`/api/jobs/${JOB}/acceptance`, { build: 1 })
    expect(body.acceptance).toMatchObject({ by: 'Ylva Tangvik', signed: false })
  })
  it('makes what only the lead may do really his', async () => {
    const app = await testApp()
    await give(app, 'runa', '2468')
    const add = (headers: Record<string, string>) =>
      app.post('/api/people', { name: 'Ask Lien', role: 'technician' }, { ...RUNA, ...headers })
    expect((await add({})).status).toBe(401)
    const cookie = cookieOf(await say(app, 'runa', '2468'))
    expect((await add({ cookie })).status).toBe(201)
    // nobody but himself and the lead changes it
    expect((await give(app, 'runa', '', { 'x-moray-person': 'ylva' })).status).toBe(403)
    expect((await give(app, 'runa', '', { ...RUNA, cookie } as never)).status).toBe(201)
    expect((await app.post('/api/people', { name: 'Nils Aune', role: 'technician' }, RUNA)).status).toBe(201)
  })
  it('is kept as a hash, forgets who said the old one, and slows wrong tries down', async () => {
    const app = await testApp()
    await give(app, 'ylva', '4711')
    const [row] = await app.db.query<{ code_hash: string }>("select code_hash from person where id = 'ylva'")
    expect(row!.code_hash).not.toContain('4711')
    const cookie = cookieOf(await say(app, 'ylva', '4711'))
    await give(app, 'ylva', '1174')
    expect((await note(app, { cookie })).status).toBe(401)
    const tries = []
    for (let i = 0; i < 4; i++) tries.push((await say(app, 'ylva', '0000')).status)
    expect(tries).toEqual([403, 403, 403, 429])
    // the right one has to wait as well, and many at once do not count as one
    expect((await say(app, 'ylva', '1174')).status).toBe(429)
    await app.db.query('delete from code_tries')
    await Promise.all(Array.from({ length: 6 }, () => say(app, 'ylva', '0000')))
    const [count] = await app.db.query<{ n: number }>('select wrong as n from code_tries')
    expect(count!.n).toBe(3)
  })
  it.each(['123', '12345', 'abcd', '12 4'])('%s is none', async (code) => {
    const app = await testApp()
    expect((await give(app, 'ylva', code)).status).toBe(422)
  })
})
