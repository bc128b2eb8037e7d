import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { describe, expect, it } from 'vitest'
import { openCopy } from '../src/copies/read-copy.ts'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { openFolder } from '../src/db/pglite.ts'
import { freshFolder, get, launch, post, scratch, SLOW_MS, start, useProcesses } from './server-process.ts'
useProcesses()

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .map((e) => join(e.parentPath, e.name))
    .sort()
const portOf = (url: string) => new URL(url).port
/** Start of a process in clock ticks, as the first version wrote it into its lock. */
const startedAt = (pid: number) => {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
  return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]!
}

describe('a second Moray', () => {
  it(
    'on a port that is taken opens nothing, whichever folder it was given',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      const other = join(scratch, 'never-made')
      const second = launch(other, { PORT: portOf(server.url) })
      expect(await second.ended).toBe(1)
      expect(second.said()).toMatch(/Port \d+ is taken; choose another with PORT\. Nothing was opened\./)
      expect(existsSync(other)).toBe(false)
      // tables of the first one get files of their own as it works; whoever opened the folder would leave others
      const around = () => filesBelow(folder).filter((f) => !f.includes('/pg/base/'))
      const before = around()
      const lock = readFileSync(join(folder, 'moray.lock'), 'utf8')
      const third = launch(folder, { PORT: portOf(server.url) })
      expect(await third.ended).toBe(1)
      expect(third.said()).toMatch(/Nothing was opened\./)
      expect(around()).toEqual(before)
      expect(readFileSync(join(folder, 'moray.lock'), 'utf8')).toBe(lock)
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
  it(
    'is kept out by the lock of the first version while that lives, and the first version by its own',
    async () => {
      const folder = freshFolder()
      const lock = join(folder, 'moray.lock')
      // a process that lives, as the first version wrote itself down
      writeFileSync(lock, JSON.stringify({ pid: process.pid, started: startedAt(process.pid) }))
      const before = filesBelow(join(folder, 'pg'))
      const second = launch(folder)
      expect(await second.ended).toBe(1)
      expect(second.said()).toContain(`Another Moray (process ${process.pid}) is using the data folder`)
      expect(filesBelow(join(folder, 'pg'))).toEqual(before)
      expect(existsSync(lock)).toBe(true)
      // another process has its number since: it is gone
      writeFileSync(lock, JSON.stringify({ pid: process.pid, started: '1' }))
      const server = await start(folder)
      const mine = JSON.parse(readFileSync(lock, 'utf8')) as { pid: number; started: string }
      expect(mine).toEqual({ pid: server.child.pid, started: startedAt(server.child.pid!) })
      await server.stop('SIGTERM')
      expect(existsSync(lock)).toBe(false)
    },
    SLOW_MS,
  )
  it(
    'is kept out when the locks were deleted by hand',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      rmSync(join(folder, 'lock'), { recursive: true })
      rmSync(join(folder, 'moray.lock'))
      const second = launch(folder)
      expect(await second.ended).toBe(1)
      expect(second.said()).toContain(`Another Moray (process ${server.child.pid}) is using the data folder`)
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
})

describe('an upgrade', () => {
  it(
    'makes a copy that is proved before it changes the tables',
    async () => {
      const folder = join(scratch, 'older')
      mkdirSync(join(folder, 'pg'), { recursive: true })
      const { migrations } = readSchema(resolve(import.meta.dirname, '..'))
      const older = { migrations: migrations.slice(0, 15), functions: [], moray: '0.15.0' }
      const db = await openFolder(join(folder, 'pg'))
      await migrate(db, older, new Date())
      await db.script("insert into person (id, name, role) values ('runa', 'Runa', 'lead')")
      await db.close()
      const server = await start(folder, { MORAY_DEMO: 'off' })
      expect(await get(server.url, '/api/people')).toMatchObject([{ id: 'runa' }])
      expect(server.said()).toMatch(/As it was before, it lies in .*before-upgrade/)
      await server.stop('SIGTERM')
      const [name, ...others] = readdirSync(join(folder, 'before-upgrade'))
      expect([name, others]).toEqual([expect.stringMatching(/^schema-15-.*\.zip$/), []])
      const copy = await openCopy(join(folder, 'before-upgrade', name!))
      expect(copy.manifest.schema).toBe(15)
      const people: string[] = []
      for await (const lines of copy.rows('person')) people.push(...lines)
      expect(people).toEqual([expect.stringContaining('"name":"Runa"')])
      copy.close()
      // nothing was pending the second time: nothing is copied
      const again = await start(folder, { MORAY_DEMO: 'off' })
      await again.stop('SIGTERM')
      expect(readdirSync(join(folder, 'before-upgrade'))).toHaveLength(1)
    },
    SLOW_MS,
  )
})
