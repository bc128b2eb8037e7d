import { spawnSync } from 'node:child_process'
import { copyFileSync, cpSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { DrawerLine, DrawerMovement, JobReply } from '@moray/contract/replies'
import { checkBuilt, startBuilt, type BuiltServer } from '../tests/built-server.ts'

/**
 * npm run bad-days [kills] [cuts] [seed]: the built server killed while several write to it, and the image of its disk taken at any moment, as a power
 * cut would leave it. What was acknowledged must be there once; what was not is sent again with its id, and must be there once after that. The disk
 * needs root and loop devices. Prints one JSON line; ends with 1 where an entry was lost or doubled, or a folder does not hold together.
 */
const [kills = 40, cuts = 13, seed = Date.now() % 100_000] = process.argv.slice(2).map(Number)
const WRITERS = 4
/** A book shows its newest two hundred movements. */
const LINES = Array.from({ length: 20 }, (_, i) => `s${String(i + 1).padStart(3, '0')}`)
const JOB = 'lomvi-teist'

let state = seed >>> 0
const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296
const runs = (program: string, ...args: string[]) => spawnSync(program, args).status === 0
const sleep = (ms: number) => new Promise((r) => setTimeout(r, ms))

interface Entry {
  /** Where it goes: pieces into the drawer, or an open item of a job. */
  path: string
  text: string
  request: string
}
let made = 0
function entry(): Entry {
  const n = ++made
  const path = n % 8 ? `/api/drawer/${LINES[n % LINES.length]}/add` : `/api/jobs/${JOB}/open-items`
  return { path, text: `bad day ${seed} no. ${n}`, request: crypto.randomUUID() }
}
/** @returns whether it was acknowledged */
async function send({ url }: BuiltServer, e: Entry): Promise<boolean> {
  const body = e.path.startsWith('/api/drawer') ? { pieces: 1, reason: e.text } : { text: e.text }
  const reply = await fetch(url + e.path, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'x-moray-person': 'runa',
      'x-moray-request': e.request,
    },
    body: JSON.stringify(body),
  }).catch(() => undefined)
  if (reply && reply.status !== 201) throw new Error(`${reply.status} ${await reply.text()}`)
  return reply !== undefined
}

const read = async <T>({ url }: BuiltServer, path: string) => (await (await fetch(url + path)).json()) as T

const acknowledged = new Set<Entry>()
const unsure = new Set<Entry>()
/** What was found wrong, by what it is about: seen at every look, counted once. */
const found = { lost: new Set<string>(), doubled: new Set<string>(), stockWrong: new Set<string>() }

/** Several write until there is no answer any more; whoever gets none does not know what became of it. @returns when all have stopped */
const write = (server: BuiltServer): Promise<unknown> =>
  Promise.all(
    Array.from({ length: WRITERS }, async () => {
      for (;;) {
        const e = entry()
        unsure.add(e)
        if (!(await send(server, e))) return
        unsure.delete(e)
        acknowledged.add(e)
      }
    }),
  )

/** Counts what of the entries is not there, or there twice. */
async function look(server: BuiltServer, entries: Iterable<Entry>): Promise<void> {
  const books = await Promise.all(
    LINES.map((line) => read<DrawerMovement[]>(server, `/api/drawer/${line}/movements`)),
  )
  const { openItems } = await read<JobReply>(server, `/api/jobs/${JOB}`)
  const times = new Map<string, number>()
  for (const text of [...books.flat().map((m) => m.reason), ...openItems.map((i) => i.text)])
    times.set(text, (times.get(text) ?? 0) + 1)
  for (const { text } of entries) {
    const n = times.get(text) ?? 0
    if (n === 0) found.lost.add(text)
    if (n > 1) found.doubled.add(text)
  }
  const drawer = await read<DrawerLine[]>(server, '/api/drawer')
  for (const [i, id] of LINES.entries()) {
    const { count } = drawer.find((l) => l.id === id)!
    if (count !== books[i]!.reduce((sum, m) => sum + m.delta, 0)) found.stockWrong.add(id)
  }
}

/** What got no answer is sent again, as a browser does. */
async function sendAgain(server: BuiltServer): Promise<void> {
  for (const e of unsure) {
    if (!(await send(server, e))) throw new Error('the server does not answer')
    unsure.delete(e)
    acknowledged.add(e)
  }
}

const root = mkdtempSync(join(tmpdir(), 'moray-bad-days-'))
const place = join(root, 'cut')
const disk = join(root, 'disk')
process.on('exit', () => {
  for (const mounted of [place, disk]) runs('umount', '-l', mounted)
  rmSync(root, { recursive: true, force: true })
})
const broken: string[] = []
function check(folder: string) {
  const { status, said } = checkBuilt(folder)
  if (status !== 0) broken.push(said.slice(-1500))
}

const killed = join(root, 'killed')
await (await startBuilt(killed)).end('SIGTERM')
const prepared = join(root, 'prepared')
cpSync(killed, prepared, { recursive: true })
for (let k = 0; k < kills; k++) {
  const server = await startBuilt(killed)
  await look(server, acknowledged)
  await sendAgain(server)
  const writing = write(server)
  await sleep(50 + 500 * random())
  await server.end('SIGKILL')
  await writing
}
let last = await startBuilt(killed)
await sendAgain(last)
await look(last, acknowledged)
await last.end('SIGTERM')
check(killed)
const survived = acknowledged.size

acknowledged.clear()
const image = join(root, 'disk.img')
mkdirSync(disk)
const hasDisk =
  cuts > 0 &&
  runs('truncate', '-s', '300M', image) &&
  runs('mkfs.ext4', '-q', '-F', image) &&
  runs('mount', '-o', 'loop', image, disk)
let taken = 0
if (hasDisk) {
  const folder = join(disk, 'data')
  cpSync(prepared, folder, { recursive: true })
  runs('sync')
  for (; taken < cuts; taken++) {
    const server = await startBuilt(folder)
    await sendAgain(server)
    await look(server, acknowledged)
    const writing = write(server)
    await sleep(200 + 800 * random())
    // what was acknowledged before the cut counts; what comes while the image is taken may be there or not
    const before = [...acknowledged]
    server.child.kill('SIGSTOP')
    const copy = join(root, 'cut.img')
    copyFileSync(image, copy)
    server.child.kill('SIGCONT')
    await server.end('SIGKILL')
    await writing
    const after = join(root, 'after')
    mkdirSync(place)
    if (!runs('mount', '-o', 'loop', copy, place)) throw new Error('the image cannot be mounted')
    // the socket of the killed server is no file
    cpSync(join(place, 'data'), after, { recursive: true, filter: (f) => !f.endsWith('.sock') })
    runs('umount', place)
    rmSync(join(after, 'lock'), { recursive: true, force: true })
    last = await startBuilt(after)
    await look(last, before)
    await last.end('SIGTERM')
    check(after)
    for (const gone of [place, after]) rmSync(gone, { recursive: true, force: true })
  }
}
process.stdout.write(
  `${JSON.stringify({
    name: 'bad-days',
    seed,
    kills,
    acknowledgedBeforeKills: survived,
    cuts: hasDisk ? taken : 'no disk of its own here',
    acknowledgedBeforeCuts: acknowledged.size,
    lost: found.lost.size,
    doubled: found.doubled.size,
    stockWrong: found.stockWrong.size,
    broken: broken.length,
  })}\n`,
)
for (const said of broken) process.stderr.write(`${said}\n`)
process.exit(broken.length || Object.values(found).some((wrong) => wrong.size) ? 1 : 0)
