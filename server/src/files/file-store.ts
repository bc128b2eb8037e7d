import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Files by the hash of their content, beside the database: the same picture twice is one file. */
export interface FileStore {
  /** @returns the content's SHA-256, in hex */
  put(content: Uint8Array): string
  get(hash: string): Uint8Array<ArrayBuffer> | undefined
}

/** @param folder made when the first file comes */
export function openFileStore(folder: string): FileStore {
  const placeOf = (hash: string) => join(folder, hash.slice(0, 2), hash)
  return {
    put(content) {
      const hash = createHash('sha256').update(content).digest('hex')
      const place = placeOf(hash)
      if (existsSync(place)) return hash
      mkdirSync(join(folder, hash.slice(0, 2)), { recursive: true })
      // written beside and moved in, so that a half-written file never has a name that counts
      const half = `${place}.${process.pid}.half`
      writeFileSync(half, content)
      renameSync(half, place)
      return hash
    },
    get(hash) {
      const place = placeOf(hash)
      return existsSync(place) ? new Uint8Array(readFileSync(place)) : undefined
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
