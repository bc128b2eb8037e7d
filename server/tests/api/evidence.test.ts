import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ClosingRecord, EventEntry, JobPage, JobReply, RouteChanges } from '@moray/contract/replies'
import { routeOf } from '@moray/core/route/route-of'
import { printOf, routeHash } from '@moray/core/route/route-print'
import { beforeEach, describe, expect, it } from 'vitest'
import { checkShop } from '../../src/data/check-shop.ts'
import { hashOf, openFileStore } from '../../src/files/file-store.ts'
import type { Anchor } from '../../src/data/mark.ts'
import { schema, NOW, scratch, testApp, type TestApp } from '../test-app.ts'

let app: TestApp
let now: Date
let folder: string
beforeEach(async () => {
  now = NOW
  folder = scratch('evidence')
  app = await testApp({ now: () => now, files: openFileStore(folder) })
})
const RUNA = { 'x-moray-person': 'runa' }
const finding = (name = 'metal', job = 'rordrum') =>
  app.post<JobReply>(`/api/jobs/${job}/findings`, { finding: name, state: 'there' })
const check = (anchor?: Anchor) =>
  checkShop(app.db, openFileStore(folder), { functions: schema.functions, ...(anchor ? { anchor } : {}) })
/** Runs something that the triggers would not allow, as somebody with the database in his hands could. */
async function underneath(table: string, sql: string) {
  await app.db.script(
    `alter table ${table} disable trigger user; ${sql}; alter table ${table} enable trigger user`,
  )
}

describe('evidence', () => {
  it.each(['event', 'reading', 'step_done', 'grade', 'lead_agreement', 'acceptance', 'file'])(
    'of %s can be neither emptied nor deleted nor changed',
    async (table) => {
      await expect(app.db.query(`truncate ${table} cascade`)).rejects.toThrow(/evidence/)
      const [row] = await app.db.query(`select 1 from ${table} limit 1`)
      if (row) await expect(app.db.query(`delete from ${table}`)).rejects.toThrow(/evidence/)
    },
  )
  it('seals each event over the one before, numbers them without a gap, and the check follows it', async () => {
    for (const f of ['metal', 'vibration', 'chatter']) expect((await finding(f)).status).toBe(201)
    expect((await check()).broken).toEqual([])
    await underneath(
      'event',
      'update event set data = \'{"label":"something else"}\' where id = (select max(id) - 1 from event)',
    )
    const [{ broken }, [last]] = [
      await check(),
      await app.db.query<{ id: number }>('select max(id) as id from event'),
    ]
    expect(broken).toEqual([expect.stringContaining(`event ${Number(last!.id) - 1}: its seal does not fit`)])
  })
  it('tells of events that are missing, of stock that does not add up, and of a closing that nobody knows of', async () => {
    await underneath('event', 'delete from event where id = 5')
    await app.db.query("update shim_line set count = count + 3 where id = 's001'")
    await app.db.query(
      "delete from step_standing where ctid in (select ctid from step_standing where job_id = 'rordrum' limit 1)",
    )
    const { broken } = await check()
    expect(broken.filter((b) => b.startsWith('events: 1 of'))).toHaveLength(1)
    expect(broken.some((b) => b.startsWith('event 6:'))).toBe(true)
    expect(broken.some((b) => b.startsWith('drawer line s001'))).toBe(true)
    expect(broken.some((b) => b.startsWith('job rordrum, step'))).toBe(true)
  })
  it('notes on the event how far the clock had run back', async () => {
    await finding()
    now = new Date(NOW.getTime() - 3 * 3_600_000)
    await finding('vibration')
    now = new Date(NOW.getTime() - 3 * 3_600_000 + 1000)
    await finding('chatter')
    const events = await app.get<EventEntry[]>('/api/jobs/rordrum/events')
    expect(events.slice(-3).map((e) => e.clockBackS)).toEqual([null, 10_800, null])
    // the demo is a history that is being written, not a clock that runs back
    expect(events.slice(0, -3).every((e) => e.clockBackS === null)).toBe(true)
  })
  it('keeps with an answer what was asked, in the words of that day', async () => {
    const answers = { 'in.opened': 'no', 'in.struck': 'no' }
    await app.post('/api/jobs/sivkrok/steps', { step: 'receive', answers })
    const [closing] = (await app.get<ClosingRecord[]>('/api/jobs/sivkrok/closings')).slice(-1)
    expect(closing!.asked!.what).toBe('Receive it and hear what it is here for')
    const opened = closing!.asked!.asks.find((a) => a.fact === 'in.opened')!
    expect(opened).toMatchObject({ kind: 'choice', label: expect.any(String) })
    expect(opened.options!.map((o) => o.value)).toContain('no')
    const [event] = (await app.get<EventEntry[]>('/api/jobs/sivkrok/events')).slice(-1)
    expect(event).toMatchObject({
      kind: 'step',
      subject: 'step:receive',
      text: null,
      data: { what: closing!.asked!.what },
    })
  })
})

