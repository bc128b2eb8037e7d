import { chmodSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'
import { freshFolder, launch, SLOW_MS, post, start, useProcesses } from './server-process.ts'
useProcesses()

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true }).map((e) => join(e.parentPath, e.name))

/** What a start that must be refused says. */
async function refusal(folder: string, env = {}): Promise<string> {
  const { said, ended } = launch(folder, env)
  expect(await ended).toBe(1)
  return said()
}

describe('a folder that has held a shop', () => {
  it(
    'never begins anew: the version file missing, or that and the mark, all of its database, its folder, or all but pictures',
    async () => {
      const folder = freshFolder()
      const mark = readFileSync(join(folder, 'moray.json'), 'utf8')
      const pg = join(folder, 'pg')
      const stays = async (why: RegExp) => {
        const before = filesBelow(folder).sort()
        expect(await refusal(folder)).toMatch(why)
        expect(filesBelow(folder).sort()).toEqual(before)
      }
      const marked =
        /holds the shop [0-9a-f-]{36} since .* but its database \(pg\) is missing or incomplete.*Nothing was begun anew/s
      const unmarked = /is not empty and holds no database of Moray/
      // one loss after the other, so that a folder is copied once
      rmSync(join(pg, 'PG_VERSION'))
      await stays(marked)
      rmSync(join(folder, 'moray.json'))
      await stays(unmarked)
      writeFileSync(join(folder, 'moray.json'), mark)
      for (const name of readdirSync(pg)) rmSync(join(pg, name), { recursive: true })
      await stays(marked)
      rmSync(pg, { recursive: true })
      await stays(marked)
      rmSync(join(folder, 'moray.json'))
      mkdirSync(join(folder, 'files', 'ab'), { recursive: true })
      await stays(unmarked)
    },
    SLOW_MS,
  )
  it.runIf(LONG_RUN)(
    'is taken up when an older Moray left no mark, and refuses the database of another shop',
    async () => {
      const folder = freshFolder()
      const mark = readFileSync(join(folder, 'moray.json'), 'utf8')
      rmSync(join(folder, 'moray.json'))
      chmodSync(join(folder, 'pg', 'PG_VERSION'), 0o666)
      const server = await start(folder)
      expect(JSON.parse(readFileSync(join(folder, 'moray.json'), 'utf8'))).toMatchObject({
        shop: (JSON.parse(mark) as { shop: string }).shop,
        state: 'ready',
      })
      await post(server.url, '/api/drawer/s001/add', { pieces: 1 })
      await server.stop('SIGTERM')
      // it belongs to its owner alone, also what was written later
      for (const path of [folder, ...filesBelow(folder)]) expect(statSync(path).mode & 0o077, path).toBe(0)
      writeFileSync(join(folder, 'moray.json'), mark.replace(/"shop": ".{4}/, '"shop": "ffff'))
      expect(await refusal(folder)).toMatch(/belongs to the shop ffff.* the database holds the shop/)
    },
    SLOW_MS,
  )
})
