import type { DrawerLine, Gauge, JobPage, Person } from '@moray/contract/replies'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { routeOf } from '@moray/core/route/route-of'
import { describe, expect, it } from 'vitest'
import type { Database } from '../../src/db/database.ts'
import { migrate } from '../../src/db/migrate.ts'
import { openMemory } from '../../src/db/pglite.ts'
import { SheetShelf } from '../../src/drives/sheets.ts'
import { beginShop } from '../../src/shop/begin.ts'
import { readJudged } from '../../src/job/on-job.ts'
import { itOn } from '../databases.ts'
import { schema, NOW, testApp } from '../test-app.ts'
import { JOB } from '../walk.ts'

describe('what can be read', () => {
  it('lists jobs, drawer, gauges, drives and people of the demo', async () => {
    const app = await testApp()
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.length).toBeGreaterThanOrEqual(8)
    expect(new Set(jobs.map((j) => j.state))).toEqual(
      new Set(['setting', 'received', 'teardown', 'waiting', 'working', 'finished', 'reopened']),
    )
    expect((await app.get<DrawerLine[]>('/api/drawer')).length).toBe(41)
    const gauges = await app.get<Gauge[]>('/api/gauges')
    expect(gauges.filter((g) => g.overdue).map((g) => g.id)).toEqual(['g03'])
    expect((await app.get<DriveSheet[]>('/api/drives')).length).toBe(10)
    expect((await app.get<DriveSheet>('/api/drives/lomvi-90')).name).toBe('Lomvi 90')
    expect((await app.get<Person[]>('/api/people')).map((p) => p.role)).toEqual([
      'technician',
      'technician',
      'lead',
    ])
    expect(await app.get('/api/health')).toEqual({ ok: true, database: 'answers' })
  })
  it.each([
    '/api/jobs/nobody',
    '/api/drives/nothing',
    '/api/drawer/none/movements',
    '/api/nowhere',
    '/assets/none.js',
  ])('%s is not there', async (path) => {
    expect((await (await testApp()).request(path)).status).toBe(404)
  })
})

describe('the drawer', () => {
  it('adds, counts and corrects, each with its reason in the book', async () => {
    const app = await testApp()
    const made = await app.post<DrawerLine>('/api/drawer', { text: '9t', unit: 'mm', count: 3, place: 'E1' })
    expect(made.body).toMatchObject({
      id: 's042',
      count: 3,
      thicknessMm: expect.closeTo(0.2286, 10),
      reserved: 0,
    })
    expect((await app.post<DrawerLine>('/api/drawer/s042/add', { pieces: 2 })).body.count).toBe(5)
    expect(
      (await app.post<DrawerLine>('/api/drawer/s042/count', { count: 4, reason: 'one lost under the bench' }))
        .body.count,
    ).toBe(4)
    const corrected = await app.post<DrawerLine>('/api/drawer/s042/thickness', {
      text: '.231',
      unit: 'mm',
      reason: 'measured on three places',
    })
    expect(corrected.body.thicknessMm).toBe(0.231)
    const book = await app.get<{ kind: string; delta: number }[]>('/api/drawer/s042/movements')
    expect(book.map((m) => [m.kind, m.delta])).toEqual([
      ['correct', 0],
      ['count', -1],
      ['add', 2],
      ['add', 3],
    ])
  })
  it.each([
    ['/api/drawer', { text: '0', unit: 'mm', count: 1 }, 'text'],
    ['/api/drawer', { text: '9', unit: 'mm', count: 1 }, 'text'],
    ['/api/drawer', { text: '.2', unit: 'mm', count: -1 }, 'count'],
    ['/api/drawer', { text: '.200', unit: 'mm', count: 1, place: 'A7' }, 'text'],
    ['/api/drawer/s001/add', { pieces: 0 }, 'pieces'],
    ['/api/drawer/s001/count', { count: 2, reason: '' }, 'reason'],
    ['/api/drawer/s001/thickness', { text: 'thin', unit: 'mm', reason: 'looked thin' }, 'text'],
  ])('%s refuses %j at %s', async (path, body, field) => {
    const { body: reply } = await (await testApp()).post(path, body)
    expect(reply.error.fields[0]!.path).toBe(field)
  })
  it('does not know lines that do not exist', async () => {
    expect((await (await testApp()).post('/api/drawer/s999/add', { pieces: 1 })).status).toBe(404)
  })
})

