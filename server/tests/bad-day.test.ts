import { spawnSync } from 'node:child_process'
import {
  closeSync,
  cpSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import type { DrawerLine, JobPage } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { LONG_RUN, times } from '../../core/tests/long.ts'
import {
  freshFolder,
  get,
  killHard,
  launch,
  SLOW_MS,
  post,
  prepared,
  scratch,
  start,
  useProcesses,
} from './server-process.ts'

const mounts: string[] = []
useProcesses(() => {
  for (const m of mounts) spawnSync('umount', ['-l', m])
})

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).map((e) => join(e.parentPath, e.name))
const isFile = (path: string) => statSync(path).isFile()

describe('a calculation that would never end', () => {
  /** Only eight pieces reach the interval: the enumeration of old looked at all combinations of 400 lines. */
  const endless = {
    locations: Array.from({ length: 4 }, (_, i) => ({
      id: `l${i}`,
      currentMm: 1,
      minMm: 7.5001,
      maxMm: 7.50015 + i * 1e-5,
      maxPieces: 8,
    })),
    quantities: [
      { id: 'q', measured: 0, u: 0.01, window: { min: -1, max: 1 }, target: 0, sensitivity: { l0: 0.01 } },
    ],
    pieces: Array.from({ length: 400 }, (_, i) => ({
      id: `p${i}`,
      thicknessMm: 0.9 + ((i * 37) % 400) * 0.0003,
      count: 8,
    })),
    maxNodes: 50_000_000,
  }
  const wide = {
    ...endless,
    locations: Array.from({ length: 6 }, (_, i) => ({
      id: `l${i}`,
      currentMm: 1,
      minMm: 0.1,
      maxMm: 5,
      maxPieces: 8,
    })),
    quantities: Array.from({ length: 6 }, (_, i) => ({
      id: `q${i}`,
      measured: 0.9,
      u: 0.01,
      window: { min: 0, max: 0.001 },
      target: 0,
      sensitivity: Object.fromEntries(Array.from({ length: 6 }, (_, k) => [`l${k}`, k === i ? -0.7 : -0.15])),
    })),
  }
  it(
    'keeps nobody waiting, ends when nobody waits for it, and does not hold the server up when it stops',
    async () => {
      const server = await start(freshFolder())
      const leave = new AbortController()
      const asked = Array.from({ length: 5 }, () =>
        fetch(`${server.url}/api/calc/shim-solve`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(wide),
          signal: leave.signal,
        }).then(
          (r) => r.status,
          () => 'left',
        ),
      )
      const keys = `{${Array.from({ length: 60_000 }, (_, i) => `"k${i}":1`).join(',')}}`
      const refused = post(server.url, '/api/calc/judge', keys)
      let ended = 0
      for (const answer of asked) void answer.then(() => ended++)
      // however slow the machine is: others are answered while all of that goes on; npm run bench says how fast
      for (let i = 0; i < 20; i++)
        expect(await get(server.url, '/api/health')).toEqual({ ok: true, database: 'answers' })
      expect(ended).toBe(0)
      expect((await refused).status).toBe(422)
      leave.abort()
      expect(await Promise.all(asked)).toEqual(Array(5).fill('left'))
      // one that looks at hardly anything ends by its own count of work; on a busy machine it may wait longer for a thread than it may take
      const counted = async () =>
        (
          await post(server.url, '/api/calc/shim-solve', { ...endless, maxNodes: 1 })
        ).json() as Promise<object>
      let answer = await counted()
      while (JSON.stringify(answer).includes('"too-long"')) answer = await counted()
      expect(answer).toMatchObject({ status: 'no-fit', provedOptimal: false })
      // their threads are free again
      const small = await post(server.url, '/api/calc/parse-reading', { text: '16t', quantity: 'length' })
      expect(await small.json()).toEqual({ value: 0.4064, unit: 't' })
      const again = post(server.url, '/api/calc/shim-solve', wide).catch(() => 'cut')
      await new Promise((r) => setTimeout(r, 300))
      expect(await server.stop('SIGTERM')).toBe(0)
      await again
    },
    SLOW_MS,
  )
})

