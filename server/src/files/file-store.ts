import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Database, Queryable, Transaction } from '../db/database.ts'
import { syncPath } from '../db/pglite.ts'

/** Contents of pictures by their hash: the same content twice is one. */
export interface FileStore {
  /** Keeps the content, at the latest with the transaction. @returns the content's SHA-256, in hex */
  put(tx: Transaction, content: Uint8Array): Promise<string>
  /** The content, only when it is what its name says; 'damaged' when it is not. */
  get(db: Queryable, hash: string): Promise<Uint8Array<ArrayBuffer> | 'damaged' | undefined>
  /** Hashes of all contents that are kept, and names of what was left half written. */
  list(db: Queryable): Promise<{ hashes: string[]; half: string[] }>
}

export const hashOf = (content: Uint8Array): string => createHash('sha256').update(content).digest('hex')

const wholeOrDamaged = (hash: string, content: Uint8Array<ArrayBuffer>) =>
  hashOf(content) === hash ? content : ('damaged' as const)

/** Files beside an embedded database. @param folder made when the first file comes */
export function openFileStore(folder: string): FileStore {
  const placeOf = (hash: string) => join(folder, hash.slice(0, 2), hash)
  const read = (hash: string) => {
    const place = placeOf(hash)
    return existsSync(place) ? wholeOrDamaged(hash, new Uint8Array(readFileSync(place))) : undefined
  }
  /** The bytes are on disk before the row that names them is. */
  function put(content: Uint8Array): string {
    const hash = hashOf(content)
    const present = read(hash)
    if (present !== undefined && present !== 'damaged') return hash
    const place = placeOf(hash)
    const own = join(folder, hash.slice(0, 2))
    const isNewFolder = !existsSync(own)
    mkdirSync(own, { recursive: true, mode: 0o700 })
    // written beside and moved in, so that a half-written file never has a name that counts
    const half = `${place}.${process.pid}.half`
    try {
      writeFileSync(half, content, { mode: 0o600 })
      syncPath(half)
      renameSync(half, place)
    } catch (e) {
      rmSync(half, { force: true })
      throw e
    }
    syncPath(own)
    if (isNewFolder) syncPath(folder)
    return hash
  }
  return {
    put: (_, content) => Promise.resolve().then(() => put(content)),
    get: (_, hash) => Promise.resolve().then(() => read(hash)),
    list() {
      const names = existsSync(folder)
        ? readdirSync(folder, { recursive: true, withFileTypes: true })
            .filter((e) => e.isFile())
            .map((e) => e.name)
        : []
      return Promise.resolve({
        hashes: names.filter((n) => /^[0-9a-f]{64}$/.test(n)),
        half: names.filter((n) => n.endsWith('.half')),
      })
    },
  }
}

/** In a PostgreSQL server, so that every Moray on it shows them and its own backup holds them. */
export const databaseFiles: FileStore = {
  async put(tx, content) {
    const hash = hashOf(content)
    await tx.query(
      `insert into file_content (hash, content) values ($1, decode($2, 'hex'))
       on conflict (hash) do update set content = excluded.content where file_content.content is distinct from excluded.content`,
      [hash, Buffer.from(content).toString('hex')],
    )
    return hash
  },
  async get(db, hash) {
    const [row] = await db.query<{ hex: string }>(
      "select encode(content, 'hex') as hex from file_content where hash = $1",
      [hash],
    )
    return row && wholeOrDamaged(hash, new Uint8Array(Buffer.from(row.hex, 'hex')))
  },
  async list(db) {
    const rows = await db.query<{ hash: string }>('select hash from file_content order by hash')
    return { hashes: rows.map((r) => r.hash), half: [] }
  },
}

/** Brings contents that a Moray of before kept in a folder beside a PostgreSQL server into it. @returns how many */
export async function carryIn(db: Database, folder: string): Promise<number> {
  const files = openFileStore(folder)
  const missing = await db.query<{ hash: string }>(
    'select hash from file where not exists (select 1 from file_content c where c.hash = file.hash)',
  )
  let carried = 0
  for (const { hash } of missing) {
    const content = await files.get(db, hash)
    if (content === undefined || content === 'damaged') continue
    await db.transaction((tx) => databaseFiles.put(tx, content))
    carried++
  }
  return carried
}
