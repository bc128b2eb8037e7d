import type { Device, Pairing } from '@moray/contract/replies'
import { beforeEach, describe, expect, it } from 'vitest'
import { isOwnMachine } from '../../src/devices/known-device.ts'
import { resetCode } from '../../src/people/codes.ts'
import { NOW, testApp, type TestApp } from '../test-app.ts'

const JSON_TYPE = { 'content-type': 'application/json' }
const RUNA = { 'x-moray-person': 'runa' }
const AWAY = { 'x-forwarded-for': '192.168.7.20' }

let app: TestApp
let now: Date
beforeEach(async () => {
  now = NOW
  app = await testApp({ now: () => now, live: true })
})
const cookieOf = (r: Response) => (r.headers.get('set-cookie') ?? '').split(';')[0]!

/** A tablet that somebody has paired: its cookie, and its number. */
async function paired(by = 'ylva', from: Record<string, string> = AWAY) {
  const { body } = await app.post<Pairing>(
    '/api/devices/pairings',
    { wanted: true },
    { 'x-moray-person': by },
  )
  const r = await app.request('/api/devices/paired', {
    method: 'POST',
    headers: { ...JSON_TYPE, ...from },
    body: JSON.stringify({ code: body.code, name: `Tablet of ${by}` }),
  })
  expect(r.status).toBe(201)
  const [device] = await app.get<Device[]>('/api/devices')
  return { cookie: cookieOf(r), id: device!.id }
}
const say = (code: string, from: Record<string, string> = {}, who = 'ylva') =>
  app.request(`/api/people/${who}/session`, {
    method: 'POST',
    headers: { ...JSON_TYPE, ...from },
    body: JSON.stringify({ code }),
  })

