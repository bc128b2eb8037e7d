import type { JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import type { Database, Transaction } from '../../src/db/database.ts'
import { migrate } from '../../src/db/migrate.ts'
import { beginShop } from '../../src/shop/begin.ts'
import { freshDatabase, schema, NOW, onPostgres, otherServer, testApp } from '../test-app.ts'

/** Reads an event stream until `enough` has come. */
async function hear(response: Response, enough: (text: string) => boolean): Promise<string> {
  const reader = response.body!.getReader()
  const decoder = new TextDecoder()
  let text = ''
  while (!enough(text)) {
    const { value, done } = await reader.read()
    if (done) break
    text += decoder.decode(value)
  }
  await reader.cancel()
  return text
}

/** Two servers on one database: on PostgreSQL with connections of their own, on PGlite by the one handle it has. */
async function two() {
  const db = await freshDatabase()
  const second: Database = onPostgres() ? await otherServer() : db
  const a = await testApp({ db, live: true })
  const b = await testApp({ db: second, live: true })
  return { a, b, end: () => (second === db ? Promise.resolve() : second.close()) }
}

const body = { sheetId: 'teist-6', serial: 'T', boat: 'B', owner: 'O', water: 'salt', complaint: 'whine' }

describe('two servers on one database', () => {
  it('tell each other what was committed, and catch a browser up by event id', async () => {
    const { a, b } = await two()
    const listening = hear(await b.request('/api/live'), (t) => t.includes('"kind":"drawer"'))
    await new Promise((r) => setTimeout(r, 50))
    expect((await a.post('/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
    expect(await listening).toMatch(/event: hello[\s\S]*event: change[\s\S]*"kind":"drawer"/)
    const { body: reply } = await a.post<JobReply>('/api/jobs/rordrum/findings', {
      finding: 'metal',
      state: 'there',
    })
    // a browser that knows all but the last two is told those two, before the hello, in order
    const missed = await hear(await b.request(`/api/live?after=${reply.seen - 2}`), (t) =>
      t.includes('event: hello'),
    )
    expect([...missed.matchAll(/^id: (\d+)$/gm)].map((m) => Number(m[1]))).toEqual([
      reply.seen - 1,
      reply.seen,
      reply.seen,
    ])
    const known = await b.request('/api/live', { headers: { 'last-event-id': String(reply.seen) } })
    expect(await hear(known, (t) => t.includes('event: hello'))).not.toContain('event: change')
  })
  it('give every job a number of its own, every event the next one, and every drawer line its id', async () => {
    const { a, b } = await two()
    const jobs = await Promise.all(
      Array.from({ length: 20 }, (_, i) => (i % 2 ? a : b).post<JobReply>('/api/jobs', body)),
    )
    expect(jobs.map((r) => r.status)).toEqual(Array(20).fill(201))
    expect(new Set(jobs.map((r) => r.body.number)).size).toBe(20)
    expect(new Set(jobs.map((r) => r.body.seen)).size).toBe(20)
    const lines = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        (i % 2 ? a : b).post<{ id: string }>('/api/drawer', {
          text: `.9${i}`,
          unit: 'mm',
          count: 1,
          place: 'Q',
        }),
      ),
    )
    expect(new Set(lines.map((r) => r.body.id)).size).toBe(10)
    const [gaps] = await a.db.query<{ n: number; last: number }>(
      'select count(*)::int as n, max(id)::int as last from event',
    )
    expect(gaps!.n).toBe(gaps!.last)
  })
  it('close a step once, take a stand once, lay a part once, build the next trial once', async () => {
    const { a, b } = await two()
    const race = async (path: string, what: object) => {
      const replies = await Promise.all(
        Array.from({ length: 12 }, (_, i) => (i % 2 ? a : b).post(path, what)),
      )
      for (const r of replies) expect(r.status, JSON.stringify(r.body.error)).toBeLessThan(500)
      return replies.filter((r) => r.status === 201).length
    }
    const answers = { 'in.opened': 'no', 'in.struck': 'no' }
    expect(await race('/api/jobs/sivkrok/steps', { step: 'receive', answers })).toBe(1)
    expect(await race('/api/jobs/teist-bent/row', { part: 'housing' })).toBeLessThanOrEqual(1)
    expect(await race('/api/jobs/alke-lower/acceptance', { build: 2, reason: 'closest there is' })).toBe(1)
    await a.post('/api/jobs/lomvi-skarv/life', { act: 'stand' })
    const stands = await Promise.all(
      ['sivkrok', 'rordrum', 'lomvi-teist', 'duo-lower'].map((id, i) =>
        (i % 2 ? a : b).post(`/api/jobs/${id}/life`, { act: 'stand', stand: 'Stand 1' }),
      ),
    )
    expect(stands.filter((r) => r.status === 201)).toHaveLength(1)
    expect(stands.filter((r) => r.body.error?.code === 'stand-taken')).toHaveLength(3)
  })
  it('write a request once that both are sent at the same moment, and answer both alike', async () => {
    const { a, b } = await two()
    const id = { 'x-moray-request': crypto.randomUUID() }
    const before = await a.get<{ id: string; count: number }[]>('/api/drawer')
    const replies = await Promise.all(
      Array.from({ length: 10 }, (_, i) => (i % 2 ? a : b).post('/api/drawer/s001/add', { pieces: 1 }, id)),
    )
    expect(replies.map((r) => r.status)).toEqual(Array(10).fill(201))
    const after = await a.get<{ id: string; count: number }[]>('/api/drawer')
    expect(after[0]!.count).toBe(before[0]!.count + 1)
  })
  it('know a request again that comes a second time to the other one, by whatever address', async () => {
    const { a, b } = await two()
    const init = {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        'x-moray-person': 'ylva',
        'x-moray-request': crypto.randomUUID(),
      },
      body: JSON.stringify({ pieces: 1 }),
    }
    const count = async () => (await a.get<{ count: number }[]>('/api/drawer'))[0]!.count
    const before = await count()
    expect((await a.request('http://127.0.0.1:4747/api/drawer/s001/add', init)).status).toBe(201)
    expect((await b.request('http://localhost:5858/api/drawer/s001/add', init)).status).toBe(201)
    expect(await count()).toBe(before + 1)
    // what the query says is part of what was asked
    const other = await b.request('http://localhost:5858/api/drawer/s001/add?more=1', init)
    expect(other.status).toBe(409)
  })
  it.runIf(onPostgres())('plan a statement once on each connection, whatever went wrong before', async () => {
    await freshDatabase()
    const db = await otherServer()
    const runs = (tx: Transaction, sql: string) =>
      tx.query<{ n: number }>(
        'select (generic_plans + custom_plans)::int as n from pg_prepared_statements where statement = $1',
        [sql],
      )
    const half = 'select 10 / $1::int as half'
    await db.transaction(async (tx) => {
      expect(await tx.query(half, [2])).toEqual([{ half: 5 }])
      expect(await tx.query(half, [5])).toEqual([{ half: 2 }])
      expect(await runs(tx, half)).toEqual([{ n: 2 }])
    })
    const wrong = 'select nothing_of_this_name($1::int)'
    for (const [sql, value, code] of [
      [half, 0, '22012'],
      [wrong, 1, '42883'],
      [wrong, 1, '42883'],
    ] as const)
      await expect(db.transaction((tx) => tx.query(sql, [value]))).rejects.toMatchObject({ code })
    await db.transaction(async (tx) => {
      expect(await tx.query(half, [10])).toEqual([{ half: 1 }])
      // the one that failed did so while it was planned
      expect(await runs(tx, half)).toEqual([{ n: 3 }])
      expect(await runs(tx, wrong)).toEqual([])
    })
    await db.close()
  })
  it.runIf(onPostgres())('start at once on an empty schema and bring it up to date once', async () => {
    const { a, b, end } = await two()
    const [one, other] = [a.db, b.db]
    for (const db of [one, other]) await db.script('create schema if not exists twice')
    const inSchema = (db: Database): Database => ({
      ...db,
      transaction: (work) =>
        db.transaction(async (tx) => {
          await tx.script('set local search_path to twice')
          return work(tx)
        }),
    })
    const done = await Promise.all([one, other].map((db) => migrate(inSchema(db), schema, NOW)))
    expect(done.sort()).toEqual([0, schema.migrations.length])
    const begun = await Promise.all(
      [one, other].map((db) => beginShop(inSchema(db), NOW, { demo: false, shop: crypto.randomUUID() })),
    )
    expect(begun.map((s) => s.isNew).sort()).toEqual([false, true])
    expect(begun[0]!.shop).toBe(begun[1]!.shop)
    await one.script('drop schema twice cascade')
    await end()
  })
})
