import type { JobPage, JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import type { Database } from '../../src/db/database.ts'
import { testApp } from '../test-app.ts'

/** Counts what a database is asked, the ends of transactions included. */
function counting(db: Database): { db: Database; take: () => string[] } {
  let asked: string[] = []
  const count = <Q extends { query: Database['query']; script: Database['script'] }>(q: Q) => ({
    ...q,
    query: <Row>(sql: string, params?: unknown[]) => {
      asked.push(sql)
      return q.query<Row>(sql, params)
    },
    script: (sql: string) => {
      asked.push(sql)
      return q.script(sql)
    },
  })
  return {
    take: () => {
      const before = asked
      asked = []
      return before
    },
    db: {
      ...count(db),
      listen: db.listen,
      close: db.close,
      transaction: async (work) => {
        asked.push('begin')
        const result = await db.transaction((tx) => work(count(tx)))
        asked.push('commit')
        return result
      },
    },
  }
}

describe('one small write', () => {
  it('prints what there is', async () => {
    let take = () => [] as string[]
    const app = await testApp({
      wrap: (db) => {
        const c = counting(db)
        take = c.take
        return c.db
      },
    })
    const { jobs } = await app.get<JobPage>('/api/jobs')
    for (const j of jobs) {
      take()
      const t = performance.now()
      const text = await (await app.request(`/api/jobs/${j.id}`)).text()
      console.log(j.id, j.state, text.length, take().length, (performance.now() - t).toFixed(1))
      const r = JSON.parse(text) as JobReply
      console.log(
        Object.entries(r)
          .map(([k, v]) => `${k}:${JSON.stringify(v).length}`)
          .filter((x) => Number(x.split(':')[1]) > 300)
          .join(' '),
      )
    }
    expect(jobs.length).toBe(12)
  })
})