describe('a job that is over', () => {
  const writes: [string, object][] = [
    ['grades', { part: 'pinion', grade: 'keep', reason: 'as new' }],
    ['findings', { finding: 'metal', state: 'there' }],
    ['outcome', { cause: 'shaft-bent' }],
    ['row', { name: 'a part' }],
    ['estimates', { rate: 1, consumables: 1 }],
    ['schools', { school: 'filling', choice: 'stand', reason: 'crane' }],
    ['life', { act: 'hold', reason: 'because' }],
    ['life', { act: 'stand' }],
    ['life', { act: 'close', reason: 'because' }],
    ['steps', { step: 'receive', answers: {} }],
    ['draft', { step: 'receive', answers: { 'in.struck': 'no' } }],
    ['readings', { build: 1, measure: 'depth', text: '11.5', unit: 'mm', gaugeId: 'g01' }],
  ]
  it.each(writes)('takes no %s %j until it is reopened', async (path, body) => {
    const reply = await app.post(`/api/jobs/lomvi-done/${path}`, body)
    expect([reply.status, reply.body.error.code]).toEqual([409, 'finished'])
  })
  it('takes them again once it is reopened', async () => {
    await app.post('/api/jobs/lomvi-done/life', { act: 'reopen', reason: 'weeps', step: 'seals' })
    expect((await finding('metal', 'lomvi-done')).status).toBe(201)
  })
})

describe('a newer Moray', () => {
  it('says what it has changed on the route of an open job, keeps what was done, and is content once it was seen', async () => {
    const job = await app.job('rordrum')
    const hash = routeHash(printOf(routeOf(job.sheet)))
    expect(job.routeHash).toBe(hash)
    // as an older Moray left it: a step less, one that asked something else, one that is no more
    const old = printOf(routeOf(job.sheet))
      .filter((s) => s.id !== 'ratio')
      .map((s) => (s.id === 'drain' ? { ...s, digest: 'old' } : s))
    const gone = { id: 'polish', what: 'Polish the case', digest: 'x' }
    await app.db.query("insert into route_print (hash, steps) values ('of-before', $1::jsonb)", [
      JSON.stringify([...old, gone]),
    ])
    await app.db.query("update job set route_hash = 'of-before' where id = 'rordrum'")
    const changes = await app.get<RouteChanges>('/api/jobs/rordrum/route-changes')
    expect([changes.added, changes.changed, changes.removed].map((l) => l.map((s) => s.id))).toEqual([
      ['ratio'],
      ['drain'],
      ['polish'],
    ])
    const done = (await app.job('rordrum')).closings.length
    expect(
      (await app.post('/api/jobs/rordrum/route-seen', { hash: '0000000000000000' })).body.error.code,
    ).toBe('stale-route')
    const seen = await app.change('/api/jobs/rordrum/route-seen', { hash })
    expect(seen.body.routeHash).toBe(hash)
    expect(seen.body.closings).toHaveLength(done)
    expect(await app.get('/api/jobs/rordrum/route-changes')).toEqual({ added: [], removed: [], changed: [] })
  })
})

