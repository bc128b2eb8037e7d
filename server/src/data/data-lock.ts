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
import { DataFolderError, inUse } from './data-folder-error.ts'
import { holdFirstLock } from './first-lock.ts'

export { DataFolderError }

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
 * started the smaller name goes on. The operating system ends the socket with its process: nothing is left to be guessed. Two more locks stand
 * beside it: one without a file, for the case that somebody empties `lock/` by hand, and the one that the first version of Moray knows.
 *
 * @returns releases the lock
 * @throws DataFolderError when another server holds it, or the folder cannot be written
 */
export async function lockDataFolder(folder: string): Promise<() => void> {
  prepareFolder(folder)
  prepareFolder(join(folder, 'lock'))
  if (process.platform === 'win32') return lockPipe(folder)
  const releaseNameless = await holdNameless(folder)
  try {
    const releaseSocket = await holdSocket(folder)
    try {
      const releaseFirst = holdFirstLock(folder)
      return () => [releaseFirst, releaseSocket, releaseNameless].forEach((release) => release())
    } catch (e) {
      releaseSocket()
      throw e
    }
  } catch (e) {
    releaseNameless()
    throw e
  }
}

/**
 * Holds a socket of Linux that has no file, under the folder's own number: it cannot be deleted, and ends with its process. It is seen from within
 * this machine, or this container, only.
 */
async function holdNameless(folder: string): Promise<() => void> {
  if (process.platform !== 'linux') return () => {}
  const { dev, ino } = statSync(folder)
  const name = `\0moray-${dev}-${ino}`
  const server = createServer((s) => s.end(String(process.pid)).on('error', () => {})).unref()
  return new Promise((held, failed) => {
    server.once('error', (e: NodeJS.ErrnoException) => {
      if (e.code !== 'EADDRINUSE') return held(() => {})
      askAt(name).then((said) => failed(inUse(folder, /^\d+$/.exec(said ?? '')?.[0] ?? '?')), failed)
    })
    server.listen(name, () => held(() => void server.close()))
  })
}

async function holdSocket(folder: string): Promise<() => void> {
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
    throw inUse(folder, pid ?? '?')
  }
}

/** Errors of a socket that mean: nobody listens there any more. Any other says nothing about that. */
const NOBODY = new Set(['ECONNREFUSED', 'ENOENT'])

/** What the process behind a socket says; undefined when there is none. */
function ask(locks: string, name: string): Promise<string | undefined> {
  const place = shortPath(locks, name)
  return askAt(place.path).finally(place.done)
}

function askAt(path: string): Promise<string | undefined> {
  return new Promise<string | undefined>((done) => {
    let text = ''
    const socket = createConnection(path)
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
    // what may not be asked, or breaks off, may well be alive: only a socket that nobody has is left behind
    socket.on('error', (e: NodeJS.ErrnoException) => end(NOBODY.has(e.code ?? '') ? undefined : 'holds ?'))
  })
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

/** Makes the folder, for its owner alone. @throws DataFolderError */
export function prepareFolder(folder: string) {
  try {
    makeFolder(folder)
  } catch (e) {
    throw new DataFolderError(
      `The data folder ${folder} cannot be made: ${reason(e)}. Choose another with MORAY_DATA.`,
    )
  }
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
