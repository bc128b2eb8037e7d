import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { dirname, join } from 'node:path'

/** The data folder cannot be used; the message says why and what to do. */
export class DataFolderError extends Error {}

interface Holder {
  pid: number
  /** Start time of the process in clock ticks since boot (Linux); null where it cannot be read. */
  started: string | null
}

/**
 * Takes the data folder for this process alone. Two servers on one folder would lose rows without a word.
 * A lock left by a process that has died (or by another process that got its number) is taken over.
 * @returns releases the lock
 * @throws DataFolderError when another server holds it, or the folder cannot be written
 */
export function lockDataFolder(folder: string): () => void {
  const file = join(folder, 'moray.lock')
  const mine: Holder = { pid: process.pid, started: statOf(process.pid)?.started ?? null }
  try {
    makeFolder(folder)
  } catch (e) {
    throw new DataFolderError(
      `The data folder ${folder} cannot be made: ${reason(e)}. Choose another with MORAY_DATA.`,
    )
  }
  for (let attempt = 0; attempt < 3; attempt++) {
    try {
      const fd = openSync(file, 'wx')
      writeSync(fd, JSON.stringify(mine))
      closeSync(fd)
      return () => rmSync(file, { force: true })
    } catch (e) {
      if ((e as NodeJS.ErrnoException).code !== 'EEXIST')
        throw new DataFolderError(
          `The data folder ${folder} cannot be written: ${reason(e)}. Choose another with MORAY_DATA.`,
        )
      const holder = readHolder(file)
      if (holder && isAlive(holder))
        throw new DataFolderError(
          `Another Moray (process ${holder.pid}) is using the data folder ${folder}. Stop it first, or choose another folder with MORAY_DATA.`,
        )
      rmSync(file, { force: true })
    }
  }
  throw new DataFolderError(
    `The data folder ${folder} could not be locked; another Moray is starting at the same moment.`,
  )
}

/**
 * Makes a folder and what is missing above it. Node's own recursive mkdir never returns where the system answers
 * "no such file" although the parent exists (below /proc, for one).
 */
function makeFolder(folder: string) {
  if (existsSync(folder)) return
  const parent = dirname(folder)
  if (parent !== folder) makeFolder(parent)
  mkdirSync(folder)
}

function reason(e: unknown): string {
  const code = (e as NodeJS.ErrnoException).code
  const words: Record<string, string> = {
    EROFS: 'it is read-only',
    EACCES: 'you may not write there',
    EPERM: 'you may not write there',
    ENOSPC: 'the disk is full',
    ENOTDIR: 'part of its path is a file',
    ENOENT: 'it does not exist and cannot be made there',
  }
  return (code && words[code]) ?? String((e as Error).message)
}

function readHolder(file: string): Holder | null {
  try {
    const holder = JSON.parse(readFileSync(file, 'utf8')) as Holder
    return Number.isInteger(holder.pid) ? holder : null
  } catch {
    return null
  }
}

function isAlive(holder: Holder): boolean {
  try {
    process.kill(holder.pid, 0)
  } catch (e) {
    if ((e as NodeJS.ErrnoException).code === 'ESRCH') return false
  }
  const stat = statOf(holder.pid)
  // killed, but not yet cleared away by its parent: it writes nothing any more
  if (stat?.state === 'Z' || stat?.state === 'X') return false
  const started = stat?.started ?? null
  return started === null || holder.started === null || started === holder.started
}

/** Fields 3 and 22 of /proc/PID/stat: state and start; the command name before them may hold spaces and brackets. */
function statOf(pid: number): { state: string; started: string } | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    const [state, ...rest] = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return { state: state!, started: rest[18]! }
  } catch {
    return null
  }
}
