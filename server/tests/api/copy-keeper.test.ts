import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Copies } from '@moray/contract/copies'
import { describe, expect, it } from 'vitest'
import { isDue, keepCopies, type MakeFile } from '../../src/copies/keeper.ts'
import { readRemembered, remember } from '../../src/copies/last-copy.ts'
import { copyName, nameOf } from '../../src/copies/names.ts'
import { toLetGo } from '../../src/copies/retention.ts'
import { NOW, scratch, testApp } from '../test-app.ts'

const RUNA = { 'x-moray-person': 'runa' }
const DAY = 86_400_000
const ago = (days: number) => new Date(NOW.getTime() - days * DAY)

/** The demo, or a shop of one's own, with copies that are made as told. */
async function shop({
  make,
  own = false,
  now = () => NOW,
}: { make?: MakeFile; own?: boolean; now?: () => Date } = {}) {
  const data = scratch('shop')
  const made: string[] = []
  const app = await testApp({
    app: { data },
    copies: (db) =>
      keepCopies({
        db,
        data,
        make:
          make ??
          (async (file) => {
            made.push(file)
            writeFileSync(file, 'a copy')
            remember(data, { proved: { file, at: now().toISOString(), bytes: 6, jobs: 12, broken: 0 } })
          }),
        bringBack: () => Promise.resolve(),
        now,
        log: () => {},
      }),
  })
  if (own) await app.db.script("delete from setting where key = 'demo'")
  const state = () => app.get<Copies>('/api/copies')
  const settled = async () => {
    for (let n = 0; n < 200 && (await state()).running; n++) await new Promise((r) => setTimeout(r, 5))
    return state()
  }
  return { app, data, made, state, settled }
}

describe('copies of a shop', () => {
  it('are made one at a time, and lie beside the data as long as nobody says where', async () => {
    const s = await shop()
    const first = await s.app.post<Copies>('/api/copies', { wanted: true })
    expect(first.status).toBe(201)
    expect(await s.settled()).toMatchObject({
      own: false,
      last: { jobs: 12 },
      failed: null,
      copies: [{ nightly: false }],
    })
    expect(s.made).toEqual([expect.stringContaining(join(s.data, 'copies', 'moray-'))])
  })
  it('that are under way keep a second one waiting', async () => {
    let done = () => {}
    const s = await shop({ make: () => new Promise<void>((r) => (done = r)) })
    await s.app.post('/api/copies', { wanted: true })
    expect((await s.app.post('/api/copies', { wanted: true })).body.error?.code).toBe('copying')
    done()
    expect((await s.settled()).running).toBeNull()
  })
  it('that fail are said, and the last good one stays what it was', async () => {
    const s = await shop({ make: () => Promise.reject(Object.assign(new Error('x'), { code: 'ENOSPC' })) })
    remember(s.data, {
      proved: { file: '/stick/a.zip', at: NOW.toISOString(), bytes: 1, jobs: 3, broken: 0 },
    })
    await s.app.post('/api/copies', { wanted: true })
    expect(await s.settled()).toMatchObject({
      failed: { what: 'copy', why: 'the disk is full' },
      last: { jobs: 3 },
    })
    expect(readRemembered(s.data).failed?.why).toBe('the disk is full')
  })
  it('go where the lead says, if that can be written; it stands in the history', async () => {
    const s = await shop()
    const folder = scratch('stick')
    expect((await s.app.post('/api/copies/settings', { folder, nightly: true })).status).toBe(403)
    for (const [bad, why] of [
      ['sticks/a', /whole path/],
      ['/no/such/stick', /is no folder/],
    ] as const) {
      const { status, body } = await s.app.post('/api/copies/settings', { folder: bad, nightly: true }, RUNA)
      expect([status, body.error.fields[0]!.message]).toEqual([422, expect.stringMatching(why)])
    }
    expect(
      (await s.app.post<Copies>('/api/copies/settings', { folder, nightly: false }, RUNA)).body,
    ).toMatchObject({
      folder,
      own: true,
      nightly: false,
    })
    await s.app.post('/api/copies', { wanted: true })
    await s.settled()
    expect(readdirSync(folder)).toHaveLength(1)
    // the stick is pulled out: nothing is written elsewhere instead
    rmSync(folder, { recursive: true })
    await s.app.post('/api/copies', { wanted: true })
    const state = await s.settled()
    expect(state.failed?.why).toContain('is not there')
    expect([state.folderThere, existsSync(folder)]).toEqual([false, false])
  })
  it('come back into an empty shop only, at the machine itself, and only by a name of theirs', async () => {
    const s = await shop()
    expect((await s.app.post('/api/copies/back', { name: 'a' })).body.error.code).toBe('not-empty')
    const beyond = await s.app.request('/api/copies/sent', {
      method: 'POST',
      headers: { via: 'a proxy' },
      body: 'x',
    })
    expect(beyond.status).toBe(401)
    await s.app.post('/api/shop/leave-demo', { confirm: 'leave the demo' }, RUNA)
    for (const name of ['../moray.json', 'moray.json', '/etc/passwd'])
      expect((await s.app.post('/api/copies/back', { name })).status).toBe(404)
    const sent = await s.app.request('/api/copies/sent', { method: 'POST', body: 'no copy at all' })
    expect(sent.status).toBe(201)
    await s.settled()
    expect(readdirSync(s.data).filter((n) => n.includes('half'))).toEqual([])
  })
})

