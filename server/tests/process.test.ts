import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import {
  appendFileSync,
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { fullRecord } from '@moray/core/job/compact'
import type { DrawerLine, DrawerMovement, EventEntry, JobReply } from '@moray/contract/replies'
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { JOB } from './walk.ts'

/** The server as a process of its own: started, killed, started again. */
const root = resolve(import.meta.dirname, '../..')
const scratch = mkdtempSync(join(tmpdir(), 'moray-process-'))
const prepared = join(scratch, 'prepared')
const running = new Set<ChildProcess>()

interface Server {
  url: string
  child: ChildProcess
  stop: (signal: NodeJS.Signals) => Promise<number | null>
}

function launch(folder: string): { child: ChildProcess; said: () => string; ended: Promise<number | null> } {
  // tsx as a loader, not as a parent: one process, so that signals and exit codes are the server's own
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, PORT: '0', MORAY_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running.add(child)
  let text = ''
  child.stdout!.on('data', (d) => (text += d))
  child.stderr!.on('data', (d) => (text += d))
  const ended = new Promise<number | null>((done) =>
    child.on('exit', (code) => {
      running.delete(child)
      done(code)
    }),
  )
  return { child, said: () => text, ended }
}

async function start(folder: string): Promise<Server> {
  const { child, said, ended } = launch(folder)
  let over = false
  void ended.then(() => (over = true))
  for (;;) {
    const url = /ready at (http:\S+)/.exec(said())?.[1]
    if (url)
      return {
        url,
        child,
        async stop(signal) {
          child.kill(signal)
          return ended
        },
      }
    if (over) throw new Error(`the server ended: ${said()}`)
    await new Promise((r) => setTimeout(r, 50))
  }
}

/** Killed without a chance to tidy up. */
async function killHard(server: Server) {
  const pid = server.child.pid!
  await server.stop('SIGKILL')
  // dying takes a moment; nobody starts a server faster than that by hand
  for (let i = 0; i < 200 && isRunning(pid); i++) await new Promise((r) => setTimeout(r, 25))
}

function isRunning(pid: number): boolean {
  try {
    return !/\) [ZX] /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))
  } catch {
    return false
  }
}

const post = (url: string, path: string, body: object) =>
  fetch(url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-moray-person': 'ylva' },
    body: JSON.stringify(body),
  })
const get = async <T>(url: string, path: string): Promise<T> => (await fetch(url + path)).json() as Promise<T>

let number = 0
function freshFolder(): string {
  const folder = join(scratch, `data-${++number}`)
  cpSync(prepared, folder, { recursive: true })
  return folder
}

beforeAll(async () => {
  const server = await start(prepared)
  expect(await server.stop('SIGTERM')).toBe(0)
}, 240_000)
afterEach(() => {
  for (const child of running) child.kill('SIGKILL')
})

const LONG = 240_000

