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

const now = new Date()
const schema = readSchema(resolve(import.meta.dirname, '..'))
const [started, server] = await took(() => startBuilt(data))
bar('start', started, START_MS)

/** Waits until what a start does by the way is done. */
await new Promise((r) => setTimeout(r, 5000))
async function read(name: string, path: string, times = 15) {
  const all: number[] = []
  for (let i = 0; i < times; i++) {
    const [ms] = await took(async () => (await fetch(server.url + path)).arrayBuffer())
    all.push(ms)
  }
  all.sort((a, b) => a - b)
  bar(`GET ${name}`, all[Math.floor(times / 2)]!, READ_MS)
}
const unit = 'G5'
await read('bench, open', '/api/jobs?state=open')
await read('bench, over', '/api/jobs?state=over')
await read('bench, searched', '/api/jobs?state=over&search=sild%204')
await read('bench, nothing found', '/api/jobs?state=over&search=nowhere')
await read('boats', '/api/units')
await read('boats, searched', '/api/units?search=sild%204')
await read('job', '/api/jobs/lomvi-test')
await read('job of the past', '/api/jobs/g5000')
await read('events of a job', '/api/jobs/g5000/events')
await read('the same unit before', '/api/jobs/g5000/before')
await read('a unit over the years', `/api/units/lomvi-90/jobs?serial=${unit}`)
await read('drawer', '/api/drawer')
await read('shop', '/api/shop')
await read('fault history', '/api/jobs/lomvi-test/fault-history')
await read('experience of a drive', '/api/drives/lomvi-90/experience')
await read('search: a shim', '/api/search?search=0.751%20forward%20lomvi')
await read('search: a boat', '/api/search?search=sild%2017')
await read('search: one word that is everywhere', '/api/search?search=lomvi')
await read('search: a word of a note', '/api/search?search=metal')
await read('search: a number', '/api/search?search=g-4711')
await read('search: nothing', '/api/search?search=quokka')

let slowest = 0
let writing = true
let writes = 0
const writer = (async () => {
  while (writing) {
    const [ms] = await took(() =>
      fetch(`${server.url}/api/drawer/s001/add`, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'x-moray-person': 'ylva',
          'x-moray-request': crypto.randomUUID(),
        },
        body: '{"pieces":1}',
      }),
    )
    writes++
    slowest = Math.max(slowest, ms)
    await new Promise((r) => setTimeout(r, 20))
  }
})()
const command = (name: string, into: string, args: string[]) =>
  new Promise<number>((done) => {
    const child = spawn(process.execPath, [resolve(import.meta.dirname, `../dist/${name}.js`), ...args], {
      env: { ...process.env, MORAY_DATA: into },
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    child.on('close', (code) => done(code ?? 1))
  })
const file = join(folder, 'copy.zip')
const [copied, code] = await took(() => command('backup', data, [file]))
writing = false
await writer
if (code !== 0) throw new Error('no copy was made')
print({
  what: 'copy made and proved',
  s: Math.round(copied / 1000),
  mb: Math.round(statSync(file).size / 1e6),
  writes,
})
bar('longest write while it was copied', slowest, PAUSE_MS)
await server.end('SIGTERM')
const [restored, back] = await took(() => command('restore', join(folder, 'back'), [file]))
if (back !== 0) throw new Error('the copy did not come back')
print({ what: 'brought back', s: Math.round(restored / 1000) })
rmSync(join(folder, 'back'), { recursive: true, force: true })
rmSync(file)
process.exit(missed ? 1 : 0)
