import { spawn, type ChildProcess } from 'node:child_process'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { DrawerLine, DrawerMovement } from '@moray/contract/replies'
import { openPostgres } from '../src/db/postgres.ts'
import { checkBuilt, startBuilt } from '../tests/built-server.ts'
import { postgresPrograms, startCluster } from '../tests/postgres-cluster.ts'

/**
 * npm run bad-neighbours [rounds] [seed] [folder]: what lives beside the built server and goes wrong. A PostgreSQL server that is stopped, started again,
 * and whose connections are ended while several write; and, where the folder of another version of Moray is named that is built there, that version on
 * the same data: the one that comes second has to end, and the first one's entries have to be there. Prints one JSON line; ends with 1 where an entry was
 * lost or doubled, a server went down, or a folder does not hold together.
 */
const [rounds = 10, seed = Date.now() % 100_000] = process.argv.slice(2, 4).map(Number)
const other = process.argv[4]
const WRITERS = 4
const LINES = Array.from({ length: 20 }, (_, i) => `s${String(i + 1).padStart(3, '0')}`)

let state = seed >>> 0
const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
const sleep = (ms: number) => new Promise((r) => setTimeout(r, ms))
const root = mkdtempSync(join(tmpdir(), 'moray-neighbours-'))
process.on('exit', () => rmSync(root, { recursive: true, force: true }))

const wrong: string[] = []
const statuses = new Map<number, number>()
let made = 0

/** Entries that are written until somebody says stop; each is sent again under its id until it is answered. */
function writers(url: string) {
  const acknowledged: { line: string; reason: string }[] = []
  let going = true
  const one = async () => {
    while (going) {
      const n = ++made
      const entry = { line: LINES[n % LINES.length]!, reason: `neighbour ${seed} no. ${n}` }
      const request = crypto.randomUUID()
      for (let answered = false; !answered;) {
        const reply = await fetch(`${url}/api/drawer/${entry.line}/add`, {
          method: 'POST',
          headers: {
            'content-type': 'application/json',
            'x-moray-person': 'runa',
            'x-moray-request': request,
          },
          body: JSON.stringify({ pieces: 1, reason: entry.reason }),
        }).catch(() => undefined)
        if (reply) statuses.set(reply.status, (statuses.get(reply.status) ?? 0) + 1)
        answered = reply?.status === 201
        if (answered) acknowledged.push(entry)
        else if (!going) return
        else await sleep(30)
      }
    }
  }
  const all = Promise.all(Array.from({ length: WRITERS }, one))
  return {
    acknowledged,
    async more(count: number) {
      const until = acknowledged.length + count
      for (let waited = 0; acknowledged.length < until; waited += 20) {
        if (waited > 60_000) return void wrong.push('nothing was acknowledged for a minute')
        await sleep(20)
      }
    },
    async stop() {
      going = false
      await all
    },
  }
}

/** Every acknowledged entry is there once, and every stock is the sum of its book; as far back as a book shows. */
async function look(url: string, acknowledged: readonly { line: string; reason: string }[]) {
  const read = async <T>(path: string) => (await (await fetch(url + path)).json()) as T
  const drawer = await read<DrawerLine[]>('/api/drawer')
  for (const line of LINES) {
    const book = await read<DrawerMovement[]>(`/api/drawer/${line}/movements`)
    const times = new Map<string, number>()
    for (const m of book) times.set(m.reason, (times.get(m.reason) ?? 0) + 1)
    const mine = acknowledged.filter((e) => e.line === line).slice(-180)
    for (const { reason } of mine)
      if (times.get(reason) !== 1) wrong.push(`${reason}: ${times.get(reason) ?? 0} times`)
    const { count } = drawer.find((l) => l.id === line)!
    if (book.length < 200 && count !== book.reduce((n, m) => n + m.delta, 0))
      wrong.push(`stock of ${line}: ${count}`)
  }
}

