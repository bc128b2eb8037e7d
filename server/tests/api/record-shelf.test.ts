import type { JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { readRecord } from '../../src/job/read-record.ts'
import { openWalker, walkTo } from '../route-walk.ts'
import { freshDatabase, NOW, onPostgres, otherServer, testApp, type TestApp } from '../test-app.ts'
import { LONG_RUN } from '../../../core/tests/long.ts'
import { counting } from './counting.ts'

const whole = (sql: string) => sql.includes('job_record(')

/** An app that says how often a record was read whole. */
async function countingApp() {
  let take = (): string[] => []
  const app = await testApp({
    wrap: (db) => {
      const c = counting(db)
      take = c.take
      return c.db
    },
  })
  return { app, reads: () => take().filter(whole).length }
}

const draft = (app: TestApp, turned: string) =>
  app.post('/api/jobs/lomvi-teist/draft', {
    step: 'leak-found',
    answers: { 'leak-found.turned': turned },
  })
const finding = (app: TestApp, state = 'there', job = 'lomvi-teist') =>
  app.post<JobReply>(`/api/jobs/${job}/findings`, { finding: 'vibration', state })

describe('what is kept ready of a job', () => {
  it('is what the database holds, after every write from receiving to handover, and nobody has altered it', async () => {
    const app = await testApp()
    let compared = 0
    const post: TestApp['post'] = async (path, body, headers) => {
      const reply = await app.post(path, body, headers)
      const id = /^\/api\/jobs\/([^/]+)\//.exec(path)?.[1]
      if (!id || reply.status !== 201) return reply as never
      const kept = await app.deps.records.get(app.db, id)
      expect(kept, path).toEqual(await readRecord(app.db, id))
      compared++
      return reply as never
    }
    const w = await openWalker(app, 'teist-6', LONG_RUN ? {} : { scope: { usual: 'seals:propshaft' } })
    const job = await walkTo({
      ...w,
      app: {
        ...app,
        post,
        async change(path, body, headers) {
          const { status, body: reply } = await post<JobReply>(path, body, headers)
          return { status, body: (status === 201 ? await app.judge(reply) : reply) as never }
        },
      },
    })
    expect(job.state).toBe('finished')
    expect(compared).toBeGreaterThan(LONG_RUN ? 60 : 25)
  })

  it('saves the reading before a write when nothing happened since the last one', async () => {
    const { app, reads } = await countingApp()
    expect((await finding(app)).status).toBe(201)
    reads()
    // read after it only
    expect((await finding(app, 'not')).status).toBe(201)
    expect(reads()).toBe(1)
    await app.get('/api/jobs/lomvi-teist')
    expect(reads()).toBe(0)
    // another job's event may have changed what this one says of its partner: read before and after
    expect((await finding(app, 'there', 'rordrum')).status).toBe(201)
    reads()
    expect((await finding(app)).status).toBe(201)
    expect(reads()).toBe(2)
    await draft(app, 'yes')
    reads()
    expect((await finding(app, 'not')).status).toBe(201)
    expect(reads()).toBe(2)
  })

  it('is not kept of a write that came to nothing', async () => {
    const { app, reads } = await countingApp()
    await finding(app)
    const before = await app.get<JobReply>('/api/jobs/lomvi-teist')
    expect(
      (await app.post('/api/jobs/lomvi-teist/findings', { finding: 'none such', state: 'there' })).status,
    ).toBe(404)
    reads()
    expect(await app.get<JobReply>('/api/jobs/lomvi-teist')).toEqual(before)
    expect(reads()).toBe(0)
  })

  it('is passed over when another server wrote in between, also while this one waited for the job', async () => {
    const db = await freshDatabase()
    const second = onPostgres() ? await otherServer() : db
    const [a, b] = [await testApp({ db }), await testApp({ db: second })]
    const items = (r: JobReply) => r.openItems.map((item) => item.text)
    const add = async (app: TestApp, text: string) => {
      const { status, body } = await app.post<JobReply>('/api/jobs/sivkrok/open-items', { text })
      expect(status).toBe(201)
      return items(body)
    }
    const before = await add(a, 'one of a')
    expect(await add(b, 'one of b')).toEqual([...before, 'one of b'])
    expect(await add(a, 'two of a')).toEqual([...before, 'one of b', 'two of a'])
    // both at once, again and again: each sees all that was there when its turn came
    const all = (
      await Promise.all(Array.from({ length: 12 }, (_, i) => add(i % 2 ? a : b, `at once ${i}`)))
    ).toSorted((x, y) => x.length - y.length)
    for (const [i, seen] of all.entries()) expect(seen).toHaveLength(before.length + 3 + i)
    expect(items(await a.get<JobReply>('/api/jobs/sivkrok'))).toEqual(all.at(-1))
    expect((await a.deps.records.get(a.db, 'sivkrok')).record.touchedAt).toBe(NOW.toISOString())
    if (second !== db) await second.close()
  })
})
