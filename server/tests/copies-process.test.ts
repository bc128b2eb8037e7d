import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'
import { openFolder } from '../src/db/pglite.ts'
import { freshFolder, get, launch, post, scratch, SLOW_MS, start, useProcesses } from './server-process.ts'

useProcesses()

const command = async (folder: string, file: 'backup' | 'restore', args: string[] = []) => {
  const run = launch(folder, {}, file, args)
  return { code: await run.ended, said: run.said() }
}

describe('npm run backup and npm run restore', () => {
  it(
    'copy a shop that four clients write to, and bring all of it back that was acknowledged before',
    async () => {
      const folder = freshFolder()
      const server = await start(folder)
      let writing = true
      let acknowledged = 0
      const clients = [1, 2, 3, 4].map(async (n) => {
        while (writing)
          if ((await post(server.url, `/api/drawer/s00${n}/add`, { pieces: 1 })).status === 201)
            acknowledged++
      })
      while (acknowledged < 20) await new Promise((r) => setTimeout(r, 10))
      const before = (await get<{ count: number }[]>(server.url, '/api/drawer')).reduce(
        (n, l) => n + l.count,
        0,
      )
      const [counted, file] = [acknowledged, join(scratch, 'amid.zip')]
      const backup = await command(folder, 'backup', [file])
      expect(backup).toMatchObject({ code: 0, said: expect.stringContaining('Proved') })
      expect(acknowledged).toBeGreaterThan(counted)
      writing = false
      await Promise.all(clients)
      await server.stop('SIGTERM')
      // neither locks nor anything half made is left, or in the copy
      expect(readdirSync(folder).filter((n) => n.includes('.half'))).toEqual([])

      const back = join(scratch, 'back')
      const restored = await command(back, 'restore', [file])
      expect(restored).toMatchObject({ code: 0, said: expect.stringContaining('The shop is back: 12 jobs') })
      // every row was held against its seal, and the chain against the seal that the copy carries
      expect(restored.said).not.toContain('Broken')
      const db = await openFolder(join(back, 'pg'))
      const [drawer] = await db.query<{ pieces: number }>('select sum(count)::int as pieces from shim_line')
      await db.close()
      expect(drawer!.pieces).toBeGreaterThanOrEqual(before)

      // over a shop only for whoever was told which one it is; the old one stays beside it
      const refused = await command(back, 'restore', [file])
      expect(refused.code).toBe(2)
      const word = /--over (\S+)/.exec(refused.said)![1]!
      expect(readdirSync(back).filter((n) => n.startsWith('replaced-'))).toEqual([])
      if (!LONG_RUN) return
      expect(await command(back, 'restore', [file, '--over', word])).toMatchObject({ code: 0 })
      const [aside] = readdirSync(back).filter((n) => n.startsWith('replaced-'))
      expect(readdirSync(join(back, aside!)).sort()).toEqual(['files', 'moray.json', 'pg'])
    },
    SLOW_MS,
  )
  it(
    'say what is wrong and change nothing',
    async () => {
      const folder = freshFolder()
      const [missing, strange] = [join(scratch, 'no-such-stick/a.zip'), join(scratch, 'strange.zip')]
      writeFileSync(strange, 'something else')
      expect(await command(folder, 'backup', [missing])).toMatchObject({
        code: 2,
        said: expect.stringContaining('no-such-stick for a.zip is not there'),
      })
      expect(await command(folder, 'backup', [strange])).toMatchObject({
        code: 2,
        said: expect.stringContaining('is no copy of this shop'),
      })
      expect(readFileSync(strange, 'utf8')).toBe('something else')
      const empty = join(scratch, 'stays-empty')
      expect(await command(empty, 'restore', [strange])).toMatchObject({
        code: 2,
        said: expect.stringContaining('it is no copy of a shop, or was cut off'),
      })
      expect(existsSync(join(empty, 'pg'))).toBe(false)
    },
    SLOW_MS,
  )
})

describe('a folder of a newer Moray', () => {
  it(
    'is refused before anything in it is opened, with the version that is needed',
    async () => {
      const folder = freshFolder()
      const mark = JSON.parse(readFileSync(join(folder, 'moray.json'), 'utf8')) as object
      writeFileSync(join(folder, 'moray.json'), JSON.stringify({ ...mark, moray: '0.99.0', schema: 99 }))
      const older = launch(folder)
      expect(await older.ended).toBe(1)
      expect(older.said()).toContain('Start version 0.99.0 or a newer one on it')
    },
    SLOW_MS,
  )
})