/** A PostgreSQL server that goes away and comes back, in each round in one of three ways. */
async function postgresGoesAway(programs: string): Promise<number> {
  const cluster = startCluster(programs, { durable: true })
  const url = cluster.url('postgres')
  const folder = join(root, 'beside-postgres')
  const server = await startBuilt(folder, { DATABASE_URL: url, MORAY_DEMO: 'on' })
  const load = writers(server.url)
  for (let i = 0; i < rounds; i++) {
    await load.more(10)
    if (i % 3 === 0) {
      const admin = await openPostgres(url, () => {})
      await admin.query(
        'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
      )
      await admin.close()
    } else {
      cluster.halt(i % 3 === 1 ? 'immediate' : 'fast')
      await sleep(300 * random())
      cluster.resume()
    }
    await load.more(5)
  }
  await load.stop()
  await look(server.url, load.acknowledged)
  if (server.child.exitCode !== null) wrong.push('the server went down beside PostgreSQL')
  await server.end('SIGTERM')
  cluster.stop()
  return load.acknowledged.length
}

interface Started {
  child: ChildProcess
  url: string | undefined
  ended: Promise<number | null>
}
/** Starts a built version in a checkout. @returns once it answers, or has ended */
async function startIn(checkout: string, folder: string, port = '0'): Promise<Started> {
  const child = spawn(process.execPath, ['server/dist/main.js'], {
    cwd: checkout,
    env: { ...process.env, PORT: port, MORAY_DATA: folder },
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  let said = ''
  child.stdout.on('data', (d) => (said += String(d)))
  const ended = new Promise<number | null>((done) => child.on('exit', done))
  let over = false
  void ended.then(() => (over = true))
  while (!over && !/ready at http/.test(said)) await sleep(20)
  return { child, url: /ready at (http:\S+)/.exec(said)?.[1], ended }
}

/** Another version and this one on one folder: whoever comes second has to end, whichever it is and on whichever port. */
async function anotherVersion(checkout: string): Promise<number> {
  const here = join(import.meta.dirname, '../..')
  const prepared = join(root, 'prepared')
  const first = await startIn(checkout, prepared)
  first.child.kill('SIGTERM')
  await first.ended
  let acknowledged = 0
  for (let i = 0; i < rounds; i++) {
    const folder = join(root, `shared-${i}`)
    cpSync(prepared, folder, { recursive: true })
    const old = await startIn(checkout, folder)
    const load = writers(old.url!)
    await load.more(5)
    const intruder = await startIn(here, folder, i % 2 ? '0' : new URL(old.url!).port)
    if (intruder.url) wrong.push(`round ${i}: this version started beside the other one`)
    intruder.child.kill('SIGKILL')
    await load.more(5)
    await load.stop()
    old.child.kill(random() < 0.5 ? 'SIGTERM' : 'SIGKILL')
    await old.ended
    const own = await startIn(here, folder)
    if (!own.url) {
      wrong.push(`round ${i}: the folder does not open any more`)
      continue
    }
    await look(own.url, load.acknowledged)
    const again = await startIn(checkout, folder, i % 2 ? '0' : new URL(own.url).port)
    if (again.url) wrong.push(`round ${i}: the other version started beside this one`)
    again.child.kill('SIGKILL')
    await look(own.url, load.acknowledged)
    own.child.kill('SIGTERM')
    await own.ended
    const { status, said } = checkBuilt(folder)
    if (status !== 0) wrong.push(said.slice(-600))
    acknowledged += load.acknowledged.length
    rmSync(folder, { recursive: true, force: true })
  }
  return acknowledged
}

const programs = postgresPrograms()
const besidePostgres = programs ? await postgresGoesAway(programs) : 'no PostgreSQL server here'
const besideAnother = other ? await anotherVersion(other) : 'no other version named'
process.stdout.write(
  `${JSON.stringify({
    name: 'bad-neighbours',
    seed,
    rounds,
    acknowledgedBesidePostgres: besidePostgres,
    acknowledgedBesideAnotherVersion: besideAnother,
    statuses: Object.fromEntries([...statuses].sort(([a], [b]) => a - b)),
    wrong: wrong.length,
  })}\n`,
)
for (const w of wrong.slice(0, 20)) process.stderr.write(`${w}\n`)
process.exit(wrong.length ? 1 : 0)
