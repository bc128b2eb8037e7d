import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { DataFolderError, lockDataFolder } from '../src/lock/data-lock.ts'

const scratch = mkdtempSync(join(tmpdir(), 'moray-lock-'))
afterAll(() => rmSync(scratch, { recursive: true, force: true }))
let n = 0
const fresh = () => join(scratch, `f${++n}`, 'deep', 'er')
const lockOf = (folder: string) => join(folder, 'moray.lock')

describe('the lock of a data folder', () => {
  it('makes the folder, names its holder, and is gone after release', () => {
    const folder = fresh()
    const release = lockDataFolder(folder)
    expect(JSON.parse(readFileSync(lockOf(folder), 'utf8'))).toMatchObject({ pid: process.pid })
    release()
    expect(existsSync(lockOf(folder))).toBe(false)
    lockDataFolder(folder)()
  })
  it('refuses while its holder lives', () => {
    const folder = fresh()
    const release = lockDataFolder(folder)
    expect(() => lockDataFolder(folder)).toThrow(DataFolderError)
    expect(() => lockDataFolder(folder)).toThrow(/Another Moray \(process \d+\)/)
    release()
  })
  it.each([
    ['a process that has died', JSON.stringify({ pid: 2 ** 22 - 3, started: '1' })],
    ['another process that got the number', JSON.stringify({ pid: process.pid, started: '1' })],
    ['a lock cut off by a power cut', '{"pid":'],
    ['an empty lock', ''],
    ['something else', '"hello"'],
  ])('takes over the lock of %s', (_, text) => {
    const folder = fresh()
    lockDataFolder(folder)()
    writeFileSync(lockOf(folder), text)
    const release = lockDataFolder(folder)
    expect(JSON.parse(readFileSync(lockOf(folder), 'utf8'))).toMatchObject({ pid: process.pid })
    release()
  })
  it('says what is in the way', () => {
    const file = join(scratch, 'file')
    writeFileSync(file, '')
    expect(() => lockDataFolder(file)).toThrow(/part of its path is a file/)
    expect(() => lockDataFolder(join(file, 'below'))).toThrow(/part of its path is a file/)
  })
})