describe('requests that must not pass', () => {
  const reading = { build: 0, measure: 'depth', text: '11.6', unit: 'mm', gaugeId: 'g01' }
  const path = `/api/jobs/${JOB}/readings`

  it.each([
    ['broken JSON', '{"build": 0,', {}, 400, 'broken-json'],
    ['a long text that is broken JSON', `{"build": 0,${' '.repeat(9000)}`, {}, 400, 'broken-json'],
    [
      'unknown fields of a long body',
      JSON.stringify({ ...reading, admin: 'x'.repeat(9000) }),
      {},
      422,
      'invalid-input',
    ],
    ['unknown fields', JSON.stringify({ ...reading, admin: true }), {}, 422, 'invalid-input'],
    ['wrong types', JSON.stringify({ ...reading, text: { $ne: 1 } }), {}, 422, 'invalid-input'],
    ['a list', '[]', {}, 422, 'invalid-input'],
    [
      'a body that is not JSON',
      'build=0',
      { 'content-type': 'application/x-www-form-urlencoded' },
      415,
      'not-json',
    ],
    ['text that is JSON', JSON.stringify(reading), { 'content-type': 'text/plain' }, 415, 'not-json'],
    [
      'a foreign origin',
      JSON.stringify(reading),
      { origin: 'http://elsewhere.example' },
      403,
      'foreign-origin',
    ],
    ['a sandboxed origin', JSON.stringify(reading), { origin: 'null' }, 403, 'foreign-origin'],
    ['another site', JSON.stringify(reading), { 'sec-fetch-site': 'cross-site' }, 403, 'foreign-origin'],
    ['a foreign host', JSON.stringify(reading), { host: 'rebound.example' }, 403, 'foreign-host'],
    ['nobody', JSON.stringify(reading), { 'x-moray-person': '' }, 422, 'no-person'],
    ['a stranger', JSON.stringify(reading), { 'x-moray-person': 'mallory' }, 422, 'no-person'],
    ['10 MB', JSON.stringify({ ...reading, note: 'x'.repeat(10 * 1024 * 1024) }), {}, 413, 'too-large'],
  ])('%s', async (_, body, headers, status, code) => {
    const app = await testApp()
    const reply = await app.post(path, body, headers)
    expect(reply.status).toBe(status)
    expect(reply.body.error.code).toBe(code)
    expect(reply.body.error.message.length).toBeGreaterThan(10)
    expect(Array.isArray(reply.body.error.fields)).toBe(true)
    const [row] = await app.db.query<{ n: number }>(
      'select count(*)::int as n from reading r join build b on b.id = r.build_id where b.job_id = $1',
      [JOB],
    )
    expect(row!.n).toBe(0)
  })

  it('tells broken JSON of a calculation like that of a write', async () => {
    const reply = await (await testApp()).post('/api/calc/shim-solve', '{"stacks": [')
    expect(reply.status).toBe(400)
    expect(reply.body.error).toMatchObject({
      code: 'broken-json',
      message: expect.stringContaining('The body is not JSON'),
    })
  })

  it('counts a body that hides its length', async () => {
    const app = await testApp()
    const chunk = new TextEncoder().encode('x'.repeat(64 * 1024))
    let sent = 0
    const body = new ReadableStream<Uint8Array>({
      pull(out) {
        if (sent++ < 160) out.enqueue(chunk)
        else out.close()
      },
    })
    const response = await app.request(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
      duplex: 'half',
    } as RequestInit)
    expect(response.status).toBe(413)
    expect(sent).toBeLessThan(20)
  })

  it('answers its own origin', async () => {
    const app = await testApp()
    expect(
      (await app.post(path, reading, { origin: 'http://127.0.0.1:4747', 'sec-fetch-site': 'same-origin' }))
        .status,
    ).toBe(201)
  })
})

