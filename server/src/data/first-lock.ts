import { closeSync, lstatSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { DataFolderError, inUse } from './data-folder-error.ts'

/** Who holds a folder, as the first version of Moray wrote it. */
interface Holder {
  pid: number
  /** Start of the process in clock ticks since the machine's own (Linux); null where it cannot be read. */
  started: string | null
}

const FILE = 'moray.lock'
const MOST_PID = 2 ** 22

/**
 * Holds the lock that the first version of Moray knows: it looks for nothing else, so that without it an old and a new one would open the same
 * database. A lock whose process has died is taken over.
 * @returns releases it
 * @throws DataFolderError while its holder lives
 */
export function holdFirstLock(folder: string): () => void {
  const file = join(folder, FILE)
  for (let attempt = 0; attempt < 3; attempt++) {
    try {
      const fd = openSync(file, 'wx', 0o600)
      const mine: Holder = { pid: process.pid, started: statOf(process.pid)?.started ?? null }
      writeSync(fd, JSON.stringify(mine))
      closeSync(fd)
      return () => rmSync(file, { force: true })
    } catch (e) {
      if ((e as NodeJS.ErrnoException).code !== 'EEXIST') throw e
      const holder = readHolder(file)
      if (holder && isAlive(holder)) throw inUse(folder, holder.pid)
      // a folder of that name was never a lock
      rmSync(file, { recursive: true, force: true })
    }
  }
  throw new DataFolderError(
    `The data folder ${folder} could not be locked; another Moray is starting at the same moment.`,
  )
}

function readHolder(file: string): Holder | undefined {
  try {
    if (!lstatSync(file).isFile()) return undefined
    const holder = JSON.parse(readFileSync(file, 'utf8')) as Holder
    const { pid } = holder
    return Number.isInteger(pid) && pid > 0 && pid <= MOST_PID ? holder : undefined
  } catch {
    return undefined
  }
}

function isAlive({ pid, started }: Holder): boolean {
  if (pid === process.pid) return false
  try {
    process.kill(pid, 0)
  } catch (e) {
    if ((e as NodeJS.ErrnoException).code === 'ESRCH') return false
  }
  const stat = statOf(pid)
  // killed, and not yet cleared away by its parent: it writes nothing any more
  if (stat?.state === 'Z' || stat?.state === 'X') return false
  // another process that got its number has started at another time
  return !stat || started === null || started === stat.started
}

/** Fields 3 and 22 of /proc/PID/stat: state and start; the command's name before them may hold blanks and brackets. */
function statOf(pid: number): { state: string; started: string } | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    const [state, ...rest] = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    return { state: state!, started: rest[18]! }
  } catch {
    return undefined
  }
}