describe('this machine itself', () => {
  /** As a request comes over a socket. */
  const asked = (headers: Record<string, string>, socket: object = {}) =>
    isOwnMachine(
      {
        req: { raw: new Request('http://127.0.0.1:4747/', { headers }), url: 'http://127.0.0.1:4747/' },
        env: { incoming: { socket: { remoteAddress: '127.0.0.1', localPort: 4747, ...socket } } },
      } as never,
      4748,
    )
  const HOST = { host: '127.0.0.1:4747' }

  it('is known by its socket and a name of its own', () => {
    expect(asked(HOST)).toBe(true)
    expect(asked({ host: 'localhost:4747' })).toBe(true)
    expect(asked({ host: '[::1]:4747' }, { remoteAddress: '::1' })).toBe(true)
    expect(asked(HOST, { remoteAddress: '192.168.1.5' })).toBe(false)
    expect(asked({ host: 'moray.shop' })).toBe(false)
    expect(asked({ host: '192.168.1.5:4747' })).toBe(false)
  })
  it.each([
    ...['x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'forwarded', 'via', 'x-real-ip'],
    ...['x-client-ip', 'x-original-host', 'true-client-ip'],
  ])('is not who comes with the header %s', (name) => {
    expect(asked({ ...HOST, [name]: '127.0.0.1' })).toBe(false)
  })
  it('is not who comes in at the port of a proxy, whatever that says', () => {
    expect(asked(HOST, { localPort: 4748 })).toBe(false)
  })
})

describe('a device that is put out', () => {
  it('hears nothing more, also on a line that stood', async () => {
    const tablet = await paired()
    const line = await app.request('/api/live', { headers: { ...AWAY, cookie: tablet.cookie } })
    expect(line.status).toBe(200)
    const reader = line.body!.getReader()
    const decoder = new TextDecoder()
    let heard = decoder.decode((await reader.read()).value)
    expect(heard).toContain('event: hello')
    expect((await app.post(`/api/devices/${tablet.id}/revoked`, { reason: 'lost' })).status).toBe(201)
    // it may hear of that still; then the line ends, and what comes after is not told
    for (let r = await reader.read(); !r.done; r = await reader.read()) heard += decoder.decode(r.value)
    expect(heard).not.toContain('"kind":"drawer"')
    expect((await app.post('/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
    expect(app.live.open).toBe(0)
  })
  it('cannot shut the line for others by opening ever more of them', async () => {
    const tablet = await paired()
    const lines = []
    for (let i = 0; i < 40; i++)
      lines.push(await app.request('/api/live', { headers: { ...AWAY, cookie: tablet.cookie } }))
    expect(lines.every((l) => l.status === 200)).toBe(true)
    // each takes its place once it is read
    await Promise.all(lines.map((l) => l.body!.getReader().read()))
    expect(app.live.open).toBeLessThanOrEqual(20)
    const other = await app.request('/api/live')
    expect(other.status).toBe(200)
    await other.body!.cancel()
    app.live.stop()
  })
})

describe('pairing', () => {
  const pair = (code: string, from: Record<string, string>) =>
    app.request('/api/devices/paired', {
      method: 'POST',
      headers: { ...JSON_TYPE, ...from },
      body: JSON.stringify({ code, name: 'A tablet' }),
    })
  it('is not stopped for all by one that guesses', async () => {
    for (let i = 0; i < 25; i++) await pair(`WRONG${i}`, { 'x-forwarded-for': '10.0.0.9' })
    expect((await pair('WRONG', { 'x-forwarded-for': '10.0.0.9' })).status).toBe(429)
    await paired('ylva', { 'x-forwarded-for': '10.0.0.10' })
  })
  it('reads no more of a stranger than a code and a name take', async () => {
    const r = await pair('X'.repeat(186_000), AWAY)
    expect(r.status).toBe(413)
  })
  it('of two at once is told of each under who paired it', async () => {
    const [a, b] = await Promise.all([paired('ylva'), paired('joar')])
    expect(a.cookie).not.toBe(b.cookie)
    const rows = await app.db.query<{ by: string; name: string }>(
      `select by_person as by, data ->> 'name' as name from event where data ->> 'about' = 'device' order by id`,
    )
    for (const { by, name } of rows) expect(name).toBe(`Tablet of ${by}`)
    expect(rows).toHaveLength(2)
  })
})

describe('a code', () => {
  const give = (id: string, code: string, headers: Record<string, string>) =>
    app.post(`/api/people/${id}/code`, { code }, headers)

  it('of a lead is first set at the machine, or on a device that the lead has paired', async () => {
    const apprentice = await paired('joar')
    const refused = await give('runa', '1234', { ...RUNA, ...AWAY, cookie: apprentice.cookie })
    expect([refused.status, refused.body.error.code]).toEqual([403, 'first-code'])
    const own = await paired('runa')
    expect((await give('runa', '1234', { ...RUNA, ...AWAY, cookie: own.cookie })).status).toBe(201)
  })
  it('that nobody knows any more is taken away on the machine, and the history says so', async () => {
    await give('runa', '1234', RUNA)
    expect((await app.post('/api/drawer/s001/add', { pieces: 1 }, RUNA)).status).toBe(401)
    expect(await app.db.transaction((tx) => resetCode(tx, 'Runa Holmsund', now))).toMatch(/^Runa/)
    expect(await app.db.transaction((tx) => resetCode(tx, 'Nobody', now))).toBeUndefined()
    expect((await app.post('/api/drawer/s001/add', { pieces: 1 }, RUNA)).status).toBe(201)
  })
  it('guessed at on one device keeps nobody from his name on another, and the tries are kept', async () => {
    await give('ylva', '4711', RUNA)
    const tablet = await paired('joar')
    const there = { ...AWAY, cookie: tablet.cookie }
    for (let i = 0; i < 3; i++) expect((await say('0000', there)).status).toBe(403)
    expect((await say('4711', there)).status).toBe(429)
    expect((await say('4711')).status).toBe(201)
    const tries = await app.db.query<{ data: { device: string; tries: number } }>(
      "select data from event where data ->> 'about' = 'wrong-code' order by id",
    )
    expect(tries.map((t) => t.data.tries)).toEqual([1, 2, 3])
    expect(tries[0]!.data.device).toBe(`device ${tablet.id}`)
  })
  it('of several people is said once each on one tablet', async () => {
    await give('ylva', '4711', RUNA)
    await give('joar', '1147', RUNA)
    const cookie = cookieOf(await say('4711'))
    const both = cookieOf(await say('1147', { cookie }, 'joar'))
    const add = (who: string) =>
      app.post('/api/drawer/s001/add', { pieces: 1 }, { 'x-moray-person': who, cookie: both })
    expect((await add('ylva')).status).toBe(201)
    expect((await add('joar')).status).toBe(201)
  })
  it('said before the clock was set back does not sign again', async () => {
    await give('runa', '1234', RUNA)
    now = new Date(NOW.getTime() + 20 * 60_000)
    const cookie = cookieOf(await say('1234', {}, 'runa'))
    const tablet = await paired('joar')
    const leave = () =>
      app.post(
        '/api/shop/leave-demo',
        { confirm: 'leave the demo' },
        { ...RUNA, ...AWAY, cookie: `${cookie}; ${tablet.cookie}` },
      )
    now = NOW
    const refused = await leave()
    expect([refused.status, refused.body.error.code]).toEqual([403, 'machine-only'])
  })
})

describe('leaving the demo', () => {
  const leave = (headers: Record<string, string> = RUNA) =>
    app.post('/api/shop/leave-demo', { confirm: 'leave the demo' }, headers)
  it('is refused while something of one’s own lies in it, which is named and stays', async () => {
    await app.post('/api/people', { name: 'Ask Lien', role: 'technician' }, RUNA)
    await app.post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr' })
    const job = await app.post<{ id: string; number: string }>('/api/jobs', {
      sheetId: 'teist-6',
      serial: 'T-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    const r = await leave()
    expect([r.status, r.body.error.code]).toEqual([409, 'own-in-demo'])
    for (const own of [job.body.number, 'Terna', 'Kobbe 40', 'Ask Lien'])
      expect(r.body.error.message).toContain(own)
    expect((await app.request(`/api/jobs/${job.body.id}`)).status).toBe(200)
  })
  it('is done at the machine, or under a code that was just said', async () => {
    const tablet = await paired('joar')
    const there = { ...RUNA, ...AWAY, cookie: tablet.cookie }
    const refused = await leave(there)
    expect([refused.status, refused.body.error.code]).toEqual([403, 'machine-only'])
    await app.post('/api/people/runa/code', { code: '1234' }, RUNA)
    const session = cookieOf(await say('1234', { ...AWAY, cookie: tablet.cookie }, 'runa'))
    expect((await leave({ ...there, cookie: `${tablet.cookie}; ${session}` })).status).toBe(201)
  })
})
