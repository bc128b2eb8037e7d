import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { calculate } from '@moray/contract/calculations/registry'
import { checkBody } from '../src/calc/check-body.ts'
import { createApp } from '../src/app.ts'
import type { CopyKeeper } from '../src/copies/keeper.ts'
import type { Database, Queryable } from '../src/db/database.ts'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { openFolder } from '../src/db/pglite.ts'
import { openPostgres } from '../src/db/postgres.ts'
import { SheetShelf } from '../src/drives/sheets.ts'
import { RecordShelf } from '../src/job/record-shelf.ts'
import { openFileStore } from '../src/files/file-store.ts'
import { Live } from '../src/live/live.ts'
import { beginShop } from '../src/shop/begin.ts'
import { grow } from './grow.ts'

/**
 * npm run bench, second half: statements, bytes and milliseconds of the routes, on the demo and on a shop that has grown to 500, 1000 and 2000
 * jobs; what a synced commit costs. On PGlite in a folder, or on the PostgreSQL server of DATABASE_URL (an empty database).
 */
const NOW = new Date()
const folder = mkdtempSync(join(tmpdir(), 'moray-bench-'))
const print = (row: object) => process.stdout.write(`${JSON.stringify(row)}\n`)

let statements = 0
const counting = <Q extends Queryable>(q: Q): Q => ({
  ...q,
  query: (sql: string, params?: unknown[]) => {
    statements++
    return q.query(sql, params)
  },
})
const url = process.env.DATABASE_URL
const inner = url ? await openPostgres(url, () => {}) : await openFolder(join(folder, 'pg'))
const db: Database = {
  ...counting(inner),
  transaction: (work) => {
    statements += 2
    return inner.transaction((tx) => work(counting(tx)))
  },
}
await migrate(inner, readSchema(resolve(import.meta.dirname, '..')), NOW)
await beginShop(inner, NOW, { demo: 'short', shop: 'bench' })
const app = createApp(
  {
    db,
    live: new Live(),
    sheets: new SheetShelf(),
    records: new RecordShelf(),
    files: openFileStore(join(folder, 'files')),
    copies: { stop: () => {} } as CopyKeeper,
    calc: {
      run: (name, text) => Promise.resolve(JSON.stringify(calculate(name, JSON.parse(text)))),
      check: (path, text) => Promise.resolve(checkBody(path, text)),
      close: () => Promise.resolve(),
    },
    now: () => new Date(),
    log: (m, e) => process.stderr.write(`${m} ${String(e)}\n`),
  },
  { webFolder: folder, data: folder, moray: 'bench', jobSchema: () => ({}) },
)

const quantile = (times: number[], q: number) =>
  Math.round([...times].sort((a, b) => a - b)[Math.floor(q * (times.length - 1))]! * 10) / 10

async function measure(jobs: number, name: string, ask: () => [string, object?], times = 25) {
  const took: number[] = []
  let bytes = 0
  for (let i = 0; i < times; i++) {
    const [path, body] = ask()
    statements = 0
    const started = performance.now()
    const response = await app.request(path, {
      headers: {
        host: '127.0.0.1',
        'x-moray-person': 'runa',
        'content-type': 'application/json',
        'x-moray-request': crypto.randomUUID(),
        'accept-encoding': 'gzip',
      },
      ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    })
    // as it goes over the line
    bytes = (await response.arrayBuffer()).byteLength
    if (response.status >= 400) throw new Error(`${path}: ${response.status}`)
    took.push(performance.now() - started)
  }
  print({ jobs, route: name, statements, bytes, p50Ms: quantile(took, 0.5), p95Ms: quantile(took, 0.95) })
}

let have = 12
for (const jobs of [12, 500, 1000, 2000]) {
  if (jobs > have) await grow(inner, have, jobs)
  have = jobs
  const [sum] = await inner.query<{ readings: number; events: number }>(
    'select (select count(*)::int from reading) as readings, (select count(*)::int from event) as events',
  )
  print({ jobs, ...sum })
  await measure(jobs, 'GET bench, open', () => ['/api/jobs?state=open'])
  await measure(jobs, 'GET bench, over, searched', () => ['/api/jobs?state=over&search=lomvi'])
  await measure(jobs, 'GET units', () => ['/api/units'])
  await measure(jobs, 'GET job', () => ['/api/jobs/lomvi-test'])
  await measure(jobs, 'GET drawer', () => ['/api/drawer'])
  await measure(jobs, 'GET fault history', () => ['/api/jobs/lomvi-test/fault-history'])
  await measure(jobs, 'POST finding', () => [
    '/api/jobs/rordrum/findings',
    { finding: 'metal', state: 'there' },
  ])
  await measure(
    jobs,
    'POST reading',
    () => [
      '/api/jobs/lomvi-skarv/readings',
      { build: 0, measure: 'backlash-forward', text: '.62', unit: 'mm', gaugeId: 'g05' },
    ],
    10,
  )
  await measure(jobs, 'POST draft', () => ['/api/jobs/sivkrok/draft', { step: 'tools', answers: {} }])
  await measure(jobs, 'POST drawer add', () => ['/api/drawer/s001/add', { pieces: 1 }])
}

// a bare query of the same size on the same database, and what syncing a commit costs
const bare: number[] = []
for (let i = 0; i < 40; i++) {
  const started = performance.now()
  await inner.query("select repeat('x', 13000) as text")
  bare.push(performance.now() - started)
}
print({ what: 'bare query of 13 kB', p50Ms: quantile(bare, 0.5) })
await inner.script('create table bench_sync (n int)')
const commits: number[] = []
for (let i = 0; i < 100; i++) {
  const started = performance.now()
  await inner.transaction((tx) => tx.query('insert into bench_sync values ($1)', [i]))
  commits.push(performance.now() - started)
}
print({ what: 'smallest synced commit', p50Ms: quantile(commits, 0.5), p95Ms: quantile(commits, 0.95) })
await inner.close()
rmSync(folder, { recursive: true, force: true })
