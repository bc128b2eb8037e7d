import type { JobPage } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { readLogs } from '../../src/acts/log.ts'
import { readJudged } from '../../src/job/on-job.ts'
import { SheetShelf } from '../../src/drives/sheets.ts'
import { NOW, testApp, type TestApp } from '../test-app.ts'

const deps = { sheets: new SheetShelf() }
const judgedOf = (app: TestApp, id: string) => readJudged(app.db, deps, id, NOW)
const logOf = async (app: TestApp, id: string) => (await readLogs(app.db, [id])).get(id) ?? []
const keysOf = async (app: TestApp, id: string) =>
  (
    await app.db.query<{ key: string }>('select distinct source_key as key from act where job_id = $1', [id])
  ).map((r) => r.key)
/** A write to a job that does nothing to its unit. */
async function touched(app: TestApp, id: string) {
  const r = await app.post(`/api/jobs/${id}/findings`, { finding: 'vibration', state: 'there' })
  expect(r.status, JSON.stringify(r.body).slice(0, 200)).toBe(201)
}
const said = (lines: { code: string; on: string }[]) => lines.map((l) => `${l.code} ${l.on}`)

describe('the log of a job', () => {
  it('begins with its next write, holds all that its record says, and is added to after that', async () => {
    const app = await testApp()
    expect(await logOf(app, 'lomvi-teist')).toEqual([])
    await touched(app, 'lomvi-teist')
    const job = await judgedOf(app, 'lomvi-teist')
    const first = await logOf(app, 'lomvi-teist')
    expect(first.map((a) => [a.do, a.on])).toEqual(job.work.acts.map((a) => [a.do, a.on]))
    expect(new Set(first.map((a) => a.from))).toEqual(new Set(['carried-over']))
    const r = await app.post('/api/jobs/lomvi-teist/open-items', { text: 'a chip in the tray' })
    expect(r.status, JSON.stringify(r.body).slice(0, 200)).toBe(201)
    const then = await logOf(app, 'lomvi-teist')
    expect(then.slice(0, first.length)).toEqual(first)
    expect(then.slice(first.length)).toMatchObject([{ do: 'find', from: 'told', sure: 'seen' }])
  })
  it('says of every job of the demo what its record says, line by line', async () => {
    const app = await testApp()
    const { jobs } = await app.get<JobPage>('/api/jobs?state=open')
    expect(jobs.length).toBeGreaterThanOrEqual(10)
    for (const { id } of jobs) {
      const before = (await judgedOf(app, id)).work
      expect(await logOf(app, id), id).toEqual([])
      await touched(app, id)
      const after = (await judgedOf(app, id)).work
      expect(said(after.lines), id).toEqual(said(before.lines))
      expect(await logOf(app, id), id).toHaveLength(before.acts.length)
    }
  })
  it('keeps what was claimed on its day, and strikes what was taken back', async () => {
    const app = await testApp()
    await touched(app, 'lomvi-teist')
    const { closings } = await judgedOf(app, 'lomvi-teist')
    const logged = await keysOf(app, 'lomvi-teist')
    const newest = closings.findLast((c) => !c.takenBack && logged.includes(`closing ${c.id}`))!
    const key = `closing ${newest.id}`
    const before = await logOf(app, 'lomvi-teist')
    const back = await app.post(`/api/jobs/lomvi-teist/steps/${newest.id}/take-back`, {
      reason: 'by mistake',
    })
    expect(back.status, JSON.stringify(back.body).slice(0, 200)).toBe(201)
    const struck = await app.db.query<{ key: string }>(
      'select a.source_key as key from act_struck s join act a on a.id = s.act_id where a.job_id = $1 and s.changed_to is null',
      ['lomvi-teist'],
    )
    expect(struck.map((s) => s.key)).toContain(key)
    expect((await logOf(app, 'lomvi-teist')).length).toBe(before.length - struck.length)
    await expect(app.db.query("delete from act where job_id = 'lomvi-teist'")).rejects.toThrow(/evidence/)
  })
  it('says how it was of an act that was put right, and that of one that never happened nothing is left', async () => {
    const app = await testApp()
    const grade = (body: object) =>
      app.post('/api/jobs/rordrum/grades', { part: 'housing', seen: [], reason: 'looked at', ...body })
    const done = async () =>
      app.db.query<{ verb: string; object: string; figures: unknown; struck: boolean; now: unknown }>(
        `select a.verb, a.object, a.figures, s.act_id is not null as struck, c.figures as now
         from act a left join act_struck s on s.act_id = a.id left join act c on c.id = s.changed_to
         where a.job_id = 'rordrum' and a.object = 'housing' order by a.id`,
      )
    expect((await grade({ grade: 'keep' })).status).toBe(201)
    expect((await grade({ grade: 'replace', seen: ['crack'] })).status).toBe(201)
    const unsafe = { condition: 'unsafe', why: 'crack' }
    expect(await done()).toMatchObject([
      { verb: 'grade', figures: { condition: 'good' }, struck: true, now: unsafe },
      { verb: 'grade', figures: unsafe, struck: false, now: null },
    ])
    expect(said((await judgedOf(app, 'rordrum')).work.lines)).toContain('unsafe-in housing')
  })
  it('of two who write at once holds each act once', async () => {
    const app = await testApp()
    await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        app.post('/api/jobs/lomvi-teist/open-items', { text: `item ${i}` }),
      ),
    )
    const rows = await app.db.query<{ n: number }>(
      "select count(*)::int as n from act where job_id = 'lomvi-teist' group by source_key, place order by 1 desc limit 1",
    )
    expect(rows[0]!.n).toBe(1)
    expect((await logOf(app, 'lomvi-teist')).filter((a) => a.do === 'find')).toHaveLength(6)
  })
})