describe('what the Bench says of copies', () => {
  const noticed = async (s: Awaited<ReturnType<typeof shop>>) => s.app.get('/api/copies/notice')
  it('is nothing in the demo, and in a shop whose last good copy is young', async () => {
    expect(await noticed(await shop())).toBeNull()
    const s = await shop({ own: true })
    remember(s.data, { proved: { file: 'a', at: ago(1.9).toISOString(), bytes: 1, jobs: 1, broken: 0 } })
    expect(await noticed(s)).toBeNull()
  })
  it('is that there is none, that it is old, or that its date is yet to come', async () => {
    const s = await shop({ own: true, now: () => ago(-60) })
    expect(await noticed(s)).toMatchObject({ kind: 'never' })
    for (const [days, kind] of [
      [-57.9, 'old'],
      [-61, 'ahead'],
    ] as const) {
      remember(s.data, { proved: { file: 'a', at: ago(days).toISOString(), bytes: 1, jobs: 1, broken: 0 } })
      expect(await noticed(s)).toMatchObject({ kind })
    }
  })
})

describe('the nightly copy', () => {
  const night = (hours: number) => new Date(2026, 10, 30, hours)
  const copy = (at: Date, nightly = true) => ({ name: '', at: at.toISOString(), bytes: 1, nightly })
  it.each([
    ['none yet', [], true],
    ['one of this night', [copy(night(3))], false],
    ['one of the night before', [copy(new Date(2026, 10, 29, 3))], true],
    ['one by hand this morning', [copy(night(8), false)], true],
    ['one that is dated ahead', [copy(new Date(2027, 0, 1))], true],
  ])('with %s', (_, copies, due) => expect(isDue(copies, night(9))).toBe(due))
  it('is made when it is due, once, and not in the demo', async () => {
    const demo = await shop()
    await demo.app.deps.copies.nightly()
    expect(demo.made).toEqual([])
    const s = await shop({ own: true })
    for (let n = 0; n < 2; n++) {
      await s.app.deps.copies.nightly()
      await s.settled()
    }
    expect(s.made).toEqual([expect.stringContaining('-nightly.zip')])
  })
  it('waits an hour after it has failed', async () => {
    let tries = 0
    let now = NOW
    const s = await shop({
      own: true,
      now: () => now,
      make: () => {
        tries++
        return Promise.reject(new Error('no'))
      },
    })
    for (const minutes of [0, 30, 61]) {
      now = new Date(NOW.getTime() + minutes * 60_000)
      await s.app.deps.copies.nightly()
      await s.settled()
    }
    expect(tries).toBe(2)
  })
})

describe('copies that may go', () => {
  const dated = (days: number[]) => days.map((d) => ({ name: `d${d}`, at: ago(d) }))
  it('are those beyond 7 days, 5 weeks and 12 months; the newest of each stays', () => {
    const all = dated(Array.from({ length: 800 }, (_, i) => i))
    const gone = new Set(toLetGo(all))
    const stay = all.filter((c) => !gone.has(c.name))
    expect(stay.slice(0, 7).map((c) => c.name)).toEqual(['d0', 'd1', 'd2', 'd3', 'd4', 'd5', 'd6'])
    expect(stay.length).toBeGreaterThanOrEqual(7 + 3 + 10)
    expect(stay.length).toBeLessThanOrEqual(7 + 4 + 11)
    expect(new Set(stay.map((c) => c.at.toISOString().slice(0, 7))).size).toBe(12)
  })
  it('are none while there are few, however old they are and whatever the clock says', () => {
    expect(toLetGo(dated([400, 800, 1200]))).toEqual([])
    expect(toLetGo(dated([-3000, 0, 1, 2, 3, 4, 5]))).toEqual([])
  })
  it('are known by their names, which never meet', () => {
    const folder = scratch('names')
    const names = [1, 2, 3].map(() => {
      const name = copyName(folder, NOW, true)
      mkdirSync(join(folder, name))
      return name
    })
    expect(new Set(names).size).toBe(3)
    for (const name of names) expect(nameOf(name)).toMatchObject({ nightly: true })
    expect(nameOf('moray-2026-11-30-174340.zip')).toMatchObject({ nightly: false })
    expect([nameOf('moray.zip'), nameOf('moray-2026-11-30-174340.zip.half')]).toEqual([undefined, undefined])
  })
})
