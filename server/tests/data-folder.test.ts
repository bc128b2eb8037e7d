import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { freshFolder, launch, LONG, post, start, useProcesses } from './server-process.ts'
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
  it.each([
    ['its database is gone', (f: string) => rmSync(join(f, 'pg'), { recursive: true })],
    [
      'its database is empty',
      (f: string) => readdirSync(join(f, 'pg')).forEach((n) => rmSync(join(f, 'pg', n), { recursive: true })),
    ],
    ['the version file is missing', (f: string) => rmSync(join(f, 'pg', 'PG_VERSION'))],
  ])(
    'never begins anew: %s',
    async (_, spoil) => {
      const folder = freshFolder()
      spoil(folder)
      const before = filesBelow(folder).length
      const said = await refusal(folder)
      expect(said).toMatch(
        /holds the shop [0-9a-f-]{36} since .* but its database \(pg\) is missing or incomplete/,
      )
      expect(said).toContain('Nothing was begun anew')
      expect(filesBelow(folder).length).toBe(before)
    },
    LONG,
  )
  it(
    'is not begun over when mark and version file are both missing, nor when only pictures are there',
    async () => {
      const folder = freshFolder()
      rmSync(join(folder, 'moray.json'))
      rmSync(join(folder, 'pg', 'PG_VERSION'))
      expect(await refusal(folder)).toContain('is not empty and holds no database of Moray')
      expect(existsSync(join(folder, 'pg', 'PG_VERSION'))).toBe(false)
      rmSync(join(folder, 'pg'), { recursive: true })
      mkdirSync(join(folder, 'files', 'ab'), { recursive: true })
      expect(await refusal(folder)).toContain('is not empty and holds no database of Moray')
    },
    LONG,
  )
  it(
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
    LONG,
  )
})
