import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { openFolder } from '../src/db/pglite.ts'
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
