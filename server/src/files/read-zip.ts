import { openPromise, type Entry, type ZipFile } from 'yauzl'
import type { Readable } from 'node:stream'

/** A zip that is not taken, in words. */
export class ZipError extends Error {}

export interface ZipRules {
  /** What the file is, for whoever reads the message. */
  what: string
  /** Names that may be in it; any other is refused, also one that leads out of the zip. */
  mayHold: (name: string) => boolean
  mostEntries: number
  /** Bytes that all of it may unpack to. */
  mostBytes: number
}

export interface OpenZip {
  /** Its entries by name, with the bytes that each says it unpacks to; a stream that does not hold to that ends with an error. */
  entries: Map<string, Entry>
  /** @throws ZipError when it does not hold that */
  stream: (name: string) => Promise<Readable>
  /** The whole of a small entry. @throws ZipError when it is missing, damaged or longer than `most` bytes */
  read: (name: string, most: number) => Promise<Buffer>
  close: () => void
}

/** So many times as large as it is packed a text of ours may be: our own reach about forty. */
const MOST_RATIO = 250
const RATIO_FROM = 1024 * 1024

/**
 * Opens a zip that came from somewhere else, and looks at its list before anything is unpacked: names, doubles, sizes.
 * @throws ZipError naming what is wrong
 */
export async function openZip(file: string, rules: ZipRules): Promise<OpenZip> {
  const zip = await openPromise(file, { autoClose: false }).catch((e: unknown) => {
    const { code, message } = e as NodeJS.ErrnoException
    if (code) throw e
    throw new ZipError(`it is no ${rules.what}, or was cut off: ${message}`)
  })
  try {
    return opened(zip, await listed(zip, rules))
  } catch (e) {
    zip.close()
    throw e instanceof ZipError || (e as NodeJS.ErrnoException).code
      ? e
      : new ZipError(`it is damaged: ${(e as Error).message}`)
  }
}

async function listed(zip: ZipFile, rules: ZipRules): Promise<Map<string, Entry>> {
  if (zip.entryCount > rules.mostEntries)
    throw new ZipError(`it holds ${zip.entryCount} files; at most ${rules.mostEntries} are taken`)
  const entries = new Map<string, Entry>()
  let sum = 0
  for await (const entry of zip.eachEntry()) {
    const { fileName: name, uncompressedSize: bytes, compressedSize: packed } = entry
    const shown = JSON.stringify(name.slice(0, 80))
    if (!rules.mayHold(name)) throw new ZipError(`it holds ${shown}, which no ${rules.what} has`)
    if (entries.has(name)) throw new ZipError(`it holds ${shown} twice`)
    if (entry.isEncrypted()) throw new ZipError(`${shown} is encrypted`)
    if (bytes > RATIO_FROM && bytes > packed * MOST_RATIO)
      throw new ZipError(`${shown} unpacks to ${bytes} bytes out of ${packed}: that is no ${rules.what}`)
    sum += bytes
    if (sum > rules.mostBytes)
      throw new ZipError(`it unpacks to more than ${rules.mostBytes} bytes, the most that is taken here`)
    entries.set(name, entry)
  }
  return entries
}

function opened(zip: ZipFile, entries: Map<string, Entry>): OpenZip {
  const stream = async (name: string) => {
    const entry = entries.get(name)
    if (!entry) throw new ZipError(`${name} is missing`)
    return zip.openReadStreamPromise(entry)
  }
  return {
    entries,
    stream,
    async read(name, most) {
      const entry = entries.get(name)
      if (entry && entry.uncompressedSize > most)
        throw new ZipError(`${name} has ${entry.uncompressedSize} bytes; at most ${most} are taken`)
      const parts: Buffer[] = []
      try {
        for await (const part of await stream(name)) parts.push(part as Buffer)
      } catch (e) {
        if (e instanceof ZipError || (e as NodeJS.ErrnoException).code === 'EIO') throw e
        throw new ZipError(`${name} is damaged: ${(e as Error).message}`)
      }
      return Buffer.concat(parts)
    },
    close: () => zip.close(),
  }
}