describe('headers', () => {
  it('let in nothing but our own scripts and styles, with a fresh nonce each time', async () => {
    const app = await testApp()
    const policy = async () => (await app.request('/api/health')).headers.get('content-security-policy')!
    const first = await policy()
    expect(first).toContain("default-src 'none'")
    expect(first).toContain("script-src 'self'")
    expect(first).not.toContain('unsafe')
    expect(first).toMatch(/style-src 'self' 'nonce-[^']{16,}'/)
    expect(await policy()).not.toBe(first)
    const headers = (await app.request('/api/health')).headers
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    expect(headers.get('x-frame-options')).toBe('DENY')
  })
})

describe('calculations over HTTP', () => {
  it('answer by name, and refuse with the one error body', async () => {
    const app = await testApp()
    const good = await app.post<{ value: number }>('/api/calc/parse-reading', {
      text: '16t',
      quantity: 'length',
    })
    expect(good).toMatchObject({ status: 200, body: { value: 0.4064 } })
    expect(await app.post('/api/calc/parse-reading', { text: '16q', quantity: 'length' })).toMatchObject({
      status: 422,
      body: { error: { code: 'not-understood' } },
    })
    expect((await app.post('/api/calc/horoscope', {})).status).toBe(422)
    expect(
      (await app.post('/api/calc/judge', '{"readings":[1e999],"resolution":0,"mpe":0,"window":{"max":1}}'))
        .body.error.fields[0]!.path,
    ).toBe('readings')
  })
  it('let others through while a long one runs', async () => {
    const app = await testApp()
    const pieces = Array.from({ length: 60 }, (_, i) => ({
      id: `p${i}`,
      thicknessMm: 0.05 + ((i * 7919) % 997) / 1100,
      count: 4,
    }))
    const ids = ['a', 'b', 'c', 'd']
    const body = {
      locations: ids.map((id) => ({ id, currentMm: 0.6, minMm: 0.2, maxMm: 1.6, maxPieces: 4 })),
      quantities: ids.map((id) => ({
        id,
        measured: 3,
        u: 0.01,
        window: { min: 0, max: 0.06 },
        target: 0.03,
        sensitivity: { a: -0.4, [id]: -0.7 },
      })),
      pieces,
      maxNodes: 400_000,
    }
    let health = 0
    let running = true
    const long = app.post('/api/calc/shim-solve', body).finally(() => (running = false))
    while (running && health < 50) {
      await app.get('/api/health')
      if (running) health++
      await new Promise((r) => setTimeout(r, 5))
    }
    expect((await long).status).toBe(200)
    expect(health).toBeGreaterThan(0)
  })
})

describe('live events', () => {
  it('tell what was committed, after the commit, and end when the server stops', async () => {
    const app = await testApp({ live: true })
    const response = await app.request('/api/live')
    expect(response.headers.get('content-type')).toContain('text/event-stream')
    const reader = response.body!.getReader()
    const decoder = new TextDecoder()
    let seen = decoder.decode((await reader.read()).value)
    expect(seen).toContain('event: hello')
    await app.post('/api/drawer/s001/add', { pieces: 1 })
    seen = decoder.decode((await reader.read()).value)
    expect(seen).toMatch(/event: change[\s\S]*"kind":"drawer"/)
    expect((await app.post('/api/drawer/s001/add', { pieces: 0 })).status).toBe(422)
    app.live.stop()
    let rest = ''
    for (let part = await reader.read(); !part.done; part = await reader.read())
      rest += decoder.decode(part.value)
    expect(rest).not.toContain('change')
    expect(app.live.open).toBe(0)
  })
})

describe('a write that fails half way', () => {
  /** Passes everything on until the event row, then fails as the given error. */
  const failing =
    (code: string) =>
    (db: Database): Database => ({
      ...db,
      transaction: (work) =>
        db.transaction((tx) =>
          work({
            ...tx,
            query: (sql, params) =>
              sql.includes('insert into event')
                ? Promise.reject(Object.assign(new Error(`fails with ${code}`), { code }))
                : tx.query(sql, params),
          }),
        ),
    })

  it.each([
    ['a full disk', '53100', 507, 'storage', 'full'],
    ['a full disk below the database', 'ENOSPC', 507, 'storage', 'full'],
    ['a read-only folder', 'EROFS', 507, 'storage', 'read-only'],
    ['anything unexpected', 'XX000', 500, 'internal', 'nothing was stored'],
  ])('%s leaves nothing behind', async (_, sqlstate, status, code, words) => {
    const app = await testApp({ wrap: failing(sqlstate) })
    const before = await app.get<DrawerLine[]>('/api/drawer')
    const reply = await app.post('/api/drawer/s001/add', { pieces: 2 })
    expect(reply.status).toBe(status)
    expect(reply.body.error).toMatchObject({ code, message: expect.stringContaining(words) })
    expect(await app.get('/api/drawer')).toEqual(before)
    expect(app.logged.length).toBe(1)
  })
})

