import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { rm, truncate } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { setTimeout } from 'node:timers/promises'
import { syncPath } from '../db/pglite.ts'

/** What is only half there has a name of its own, with the process that writes it: `NAME.PID-xxxxxxxx.half`. */
const HALF = /\.(\d+)-[0-9a-f]{8}\.half(-\d+)?$/

export const halfName = (path: string): string => `${path}.${process.pid}-${randomUUID().slice(0, 8)}.half`

/** A folder to work in, for its owner alone; it goes when the work is over, and what a killed process has left goes before. */
export async function inScratch<T>(below: string, work: (folder: string) => Promise<T>): Promise<T> {
  mkdirSync(below, { recursive: true, mode: 0o700 })
  sweepHalves(below)
  const folder = halfName(join(below, 'copying'))
  mkdirSync(folder, { mode: 0o700 })
  try {
    return await work(folder)
  } finally {
    await removeGently(folder)
  }
}

const AT_ONCE = 16 * 1024 * 1024
const REST_MS = 10

/**
 * Takes a folder away a piece at a time: a disk that is told of a gigabyte that has become free keeps a write to the shop waiting for a third of a second
 * (measured on ext4 with discard).
 */
export async function removeGently(folder: string): Promise<void> {
  for (const entry of existsSync(folder) ? readdirSync(folder, { withFileTypes: true }) : []) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) await removeGently(path)
    else if (entry.isFile())
      for (let left = statSync(path).size - AT_ONCE; left > 0; left -= AT_ONCE) {
        await truncate(path, left)
        await setTimeout(REST_MS)
      }
  }
  await rm(folder, { recursive: true, force: true })
}

/** Takes away what processes have left half written that are no longer there. */
export function sweepHalves(folder: string): void {
  for (const name of existsSync(folder) ? readdirSync(folder) : []) {
    const pid = HALF.exec(name)?.[1]
    if (pid && !isAlive(Number(pid))) rmSync(join(folder, name), { recursive: true, force: true })
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (e) {
    return (e as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** Gives a whole file its name, in one step: before, the old one stands there; afterwards the new one, on the disk. */
export function settleFile(half: string, file: string): void {
  syncPath(half)
  renameSync(half, file)
  syncPath(dirname(file))
}

/** The folder that a file goes into. @throws Error naming it when it is not there: a stick that was pulled out is no folder to be made */
export function mustBeFolder(file: string): string {
  const folder = dirname(file)
  const there = statSync(folder, { throwIfNoEntry: false })
  if (!there?.isDirectory())
    throw new Error(
      `The folder ${folder} for ${basename(file)} is not there. Is the disk or the stick in it mounted? Nothing was written.`,
    )
  return folder
}

const WORDS: Record<string, string> = {
  ENOSPC: 'the disk is full',
  '53100': 'the disk is full',
  EDQUOT: 'the disk quota is used up',
  EROFS: 'the disk is read-only',
  EACCES: 'you may not read or write there',
  EPERM: 'you may not read or write there',
  EIO: 'the disk does not answer; was it pulled out?',
  ENODEV: 'the disk is gone; was it pulled out?',
  ENXIO: 'the disk is gone; was it pulled out?',
  ENOENT: 'a file or folder is not there; was the disk pulled out?',
}

/** What went wrong with a disk, in words; any other error says it itself. */
export function diskWords(e: unknown): string {
  const { code, message } = e as NodeJS.ErrnoException
  return (code && WORDS[code]) || message
}