describe('a cracked case', () => {
  it('is never used again: a rebuild buys a new one, and says so above the money', async () => {
    const grade = { part: 'housing', grade: 'replace', reason: 'seen under the lamp', seen: ['crack'] }
    expect((await app.post('/api/jobs/rordrum/grades', grade)).status).toBe(201)
    const { body } = await app.change('/api/jobs/rordrum/estimates', { rate: 950, consumables: 500 })
    const made = body.estimates.at(-1)!
    expect(made.body.order.flatMap((o) => o.ids ?? [])).toContain('housing')
    expect(made.body.safety).toContain('The old case: cracked: never rebuilt.')
    const rebuild = await app.change('/api/jobs/rordrum/approvals', {
      estimateId: made.id,
      choice: 'rebuild',
      customer: 'The owner',
      how: 'in writing',
    })
    expect(rebuild.status).toBe(201)
    // until the new one is there, the drive may not go out
    expect(rebuild.body.work.lines).toContainEqual({ code: 'unsafe-in', on: 'housing', colour: 'red' })
    expect(rebuild.body.plan.renew.map((r) => r.part)).toContain('housing')
  })
})

describe('pictures', () => {
  const png = Uint8Array.from(
    atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='),
    (c) => c.charCodeAt(0),
  )
  const send = (query = 'subject=step&of=drain') =>
    app.request(`/api/jobs/rordrum/files?${query}`, {
      method: 'POST',
      headers: { 'x-moray-person': 'ylva', 'content-type': 'application/octet-stream' },
      body: png,
    })
  const placeOf = (hash: string) => join(folder, hash.slice(0, 2), hash)
  const kept = async () => (await app.job('rordrum')).attachments.at(-1)!

  it('that were changed on the disk are not shown, and are mended by sending them again', async () => {
    expect((await send()).status).toBe(201)
    const { hash } = await kept()
    writeFileSync(placeOf(hash), 'something else')
    const altered = await app.request(`/api/files/${hash}`)
    expect(altered.status).toBe(410)
    expect(await altered.json()).toMatchObject({
      error: { code: 'damaged', message: expect.stringContaining('changed on the disk') },
    })
    expect((await check()).broken).toEqual([expect.stringContaining(`picture ${hash}: its file was changed`)])
    expect((await send()).status).toBe(201)
    expect(hashOf(new Uint8Array(await (await app.request(`/api/files/${hash}`)).arrayBuffer()))).toBe(hash)
    rmSync(placeOf(hash))
    expect((await app.request(`/api/files/${hash}`)).status).toBe(404)
    expect((await check()).broken).toEqual([expect.stringContaining('its file is missing')])
  })
  it('have a policy of their own, under which nothing in them may do anything', async () => {
    await send()
    const response = await app.request(`/api/files/${(await kept()).hash}`)
    expect(response.headers.get('content-security-policy')).toBe(
      "default-src 'none'; style-src 'none'; sandbox",
    )
    expect(response.headers.get('x-content-type-options')).toBe('nosniff')
  })
  it('belong to something that the job has', async () => {
    expect((await send('subject=step&of=dancing')).status).toBe(422)
    expect((await send('subject=mood&of=x')).status).toBe(422)
    expect((await send(`subject=step&of=drain&note=${'x'.repeat(301)}`)).status).toBe(422)
    expect((await send('subject=step&of=drain&note=%00')).status).toBe(422)
    expect(readdirSync(folder)).toEqual([])
    expect((await send('subject=part&of=input-carrier&note=groove')).status).toBe(201)
    const { hash, bytes } = await kept()
    expect(readFileSync(placeOf(hash)).length).toBe(bytes)
  })
})

