import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { syncPath } from '../db/pglite.ts'

/** Files by the hash of their content, beside the database: the same picture twice is one file. */
export interface FileStore {
  /** Keeps the content; when it returns, content and name are on the disk. @returns the content's SHA-256, in hex */
  put(content: Uint8Array): string
  /** The content, only when it is what its name says; 'damaged' when it is not. */
  get(hash: string): Uint8Array<ArrayBuffer> | 'damaged' | undefined
  /** Names of all files that are kept, and of what was left half written. */
  list(): { hashes: string[]; half: string[] }
}

export const hashOf = (content: Uint8Array): string => createHash('sha256').update(content).digest('hex')

/** @param folder made when the first file comes */
export function openFileStore(folder: string): FileStore {
  const placeOf = (hash: string) => join(folder, hash.slice(0, 2), hash)
  const read = (hash: string) => {
    const place = placeOf(hash)
    if (!existsSync(place)) return undefined
    const content = new Uint8Array(readFileSync(place))
    return hashOf(content) === hash ? content : ('damaged' as const)
  }
  return {
    put(content) {
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
    },
    get: read,
    list() {
      const names = existsSync(folder)
        ? readdirSync(folder, { recursive: true, withFileTypes: true })
            .filter((e) => e.isFile())
            .map((e) => e.name)
        : []
      return {
        hashes: names.filter((n) => /^[0-9a-f]{64}$/.test(n)),
        half: names.filter((n) => n.endsWith('.half')),
      }
    },
  }
}

/** What a file is by its first bytes, whatever its name says; only pictures are kept. */
export function pictureType(content: Uint8Array): string | undefined {
  const starts = (...bytes: number[]) => bytes.every((b, i) => content[i] === b)
  const text = (from: number, to: number) => String.fromCharCode(...content.slice(from, to))
  if (starts(0xff, 0xd8, 0xff)) return 'image/jpeg'
  if (starts(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png'
  if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return 'image/webp'
  if (text(0, 6) === 'GIF87a' || text(0, 6) === 'GIF89a') return 'image/gif'
  return undefined
}
