import { chmodSync, closeSync, fdatasyncSync, fsyncSync, openSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { NodeFS } from '@electric-sql/pglite/nodefs'
import { compileLate } from './compile-late.ts'
import type { Database, Transaction } from './database.ts'
import { emptyDatabase } from './empty-database.ts'
import { PgliteStatements } from './pglite-statements.ts'
import { readRows, type RawRows } from './raw-rows.ts'

/** Channel on which committed events are told: see seal_event() in the migrations. */
export const CHANNEL = 'moray_public'

/** The database as it speaks in its own thread: rows leave with their JSON unread, so that it is read once, by whoever asked. */
export interface RawTransaction {
  query(sql: string, params?: unknown[]): Promise<RawRows>
  script(sql: string): Promise<void>
}

export interface RawDatabase extends RawTransaction {
  transaction<T>(work: (tx: RawTransaction) => Promise<T>): Promise<T>
  listen(told: (payload: string) => void): Promise<() => Promise<void>>
  close(): Promise<void>
}

function rawPglite(pg: PGlite): RawDatabase {
  const statements = new PgliteStatements(pg)
  return {
    query: (sql, params = []) => pg._runExclusiveTransaction(() => statements.run(sql, params)),
    script: async (sql) => void (await pg.exec(sql)),
    transaction: <T>(work: (tx: RawTransaction) => Promise<T>) =>
      pg.transaction((tx) =>
        work({
          query: (sql, params = []) => statements.run(sql, params),
          script: async (sql) => void (await tx.exec(sql)),
        }),
      ) as Promise<T>,
    listen: async (told) => {
      const end = await pg.listen(CHANNEL, told)
      return () => end()
    },
    close: () => pg.close(),
  }
}

const reading = (raw: RawTransaction): Transaction => ({
  query: async <Row>(sql: string, params?: unknown[]) => readRows<Row>(await raw.query(sql, params)),
  script: (sql) => raw.script(sql),
})

/** An open PGlite as the server's Database, in this thread. */
export const wrapPglite = (pg: PGlite): Database => readingDatabase(rawPglite(pg))

function readingDatabase(raw: RawDatabase): Database {
  return {
    ...reading(raw),
    transaction: (work) => raw.transaction((tx) => work(reading(tx))),
    listen: (told) => raw.listen(told),
    close: () => raw.close(),
  }
}

/** In memory, for tests. @param from a dump of a data folder to begin with; an empty database without one */
export function memory(from: Blob | undefined = emptyDatabase()): Promise<PGlite> {
  compileLate()
  return PGlite.create('memory://', { loadDataDir: from })
}

/** The same as the server's Database. */
export const openMemory = async (from?: Blob): Promise<Database> => wrapPglite(await memory(from))

interface StreamOps {
  fsync?: (stream: { nfd: number }) => number
}
interface NodeOps {
  mknod: (parent: unknown, name: string, mode: number, dev: number) => unknown
  setattr: (node: unknown, attr: { mode?: number }) => unknown
}
interface EmscriptenModule {
  NODEFS: { stream_ops: StreamOps; node_ops: NodeOps }
}
type InitOptions = Parameters<NodeFS['init']>

const GROUP_AND_OTHERS = 0o077

/**
 * The folder as PGlite's file system, with two things that it leaves out: a file that PostgreSQL asks to be synced is synced, and nobody but the
 * owner may read what is written. With it `fsync = on` means what it says: a commit returns when its log is on the disk.
 */
class SyncedFolder extends NodeFS {
  override async init(pg: InitOptions[0], options: InitOptions[1]) {
    const made = await super.init(pg, options)
    const before = (made.emscriptenOpts.preRun ?? []) as ((module: unknown) => void)[]
    made.emscriptenOpts.preRun = [
      ...before,
      (module: unknown) => {
        const { stream_ops, node_ops } = (module as EmscriptenModule).NODEFS
        stream_ops.fsync = (stream) => {
          // its content and its length, and not when it was written: for that a disk also brings out what other processes have written, a copy under way
          fdatasyncSync(stream.nfd)
          return 0
        }
        const { mknod, setattr } = node_ops
        node_ops.mknod = (parent, name, mode, dev) => mknod(parent, name, mode & ~GROUP_AND_OTHERS, dev)
        node_ops.setattr = (node, attr) =>
          setattr(node, attr.mode === undefined ? attr : { ...attr, mode: attr.mode & ~GROUP_AND_OTHERS })
      },
    ] as typeof made.emscriptenOpts.preRun
    return made
  }
}

/** Opens the embedded database in a folder, in this thread; a folder that is empty or not there gets a new one. */
export const openFolder = async (folder: string): Promise<Database> =>
  readingDatabase(await openRawFolder(folder))

/**
 * The same where nobody keeps what is written: nothing is brought onto the disk before it has to be. Beside a shop that is open, a second database that waits for
 * the disk makes the first one wait as well.
 */
export const openScratch = async (folder: string): Promise<Database> =>
  readingDatabase(await openRawFolder(folder, { kept: false }))

/** The same for the database's own thread. */
export async function openRawFolder(folder: string, { kept = true } = {}): Promise<RawDatabase> {
  const startParams = [
    // -F: without fsync
    ...PGlite.defaultStartParams.filter((p) => p !== '-F' || !kept),
    '-c',
    'wal_sync_method=fsync',
    '-c',
    'timezone=UTC',
  ]
  const isNew = !holdsDatabase(folder)
  compileLate()
  const pg = new PGlite({
    fs: new SyncedFolder(folder),
    startParams,
    loadDataDir: isNew ? emptyDatabase() : undefined,
  })
  await pg.waitReady
  closeToOthers(folder)
  if (isNew && kept) {
    // what the making of the database wrote was not synced while it was made
    await pg.exec('checkpoint')
    syncTree(folder)
  }
  return rawPglite(pg)
}

/** Whether a database lies in this folder: its version file says so. */
export function holdsDatabase(folder: string): boolean {
  try {
    return readdirSync(folder).includes('PG_VERSION')
  } catch {
    return false
  }
}

function eachBelow(folder: string, visit: (path: string, isFolder: boolean) => void) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) eachBelow(path, visit)
    if (entry.isDirectory() || entry.isFile()) visit(path, entry.isDirectory())
  }
}

/** Takes a folder and everything below it from everybody but its owner. */
export function closeToOthers(folder: string) {
  chmodSync(folder, 0o700)
  eachBelow(folder, (path, isFolder) => chmodSync(path, isFolder ? 0o700 : 0o600))
}

/** Brings everything below a folder onto the disk. */
export function syncTree(folder: string) {
  eachBelow(folder, syncPath)
  syncPath(folder)
}

/** Brings a file, or a folder's list of names, onto the disk. */
export function syncPath(path: string) {
  const fd = openSync(path, 'r')
  try {
    fsyncSync(fd)
  } finally {
    closeSync(fd)
  }
}