describe('a damaged page', () => {
  it.runIf(LONG_RUN)(
    'takes only its own jobs from the bench, is told, and is found by the check',
    async () => {
      const folder = freshFolder()
      const whole = 12
      const check = async () => {
        const { said, ended } = launch(folder, {}, 'check')
        return { code: await ended, text: said() }
      }
      expect(await check()).toEqual({ code: 0, text: expect.stringContaining('All is well.') })
      // the file whose first page holds a job's complaint
      const heap = filesBelow(join(folder, 'pg', 'base')).find((f) => {
        if (!/\/\d+$/.test(f) || !isFile(f)) return false
        const text = readFileSync(f)
        return text.includes('Fishing line behind the propeller') && text.includes('LV90-20417')
      })!
      const fd = openSync(heap, 'r+')
      writeSync(fd, Buffer.from('xxxx'), 0, 4, 8000)
      closeSync(fd)
      const server = await start(folder)
      const bench = await get<JobPage>(server.url, '/api/jobs')
      expect(bench.damaged).toBeGreaterThan(0)
      expect(bench.jobs.length).toBeLessThan(whole)
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
      const found = await check()
      expect(found.code).toBe(1)
      expect(found.text).toMatch(/BROKEN: table job, page 0/)
    },
    SLOW_MS,
  )
})

/** A disk of its own in a file can only be had by root, on Linux, with loop devices. */
const image = join(scratch, 'disk.img')
const disk = join(scratch, 'disk')
mkdirSync(disk, { recursive: true })
const hasDisk =
  spawnSync('truncate', ['-s', '200M', image]).status === 0 &&
  spawnSync('mkfs.ext4', ['-q', '-F', image]).status === 0 &&
  spawnSync('mount', ['-o', 'loop', image, disk]).status === 0
if (hasDisk) mounts.push(disk)

describe('a power cut', () => {
  /** npm run bad-days takes more of them, at moments drawn by lot. */
  const IMAGES = times(1, 3)
  it.skipIf(!hasDisk)(
    'loses nothing that was acknowledged: the image of the disk at a moment amid writing has it',
    async () => {
      const folder = join(disk, 'data')
      cpSync(prepared, folder, { recursive: true })
      spawnSync('sync')
      const server = await start(folder)
      const line = async (url: string) =>
        (await get<DrawerLine[]>(url, '/api/drawer')).find((l) => l.id === 's001')!.count
      const first = await line(server.url)
      let acknowledged = 0
      let going = true
      const writer = (async () => {
        while (going) {
          const r = await post(server.url, '/api/drawer/s001/add', {
            pieces: 1,
            reason: 'x'.repeat(100),
          }).catch(() => undefined)
          if (r?.status === 201) acknowledged++
        }
      })()
      const rounds: { acknowledged: number; copy: string }[] = []
      for (let i = 0; i < IMAGES; i++) {
        // there is something to lose, and more each time, however slow the machine is
        const wanted = acknowledged + 5
        while (acknowledged < wanted) await new Promise((r) => setTimeout(r, 20))
        // what counts is what was acknowledged before the cut; what came while it was taken may or may not be there
        const before = acknowledged
        server.child.kill('SIGSTOP')
        const copy = join(scratch, `cut-${i}.img`)
        cpSync(image, copy)
        rounds.push({ acknowledged: before, copy })
        server.child.kill('SIGCONT')
      }
      going = false
      await writer
      await killHard(server)
      for (const { acknowledged: at, copy } of rounds) {
        const place = `${copy}.mnt`
        mkdirSync(place)
        expect(spawnSync('mount', ['-o', 'loop', copy, place]).status).toBe(0)
        mounts.push(place)
        const after = join(scratch, `${at}-after`)
        // the socket of the killed server is no file
        cpSync(join(place, 'data'), after, { recursive: true, filter: (f) => !f.endsWith('.sock') })
        rmSync(join(after, 'lock'), { recursive: true, force: true })
        const again = await start(after)
        expect((await line(again.url)) - first).toBeGreaterThanOrEqual(at)
        await again.stop('SIGTERM')
      }
    },
    SLOW_MS,
  )
})