describe('migrations and demo', () => {
  it('run once, and refuse a database from the future', async () => {
    const app = await testApp()
    expect(await migrate(app.db, schema, NOW)).toBe(0)
    expect(await beginShop(app.db, NOW, { demo: true, shop: 'another' })).toEqual({
      shop: 'test-shop',
      isNew: false,
      epoch: expect.stringMatching(/^demo-/),
    })
    await app.db.query(
      "insert into schema_version (number, name, at) select n, 'later', now() from generate_series(900, 950) n",
    )
    await expect(migrate(app.db, schema, NOW)).rejects.toThrow(/newer Moray .*start the newer one/)
    await app.db.query("update schema_version set moray = '0.950.0' where number = 950")
    await expect(migrate(app.db, schema, NOW)).rejects.toThrow('start version 0.950.0 or a newer one')
  })
  it('are counted in the version of Moray, which is what an older one names', async () => {
    expect(schema.moray.split('.')[1]).toBe(String(schema.migrations.length))
    const app = await testApp()
    expect(await app.db.query('select moray from schema_version order by number desc limit 1')).toEqual([
      { moray: schema.moray },
    ])
  })
  it('leave nothing of a migration that fails', async () => {
    const app = await testApp()
    const broken = {
      ...schema,
      migrations: [
        ...schema.migrations,
        {
          number: schema.migrations.length + 1,
          name: 'broken',
          sql: 'create table half (a int); select * from nowhere',
        },
      ],
    }
    await expect(migrate(app.db, broken, NOW)).rejects.toThrow()
    await expect(app.db.query('select * from half')).rejects.toThrow()
    expect(await migrate(app.db, schema, NOW)).toBe(0)
  })
  // there was no other database in those days
  itOn('PGlite')(
    'carry a database of the first version over: its jobs go on, with sheets that know no parts yet',
    async () => {
      const db = await openMemory()
      await migrate(db, { migrations: schema.migrations.slice(0, 1), functions: [], moray: '0.15.0' }, NOW)
      const { parts: _parts, ...old } = demoSheets[0]!
      await db.query("insert into person (id, name, role) values ('ylva', 'Ylva Tangvik', 'technician')")
      await db.query('insert into drive_sheet (id, version, body) values ($1, 1, $2::jsonb)', [
        old.id,
        JSON.stringify({ ...old, version: 1 }),
      ])
      await db.query(
        `insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, state, stage, waits_for, complaint,
         opened_at, touched_at)
       values ('old', '25-001', $1, 1, 'X', 'Y', 'Z', 'salt', 'setting', 'Setting', 'something', 'whine', $2, $2)`,
        [old.id, NOW],
      )
      await db.query("insert into build (job_id, number, by_person, at) values ('old', 0, 'ylva', $1)", [NOW])
      await db.query("insert into setting (key, value) values ('demo', 'true'::jsonb)")
      expect(await migrate(db, schema, NOW)).toBe(schema.migrations.length - 1)
      expect((await beginShop(db, NOW, { demo: true, shop: 'old-shop' })).isNew).toBe(false)
      const job = await readJudged(db, { sheets: new SheetShelf() }, 'old', NOW)
      expect(job).toMatchObject({ stage: 'setting', waits: { kind: 'said', text: 'something' } })
      expect(job.sheet.parts).toEqual([])
      expect(job.newerSheetVersion).toBe(demoSheets[0]!.version)
      expect(routeOf(job.sheet).steps.at(-1)!.id).toBe('handover')
      await db.close()
    },
  )
})
