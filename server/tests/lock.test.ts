import {
  linkSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { createServer, type Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { DataFolderError, lockDataFolder } from '../src/data/data-lock.ts'

const scratch = mkdtempSync(join(tmpdir(), 'moray-lock-'))
afterAll(() => rmSync(scratch, { recursive: true, force: true }))
const boot = readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').slice(0, 8)
let n = 0
const fresh = () => join(scratch, `f${++n}`, 'deep', 'er')
const locksOf = (folder: string) => readdirSync(join(folder, 'lock'))

/** A socket file on which nobody listens any more, as a killed process leaves it. */
async function leftBehind(folder: string, name: string) {
  mkdirSync(join(folder, 'lock'), { recursive: true })
  const path = join(folder, 'lock', name)
  // linking keeps the name when the server removes its own
  const server: Server = createServer()
  await new Promise<void>((ready) => server.listen(`${path}x`, ready))
  linkSync(`${path}x`, path)
  await new Promise((done) => server.close(done))
}

describe('the lock of a data folder', () => {
  it('makes the folder, names its holder, and is gone after release', async () => {
    const folder = fresh()
    const release = await lockDataFolder(folder)
    expect(locksOf(folder)).toEqual([expect.stringContaining(`-${process.pid}-`)])
    release()
    expect(locksOf(folder)).toEqual([])
    ;(await lockDataFolder(folder))()
  })
  it('refuses while its holder lives', async () => {
    const folder = fresh()
    const release = await lockDataFolder(folder)
    await expect(lockDataFolder(folder)).rejects.toThrow(DataFolderError)
    await expect(lockDataFolder(folder)).rejects.toThrow(/Another Moray \(process \d+\)/)
    expect(locksOf(folder)).toHaveLength(1)
    release()
  })
  it('has one holder of twenty that start at the same instant beside a dead one', async () => {
    for (let round = 0; round < 10; round++) {
      const folder = fresh()
      await leftBehind(folder, `${boot}-1-dead.sock`)
      const tries = await Promise.allSettled(Array.from({ length: 20 }, () => lockDataFolder(folder)))
      const held = tries.filter((t) => t.status === 'fulfilled')
      expect(held, `round ${round}`).toHaveLength(1)
      held[0]!.value()
    }
  })
  it.each([
    ['pid 0', '{"pid":0}'],
    ['a negative pid', '{"pid":-1}'],
    ['an absurd pid', '{"pid":1e99}'],
    ['nothing readable', '{"pid":'],
  ])('is not held up by the pid file of an older Moray with %s', async (_, text) => {
    const folder = fresh()
    mkdirSync(folder, { recursive: true })
    writeFileSync(join(folder, 'moray.lock'), text)
    ;(await lockDataFolder(folder))()
  })
  it('is not held up by a folder of that name', async () => {
    const folder = fresh()
    mkdirSync(join(folder, 'moray.lock'), { recursive: true })
    ;(await lockDataFolder(folder))()
  })
  it('takes the place of one that was killed, whatever its number', async () => {
    const folder = fresh()
    ;(await lockDataFolder(folder))()
    await leftBehind(folder, `${boot}-${process.pid}-dead.sock`)
    const release = await lockDataFolder(folder)
    expect(locksOf(folder)).toHaveLength(1)
    release()
  })
  it('gives way to another machine that has touched its lock a moment ago, and not to one that has long stopped', async () => {
    const folder = fresh()
    await leftBehind(folder, 'elsewhere-7-busy.sock')
    await expect(lockDataFolder(folder)).rejects.toThrow(/Another machine/)
    const before = new Date(Date.now() - 60_000)
    utimesSync(join(folder, 'lock', 'elsewhere-7-busy.sock'), before, before)
    ;(await lockDataFolder(folder))()
  })
  it('fits into a path that is longer than a socket may have', async () => {
    const folder = join(scratch, 'a'.repeat(90), 'b'.repeat(90))
    const release = await lockDataFolder(folder)
    await expect(lockDataFolder(folder)).rejects.toThrow(/Another Moray/)
    release()
  })
  it('says what is in the way', async () => {
    const file = join(scratch, 'file')
    writeFileSync(file, '')
    await expect(lockDataFolder(file)).rejects.toThrow(/part of its path is a file/)
    await expect(lockDataFolder(join(file, 'below'))).rejects.toThrow(/part of its path is a file/)
  })
})
