import { spawnSync } from 'node:child_process'
import { appendFileSync, cpSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { DrawerLine, DrawerMovement, EventEntry, JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'
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
import { JOB } from './walk.ts'

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
      // whoever was killed has not given its lock back
      expect(readdirSync(join(folder, 'lock'))).toHaveLength(1)

      server = await start(folder)
      const job = await get<JobReply>(server.url, `/api/jobs/${JOB}`)
      expect(job.builds[0]!.readings.map((r) => r.text)).toEqual(['.47'])
      const line = (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!
      const book = await get<DrawerMovement[]>(server.url, '/api/drawer/s001/movements')
      // the stock is the sum of its book: no movement without its count, no count without its movement
      expect(line.count).toBe(book.reduce((n, m) => n + m.delta, 0))
      expect(book.filter((m) => m.reason.startsWith('burst')).length).toBeGreaterThanOrEqual(acknowledged)
      const events = await get<EventEntry[]>(server.url, `/api/jobs/${JOB}/events`)
      expect(events.filter((e) => e.kind === 'reading')).toHaveLength(1)
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )

  it(
    'refuses a folder that another one uses and leaves that one alone, which stops when told to although a browser listens, and gives its lock back',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      const second = launch(folder)
      expect(await second.ended).toBe(1)
      expect(second.said()).toMatch(/Another Moray \(process \d+\) is using the data folder/)
      expect(await get(server.url, '/api/health')).toEqual({ ok: true, database: 'answers' })
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      const listening = await fetch(`${server.url}/api/live`)
      expect(listening.ok).toBe(true)
      expect(await server.stop('SIGTERM')).toBe(0)
      expect(readdirSync(join(folder, 'lock'))).toEqual([])
      await listening.body?.cancel().catch(() => undefined)
    },
    SLOW_MS,
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
    SLOW_MS,
  )

  /** A small disk of its own can only be had by root, on Linux. */
  const small = join(scratch, 'small-disk')
  mkdirSync(small, { recursive: true })
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=100m', 'tmpfs', small]).status === 0
  useProcesses(() => {
    if (mounted) spawnSync('umount', ['-l', small])
  })

  it.runIf(mounted && LONG_RUN)(
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
    SLOW_MS,
  )
})
