import type { Database } from '../../src/db/database.ts'

/** Counts what a database is asked, the ends of transactions included. */
export function counting(db: Database): { db: Database; take: () => string[] } {
  let asked: string[] = []
  const count = <Q extends Pick<Database, 'query' | 'script'>>(q: Q): Q => ({
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
      transaction: async (work) => {
        asked.push('begin')
        const result = await db.transaction((tx) => work(count(tx)))
        asked.push('commit')
        return result
      },
    },
  }
}
