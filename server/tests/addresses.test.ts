import { spawn } from 'node:child_process'
import type { DrawerLine } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { ownAddresses } from '../src/devices/devices.ts'
import { freshFolder, get, post, root, SLOW_MS, start, useProcesses } from './server-process.ts'
useProcesses()

const portOf = (url: string) => new URL(url).port

describe('a server process', () => {
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
