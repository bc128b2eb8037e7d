import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import type { DrawerLine } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { migrate, readSchema } from '../src/db/migrate.ts'
import { openFolder } from '../src/db/pglite.ts'
import { ownAddresses } from '../src/devices/devices.ts'
import {
  freshFolder,
  get,
  killHard,
  launch,
  post,
  root,
  scratch,
  SLOW_MS,
  start,
  useProcesses,
} from './server-process.ts'
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
      const before = filesBelow(folder)
      const third = launch(folder, { PORT: portOf(server.url) })
      expect(await third.ended).toBe(1)
      expect(filesBelow(folder)).toEqual(before)
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
    'copies the database beside itself before it changes its tables',
    async () => {
      const folder = join(scratch, 'older')
      mkdirSync(join(folder, 'pg'), { recursive: true })
      const { migrations } = readSchema(resolve(import.meta.dirname, '..'))
      const older = { migrations: migrations.slice(0, 15), functions: [] }
      const db = await openFolder(join(folder, 'pg'))
      await migrate(db, older, new Date())
      await db.script("insert into person (id, name, role) values ('runa', 'Runa', 'lead')")
      await db.close()
      const server = await start(folder, { MORAY_DEMO: 'off' })
      expect(await get(server.url, '/api/people')).toMatchObject([{ id: 'runa' }])
      expect(server.said()).toMatch(/brought up to date; as it was before, it lies in .*before-upgrade/)
      await server.stop('SIGTERM')
      const [copy, ...others] = readdirSync(join(folder, 'before-upgrade'))
      expect([copy, others]).toEqual([expect.stringMatching(/^schema-15-/), []])
      const before = await openFolder(join(folder, 'before-upgrade', copy!, 'pg'))
      const [schema] = await before.query<{ n: number }>('select max(number)::int as n from schema_version')
      expect(schema!.n).toBe(15)
      expect(await before.query('select name from person')).toEqual([{ name: 'Runa' }])
      await before.close()
      // nothing was pending the second time: nothing is copied
      const again = await start(folder, { MORAY_DEMO: 'off' })
      await again.stop('SIGTERM')
      expect(readdirSync(join(folder, 'before-upgrade'))).toHaveLength(1)
    },
    SLOW_MS,
  )
})