describe('the bench', () => {
  it('searches on the server, in every word, and tells open from over', async () => {
    const ids = async (query: string) => (await app.get<JobPage>(`/api/jobs?${query}`)).jobs.map((j) => j.id)
    expect(await ids('search=milky')).toEqual(['lomvi-teist'])
    expect(await ids('search=LOMVI%20lodden')).toEqual(['lomvi-teist'])
    expect(await ids('search=lomvi%20nobody')).toEqual([])
    expect(await ids('state=over')).toEqual(['lomvi-done'])
    expect(await ids('state=open')).toHaveLength(11)
  })
  it('holds every job on a stand on its first page of open ones, however long it was not touched', async () => {
    await app.db.script(`
      insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, state, stage, complaint, opened_at, touched_at, stand)
      select 'q' || n, '20-' || n, 'teist-6', (select max(version) from drive_sheet where id = 'teist-6'), 'P' || n, 'B', 'O', 'salt', 'received', 'receive', 'whine', now(),
        timestamptz '2026-01-01' - n * interval '1 minute', case when n = 219 then 'Shelf stand' end
      from generate_series(100, 219) n`)
    const seen: JobPage['jobs'] = []
    let next: string | null = ''
    while (next !== null) {
      const page: JobPage = await app.get(
        `/api/jobs?state=open${next ? `&before=${encodeURIComponent(next)}` : ''}`,
      )
      seen.push(...page.jobs)
      next = page.next
    }
    const stands = seen.flatMap((j, i) => (j.stand ? i : []))
    expect(stands).toEqual(stands.map((_, i) => i))
    expect(seen.slice(0, 50).map((j) => j.id)).toContain('q219')
    expect(seen).toHaveLength(131)
    expect(new Set(seen.map((j) => j.id)).size).toBe(131)
    const loose = seen.filter((j) => !j.stand).map((j) => j.touchedAt)
    expect(loose).toEqual([...loose].sort().reverse())
  })
  it('comes page by page, the newest first, each job once', async () => {
    await app.db.script(`
      insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, state, stage, complaint, opened_at, touched_at)
      select 'p' || n, '20-' || n, 'teist-6', (select max(version) from drive_sheet where id = 'teist-6'), 'P' || n, 'B', 'O', 'salt', 'finished', 'done', 'whine', now(), timestamptz '2020-01-01' + (n / 3) * interval '1 minute'
      from generate_series(100, 219) n`)
    const seen: string[] = []
    let next: string | null = ''
    for (let pages = 0; next !== null; pages++) {
      expect(pages).toBeLessThan(5)
      const page: JobPage = await app.get(
        `/api/jobs?state=over${next ? `&before=${encodeURIComponent(next)}` : ''}`,
      )
      expect(page.damaged).toBe(0)
      seen.push(...page.jobs.map((j) => j.id))
      next = page.next
    }
    expect(new Set(seen).size).toBe(121)
    expect(seen).toHaveLength(121)
  })
})

describe('the shop', () => {
  it('is left by its lead alone, once, and begins empty with a name', async () => {
    const leave = { confirm: 'leave the demo' }
    expect((await app.post('/api/shop/leave-demo', leave)).body.error.code).toBe('lead-only')
    expect((await app.post('/api/shop/leave-demo', { confirm: 'yes' }, RUNA)).status).toBe(422)
    const left = await app.post<{ demo: boolean }>('/api/shop/leave-demo', leave, RUNA)
    expect([left.status, left.body.demo]).toEqual([201, false])
    expect((await app.get<JobPage>('/api/jobs')).jobs).toEqual([])
    expect(await app.get('/api/people')).toEqual([])
    // nobody knows anybody yet: the first name is the lead's
    expect((await app.post('/api/drawer', { text: '.5', unit: 'mm', count: 1 })).body.error.code).toBe(
      'no-person',
    )
    const first = await app.post(
      '/api/people',
      { name: 'Åse Lien', role: 'technician' },
      { 'x-moray-person': '' },
    )
    expect(first.body).toEqual([
      { id: 'ase-lien', coded: false, name: 'Åse Lien', role: 'lead', retired: false },
    ])
    const second = { name: 'Bo Vik', role: 'technician' }
    expect((await app.post('/api/people', second, { 'x-moray-person': '' })).body.error.code).toBe(
      'no-person',
    )
    expect((await app.post('/api/people', second, { 'x-moray-person': 'ase-lien' })).status).toBe(201)
    expect(
      (await app.post('/api/people', { ...second, role: 'lead' }, { 'x-moray-person': 'ase-lien' })).body
        .error.code,
    ).toBe('name-taken')
    expect(
      (await app.post('/api/people', { name: 'Cy Dal', role: 'lead' }, { 'x-moray-person': 'bo-vik' })).body
        .error.code,
    ).toBe('lead-only')
    expect(
      (await app.post('/api/shop/leave-demo', leave, { 'x-moray-person': 'ase-lien' })).body.error.code,
    ).toBe('no-demo')
    expect((await check()).broken).toEqual([])
    const [guard] = await app.db.query<{ n: number }>(
      "select count(*)::int as n from pg_trigger where tgenabled <> 'O' and not tgisinternal",
    )
    expect(guard!.n).toBe(0)
  })
})
