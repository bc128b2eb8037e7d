import { randomUUID } from 'node:crypto'
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
} from 'node:fs'
import { createHash } from 'node:crypto'
import { createConnection, createServer, type Server } from 'node:net'
import { dirname, join, resolve } from 'node:path'

/** The data folder cannot be used; the message says why and what to do. */
export class DataFolderError extends Error {}

const ENDING = '.sock'
/** A lock of another machine counts while it was touched this recently; its owner touches it every few seconds. */
const FOREIGN_MS = 30_000
const TOUCH_MS = 5_000
const ANSWER_MS = 2_000

/**
 * Takes the data folder for this process alone. Two servers on one folder would lose rows without a word.
 *
 * Each starter opens a socket of its own in `lock/` and only then looks for others: of two that start at once at least one sees
 * the other. A socket that somebody listens on belongs to a living process, whichever process table it is in; one that nobody answers on
 * was left by a dead one, and goes. Names are never used twice, so nothing is taken away from anybody. Of two that have only just
 * started the smaller name goes on. The operating system ends the socket with its process: nothing is left to be guessed.
 *
 * @returns releases the lock
 * @throws DataFolderError when another server holds it, or the folder cannot be written
 */
export async function lockDataFolder(folder: string): Promise<() => void> {
  prepareFolder(folder)
  if (process.platform === 'win32') return lockPipe(folder)
  const own = `${machine()}-${process.pid}-${randomUUID().slice(0, 8)}${ENDING}`
  const locks = join(folder, 'lock')
  let state = 'starting'
  const server = createServer((s) => s.end(`${state} ${process.pid}`).on('error', () => {}))
  server.unref()
  const place = shortPath(locks, own)
  await listen(server, place.path, folder)
  const release = () => {
    clearInterval(touching)
    server.close()
    rmSync(join(locks, own), { force: true })
    place.done()
  }
  const touching = setInterval(() => {
    const now = new Date()
    try {
      utimesSync(join(locks, own), now, now)
    } catch {
      // the folder is gone or full; the database will say so
    }
  }, TOUCH_MS).unref()
  try {
    for (const other of readdirSync(locks).filter((n) => n.endsWith(ENDING) && n !== own))
      await giveWayTo(locks, other, own, folder)
  } catch (e) {
    release()
    throw e
  }
  state = 'holds'
  return release
}

async function giveWayTo(locks: string, other: string, own: string, folder: string) {
  const path = join(locks, other)
  for (;;) {
    const said = await ask(locks, other)
    if (said === undefined) {
      if (!isOurMachine(other) && isFresh(path))
        throw new DataFolderError(
          `Another machine is using the data folder ${folder}. Stop Moray there first; if it was switched off, wait half a minute.`,
        )
      rmSync(path, { force: true })
      return
    }
    const [state, pid] = said.split(' ')
    // of two that start at the same moment the smaller name waits for the other to give way
    if (state === 'starting' && own < other) {
      await new Promise((r) => setTimeout(r, 50))
      continue
    }
    throw new DataFolderError(
      `Another Moray (process ${pid}) is using the data folder ${folder}. Stop it first, or choose another folder with MORAY_DATA.`,
    )
  }
}

/** What the process behind a socket says; undefined when there is none. */
function ask(locks: string, name: string): Promise<string | undefined> {
  const place = shortPath(locks, name)
  return new Promise<string | undefined>((done) => {
    let text = ''
    const socket = createConnection(place.path)
    const after = setTimeout(() => {
      // somebody listens, and is too busy to answer: alive
      socket.destroy()
      done(text || 'holds ?')
    }, ANSWER_MS)
    const end = (said: string | undefined) => {
      clearTimeout(after)
      done(said)
    }
    socket.on('data', (d) => (text += String(d)))
    socket.on('end', () => end(text || 'holds ?'))
    socket.on('error', () => end(undefined))
  }).finally(place.done)
}

function listen(server: Server, path: string, folder: string): Promise<void> {
  return new Promise((ready, failed) => {
    server.once('error', (e) =>
      failed(
        new DataFolderError(
          `The data folder ${folder} cannot be written: ${reason(e)}. Choose another with MORAY_DATA.`,
        ),
      ),
    )
    server.listen(path, ready)
  })
}

/** The start of this machine's system: containers share it, other machines and later starts do not. */
function machine(): string {
  try {
    return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').slice(0, 8)
  } catch {
    return 'local'
  }
}
const isOurMachine = (name: string) => name.startsWith(`${machine()}-`)
const isFresh = (path: string) => {
  try {
    return Date.now() - statSync(path).mtimeMs < FOREIGN_MS
  } catch {
    return false
  }
}

/** A path to a socket that fits into the 107 bytes a socket's address may have, however deep the folder lies (Linux). */
function shortPath(folder: string, name: string): { path: string; done: () => void } {
  const whole = join(folder, name)
  if (Buffer.byteLength(whole) < 104 || !existsSync('/proc/self/fd')) return { path: whole, done: () => {} }
  const fd = openSync(folder, 'r')
  return { path: `/proc/self/fd/${fd}/${name}`, done: () => closeSync(fd) }
}

/** Windows has no sockets in folders; a pipe named after the folder is as exclusive. */
async function lockPipe(folder: string): Promise<() => void> {
  const name = createHash('sha256').update(resolve(folder).toLowerCase()).digest('hex').slice(0, 16)
  const server = createServer().unref()
  await listen(server, `\\\\.\\pipe\\moray-${name}`, folder)
  return () => server.close()
}

function prepareFolder(folder: string) {
  try {
    makeFolder(folder)
    makeFolder(join(folder, 'lock'))
  } catch (e) {
    throw new DataFolderError(
      `The data folder ${folder} cannot be made: ${reason(e)}. Choose another with MORAY_DATA.`,
    )
  }
  // pid files of an older Moray; nothing reads them any more
  rmSync(join(folder, 'moray.lock'), { recursive: true, force: true })
}

/**
 * Makes a folder, for its owner alone, and what is missing above it. Node's own recursive mkdir never returns where the system answers
 * "no such file" although the parent exists (below /proc, for one).
 */
function makeFolder(folder: string) {
  if (existsSync(folder)) return
  const parent = dirname(folder)
  if (parent !== folder) makeFolder(parent)
  mkdirSync(folder, { mode: 0o700 })
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