describe('a server process', () => {
  it(
    'outlives the script that has started it',
    async () => {
      const folder = freshFolder()
      const log = join(scratch, 'starter.log')
      const starter = spawn(
        'sh',
        ['-c', `"${process.execPath}" --import tsx server/src/main.ts > "${log}" 2>&1 & echo $!`],
        {
          cwd: root,
          env: { ...process.env, PORT: '0', MORAY_DATA: folder },
          stdio: ['ignore', 'pipe', 'ignore'],
        },
      )
      let pid = ''
      starter.stdout.on('data', (d) => (pid += String(d)))
      await new Promise((done) => starter.on('close', done))
      const url = async () => {
        for (;;) {
          const found = existsSync(log) && /ready at (http:\S+)/.exec(readFileSync(log, 'utf8'))?.[1]
          if (found) return found
          await new Promise((r) => setTimeout(r, 100))
        }
      }
      const address = await url()
      // longer than it used to take to notice
      await new Promise((r) => setTimeout(r, 4500))
      expect(await get(address, '/api/health')).toMatchObject({ ok: true })
      process.kill(Number(pid), 'SIGTERM')
    },
    SLOW_MS,
  )
  it.runIf(ownAddresses().length > 0)(
    'that listens on an address of the machine answers the machine itself as well, which can pair others',
    async () => {
      const server = await start(freshFolder(), { MORAY_LISTEN: ownAddresses()[0]! })
      expect(server.url).toContain('127.0.0.1')
      const pairing = await post(server.url, '/api/devices/pairings', { wanted: true })
      expect(pairing.status).toBe(201)
      const other = `http://${ownAddresses()[0]}:${portOf(server.url)}`
      expect((await fetch(`${other}/api/jobs`)).status).toBe(401)
      expect((await fetch(`${other}/api/health`)).status).toBe(200)
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
  it(
    'gives a proxy a port of its own, through which nobody is the machine itself',
    async () => {
      const first = await start(freshFolder())
      const free = String(Number(portOf(first.url)) + 1)
      await first.stop('SIGTERM')
      const server = await start(freshFolder(), { MORAY_PROXY_PORT: free })
      expect((await fetch(`${server.url}/api/jobs`)).status).toBe(200)
      expect((await fetch(`http://127.0.0.1:${free}/api/jobs`)).status).toBe(401)
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
  it(
    'writes the newest seal into its folder, and the check finds what was cut off since, also after another start',
    async () => {
      const folder = freshFolder()
      let server = await start(folder)
      for (let i = 0; i < 3; i++)
        expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
      const check = async () => {
        const { said, ended } = launch(folder, {}, 'check')
        return { code: await ended, text: said() }
      }
      expect(await check()).toEqual({ code: 0, text: expect.stringContaining('All is well.') })
      const db = await openFolder(join(folder, 'pg'))
      await db.script(
        'alter table event disable trigger user; delete from event where id = (select max(id) from event); alter table event enable trigger user',
      )
      await db.close()
      const cut = /BROKEN: event \d+ is missing, which was written down/
      expect(await check()).toEqual({ code: 1, text: expect.stringMatching(cut) })
      server = await start(folder)
      expect(server.said()).toContain('the history is not the one that this folder knows')
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 })).status).toBe(201)
      await server.stop('SIGTERM')
      expect(await check()).toEqual({ code: 1, text: expect.stringMatching(cut) })
    },
    SLOW_MS,
  )
  it(
    'begins no new shop where one was on a disk that is not there, unless that is meant',
    async () => {
      const folder = join(scratch, 'not-mounted')
      const state = join(scratch, 'state')
      mkdirSync(join(state, 'moray'), { recursive: true })
      writeFileSync(join(state, 'moray', 'folders.json'), JSON.stringify({ [folder]: 'the-shop' }))
      const env = { XDG_STATE_HOME: state, MORAY_DEMO: 'off' }
      const refused = launch(folder, env)
      expect(await refused.ended).toBe(1)
      expect(refused.said()).toMatch(/held the shop the-shop on a disk of its own.*Is it mounted\?/s)
      expect(existsSync(folder)).toBe(false)
      const server = await start(folder, { ...env, MORAY_NEW: 'yes' })
      await server.stop('SIGTERM')
      expect(existsSync(join(folder, 'moray.json'))).toBe(true)
    },
    SLOW_MS,
  )
  it(
    'takes pictures of an older Moray from everybody but its owner',
    async () => {
      const folder = freshFolder()
      const place = join(folder, 'files', 'ab')
      mkdirSync(place, { recursive: true, mode: 0o755 })
      writeFileSync(join(place, 'ab'.repeat(32)), 'x', { mode: 0o644 })
      const server = await start(folder)
      for (const path of [join(folder, 'files'), ...filesBelow(join(folder, 'files'))])
        expect(statSync(path).mode & 0o077, path).toBe(0)
      await killHard(server)
    },
    SLOW_MS,
  )
})

describe('the code of a name', () => {
  it(
    'is taken away by a command on the machine, while no server uses the folder',
    async () => {
      const folder = freshFolder()
      let server = await start(folder)
      const runa = { 'x-moray-person': 'runa' }
      expect((await post(server.url, '/api/people/runa/code', { code: '1234' }, runa)).status).toBe(201)
      const reset = async () => {
        const child = spawn(
          process.execPath,
          ['--import', 'tsx', 'server/src/commands/reset-code.ts', 'Runa', 'Holmsund'],
          { cwd: root, env: { ...process.env, MORAY_DATA: folder }, stdio: ['ignore', 'pipe', 'pipe'] },
        )
        let said = ''
        child.stdout.on('data', (d) => (said += String(d)))
        child.stderr.on('data', (d) => (said += String(d)))
        return { code: await new Promise((done) => child.on('close', done)), said }
      }
      expect(await reset()).toEqual({ code: 2, said: expect.stringContaining('Another Moray') })
      await server.stop('SIGTERM')
      expect(await reset()).toEqual({ code: 0, said: 'Runa Holmsund has no code any more.\n' })
      server = await start(folder)
      expect((await post(server.url, '/api/drawer/s001/add', { pieces: 1 }, runa)).status).toBe(201)
      expect(await get<DrawerLine[]>(server.url, '/api/drawer')).not.toEqual([])
      await server.stop('SIGTERM')
    },
    SLOW_MS,
  )
})
