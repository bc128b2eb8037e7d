import { endpoints } from '@moray/contract/endpoints'
import type { JobReply, Shop } from '@moray/contract/replies'
import type { EventEntry } from '@moray/core/job/event'
import { eventText } from '@moray/core/job/event-text'
import { describe, expect, it } from 'vitest'
import { FairQueue } from '../../src/calc/fair-queue.ts'
import { answerError } from '../../src/http/errors.ts'
import { listJobs } from '../../src/jobs/list.ts'
import { NOW, testApp } from '../test-app.ts'

describe('a job without a complaint', () => {
  const opened = async (also: object) => {
    const app = await testApp()
    const drive = { sheetId: 'teist-6', serial: 'T-1', boat: 'Terna', owner: 'Vik', water: 'salt' }
    const reply = await app.post<{ id: string }>('/api/jobs', { ...drive, ...also })
    return { app, ...reply }
  }
  it('is opened for a yearly service, and corrected without being asked for one', async () => {
    const { app, status, body } = await opened({ scope: { usual: 'service' } })
    expect(status).toBe(201)
    const read = () => app.get<JobReply>(`/api/jobs/${body.id}`)
    expect(await read()).toMatchObject({ complaint: '', boat: 'Terna' })
    await app.post(`/api/jobs/${body.id}/details`, { boat: 'Terna II', reason: 'misread' })
    expect(await read()).toMatchObject({ complaint: '', boat: 'Terna II' })
  })
  it.each([
    {},
    { scope: { usual: 'full' } },
    { complaint: '' },
    { scope: { usual: 'service' }, complaint: 'a' },
  ])('is refused by name: %j', async (also) => {
    const { status, body } = await opened(also)
    expect(status).toBe(422)
    expect(body).toMatchObject({ error: { fields: [{ path: 'complaint' }] } })
  })
})

describe('small things that an attacker found', () => {
  it.each([
    '/api/drives/lomvi-90/versions/999999999999999/file',
    '/api/drives/lomvi-90/versions/2147483648/file',
    '/api/drives/lomvi-90/versions/2147483648',
  ])('%s is not there, and no error of the server', async (path) => {
    const app = await testApp()
    expect((await app.request(path)).status).toBe(404)
    expect(app.logged).toEqual([])
  })
  it('jobs that a wrong clock has dated ahead come last on the bench, page by page', async () => {
    const app = await testApp()
    const page = (before: string | null) =>
      listJobs(app.db, { state: 'all', search: '', before, limit: 4 }, NOW)
    const pages = async () => {
      const ids: string[] = []
      for (let before: string | null | undefined; before !== null;) {
        const { jobs, next } = await page(before ?? null)
        ids.push(...jobs.map((j) => j.id))
        before = next
      }
      return ids
    }
    const all = await pages()
    const ahead = all[3]!
    await app.db.query("update job set touched_at = touched_at + interval '1 year' where id = $1", [ahead])
    const seen = await pages()
    expect(seen).toEqual([...all.filter((id) => id !== ahead), ahead])
  })
  it('whoever leaves amid a question leaves no complaint about the database in the log', async () => {
    const logged: string[] = []
    const gone = new AbortController()
    gone.abort()
    const reset = Object.assign(new Error('aborted'), { code: 'ECONNRESET' })
    const c = {
      req: { raw: { signal: gone.signal } },
      body: (_: null, status: number) => ({ status }),
    }
    expect(answerError(reset, c as never, (m) => logged.push(m)).status).toBe(400)
    expect(logged).toEqual([])
  })
  it('what is sent is declared as sent', () => {
    expect([endpoints.attach.method, endpoints.calculate.method]).toEqual(['POST', 'POST'])
  })
})

describe('long bodies', () => {
  it('of one client wait for each other, and keep nobody else waiting', async () => {
    const queue = new FairQueue(100, () => new Error('full'))
    const done: string[] = []
    const finish: (() => void)[] = []
    const work = (name: string) => () =>
      new Promise<void>((end) =>
        finish.push(() => {
          done.push(name)
          end()
        }),
      )
    const all = [
      ...Array.from({ length: 6 }, (_, i) => queue.run('bad', 200_000, work(`bad ${i}`))),
      queue.run('good', 8000, work('good')),
      queue.run('bad', 7000, work('bad, short')),
    ]
    while (done.length < all.length) {
      await new Promise((r) => setTimeout(r))
      finish.shift()?.()
    }
    await Promise.all(all)
    expect(done.slice(0, 3)).toEqual(['bad 0', 'good', 'bad, short'])
    expect(done).toHaveLength(8)
  })
  it('are refused beyond what may wait', async () => {
    const queue = new FairQueue(1, () => new Error('full'))
    let end = () => {}
    const first = queue.run('a', 1, () => new Promise<void>((done) => (end = done)))
    const second = queue.run('a', 1, () => Promise.resolve())
    await expect(queue.run('a', 1, () => Promise.resolve())).rejects.toThrow('full')
    end()
    await Promise.all([first, second])
  })
})

describe('what a shop has not said', () => {
  it('is not known, in its rules, in its history, and wherever a job is judged', async () => {
    const app = await testApp()
    const said = {
      departuresNeedLead: false,
      units: 'imperial',
      stands: ['Stand 1', 'Stand 2', 'Stand 3'],
    }
    const { body, status } = await app.post('/api/shop/rules', said, { 'x-moray-person': 'runa' })
    expect(status, JSON.stringify(body)).toBe(201)
    const shop = await app.get<Shop>('/api/shop')
    expect(shop.rules).toMatchObject({ rate: null, consumables: null, currency: null, units: 'imperial' })
    const { ways } = await app.job('lomvi-skarv')
    expect([ways.rules.rate, ways.rules.currency]).toEqual([null, null])
    const [told] = await app.db.query<{ entry: EventEntry }>(
      "select json_build_object('kind', kind, 'data', data) as entry from event where subject = 'rules' order by id desc limit 1",
    )
    expect(eventText(told!.entry)).toBe('Shop rules: departures by whoever works, price of an hour not known')
  })
})
