import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { writeMark } from '../src/data/mark.ts'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { openFolder } from '../src/db/pglite.ts'
import { beginShop } from '../src/shop/begin.ts'
import { startBuilt } from '../tests/built-server.ts'
import { grow } from './grow.ts'

/**
 * npm run bench, last part: a shop of twenty years, 10 000 jobs and a million readings, in an embedded database. How long it takes to start, to read each
 * page, to find something, to copy it while somebody writes, and to bring the copy back. Ends with 1 where a bar is not met.
 */
const JOBS = Number(process.argv[2] ?? 10_000)
/** Of each reading of the job that is copied, so that there are a million in all. */
const READINGS = 3
const READ_MS = 50
const START_MS = 4000
const PAUSE_MS = 100

const print = (row: object) => process.stdout.write(`${JSON.stringify(row)}\n`)
let missed = 0
const bar = (what: string, value: number, most: number) => {
  const ms = Math.round(value)
  if (ms > most) missed++
  print({ what, ms, bar: most, ...(ms > most ? { missed: true } : {}) })
}
const took = async <T>(work: () => Promise<T>): Promise<[number, T]> => {
  const began = performance.now()
  const result = await work()
  return [performance.now() - began, result]
}

const folder = '/tmp/w/big'
const data = join(folder, 'shop')
mkdirSync(data)
const now = new Date()
const schema = readSchema(resolve(import.meta.dirname, '..'))
const db = await openFolder(join(data, 'pg'))
await migrate(db, schema, now)
const { shop } = await beginShop(db, now, { demo: 'short', shop: 'twenty-years' })
const [filled] = await took(() => grow(db, 12, JOBS, { readings: READINGS }))
const [sums] = await db.query<object>(
  'select (select count(*)::int from job) as jobs, (select count(*)::int from reading) as readings, (select count(*)::int from event) as events',
)
print({ what: 'filled', ...sums, s: Math.round(filled / 1000) })
const [indexed] = await took(async () => {
  for (;;) {
    const [row] = await db.query<{ behind: number }>('select search_catch_up(200)::float8 as behind')
    if (!row!.behind) break
  }
})
print({
  what: 'made searchable, in one go',
  s: Math.round(indexed / 1000),
  msPerJob: Math.round(indexed / JOBS),
})
await db.script('vacuum analyze')
const [size] = await db.query<{ mb: number }>(
  'select (pg_database_size(current_database()) / 1e6)::int as mb',
)
print({ what: 'database', ...size })
await db.close()
writeMark(data, { shop, created: now.toISOString(), state: 'ready' })