describe('a server process', () => {
  it(
    'keeps every acknowledged entry through a kill, and nothing half',
    async () => {
      const folder = freshFolder()
      let server = await start(folder)
      const first = await post(server.url, `/api/jobs/${JOB}/readings`, {
        build: 0,
        measure: 'backlash-forward',
        text: '.47',
        unit: 'mm',
        gaugeId: 'g05',
      })
      expect(first.status).toBe(201)
      await killHard(server)
      expect(readdirSync(join(folder, 'lock'))).toHaveLength(1)

      server = await start(folder)
      const job = fullRecord(await get<JobReply>(server.url, `/api/jobs/${JOB}`))
      expect(job.builds[0]!.readings.map((r) => r.text)).toEqual(['.47'])

      // a burst of writes, killed in the middle of it
      let acknowledged = 0
      const burst = Array.from({ length: 40 }, (_, i) =>
        post(server.url, '/api/drawer/s001/add', { pieces: 1, reason: `burst ${i}` }).then(
          (r) => {
            if (r.status === 201) acknowledged++
            if (acknowledged === 5) return killHard(server)
          },
          () => undefined,
        ),
      )
      await Promise.all(burst)
      expect(acknowledged).toBeGreaterThanOrEqual(5)

      server = await start(folder)
      const line = (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!
      const book = await get<DrawerMovement[]>(server.url, '/api/drawer/s001/movements')
      // the stock is the sum of its book: no movement without its count, no count without its movement
      expect(line.count).toBe(book.reduce((n, m) => n + m.delta, 0))
      expect(book.filter((m) => m.reason.startsWith('burst')).length).toBeGreaterThanOrEqual(acknowledged)
      const events = await get<EventEntry[]>(server.url, `/api/jobs/${JOB}/events`)
      expect(events.filter((e) => e.kind === 'reading')).toHaveLength(1)
      await server.stop('SIGTERM')
    },
    LONG,
  )

  it(
    'refuses a folder that another one uses, and leaves that one alone',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      const second = launch(folder)
      expect(await second.ended).toBe(1)
      expect(second.said()).toMatch(/Another Moray \(process \d+\) is using the data folder/)
      expect(await get(server.url, '/api/health')).toEqual({ ok: true, database: 'answers' })
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
    },
    LONG,
  )

  it(
    'stops when told to, although a browser listens, and gives its lock back',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      const listening = await fetch(`${server.url}/api/live`)
      expect(listening.ok).toBe(true)
      expect(await server.stop('SIGTERM')).toBe(0)
      expect(readdirSync(join(folder, 'lock'))).toEqual([])
      await listening.body?.cancel().catch(() => undefined)
    },
    LONG,
  )

  it(
    'says clearly when it cannot write where it should',
    async () => {
      const file = join(scratch, 'a-file')
      writeFileSync(file, '')
      const below = launch(join(file, 'data'))
      expect(await below.ended).toBe(1)
      expect(below.said()).toMatch(
        /Moray cannot start\. The data folder .* cannot be made: part of its path is a file/,
      )
      // /proc takes no new folders from anybody, root included
      const proc = launch('/proc/moray')
      expect(await proc.ended).toBe(1)
      expect(proc.said()).toMatch(/Moray cannot start\. The data folder .*cannot be made/)
    },
    LONG,
  )

  /** A small disk of its own can only be had by root, on Linux. */
  const small = join(scratch, 'small-disk')
  mkdirSync(small, { recursive: true })
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=100m', 'tmpfs', small]).status === 0
  afterAll(() => {
    if (mounted) spawnSync('umount', ['-l', small])
    rmSync(scratch, { recursive: true, force: true })
  })

  it.skipIf(!mounted)(
    'refuses on a full disk and a read-only one, keeps what it has, and goes on when there is room',
    async () => {
      const folder = join(small, 'data')
      cpSync(prepared, folder, { recursive: true })
      let server = await start(folder)
      const filler = join(small, 'filler')
      for (const size of [1 << 20, 1 << 16, 1 << 12])
        for (let full = false; !full;)
          try {
            appendFileSync(filler, Buffer.alloc(size))
          } catch {
            full = true
          }
      const add = () => post(server.url, '/api/drawer/s001/add', { pieces: 1, reason: 'x'.repeat(280) })
      const before = (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!
      let stored = 0
      let refused: Response | undefined
      // the database has a little room of its own before it needs the disk
      while (!refused && stored < 2000) {
        const response = await add()
        if (response.status === 201) stored++
        else refused = response
      }
      expect(refused?.status).toBe(507)
      expect(await refused!.json()).toMatchObject({
        error: { code: 'storage', message: expect.stringContaining('full') },
      })
      const line = async () =>
        (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!
      expect((await line()).count).toBe(before.count + stored)

      rmSync(filler)
      expect((await add()).status).toBe(201)
      await server.stop('SIGTERM')
      server = await start(folder)
      expect((await line()).count).toBe(before.count + stored + 1)
      await server.stop('SIGTERM')

      expect(spawnSync('mount', ['-o', 'remount,ro', small]).status).toBe(0)
      const readOnly = launch(folder)
      expect(await readOnly.ended).toBe(1)
      expect(readOnly.said()).toMatch(/cannot be written: it is read-only/)
    },
    LONG,
  )
})
