import { createWriteStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import { openPromise } from 'yauzl'
import { ZipFile } from 'yazl'

/** Everything in a zip, by name. */
export async function readZip(file: string): Promise<Map<string, Buffer>> {
  const zip = await openPromise(file, { autoClose: false })
  const entries = new Map<string, Buffer>()
  for await (const entry of zip.eachEntry()) {
    const parts: Buffer[] = []
    for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer)
    entries.set(entry.fileName, Buffer.concat(parts))
  }
  zip.close()
  return entries
}

/** Writes a zip of these entries, in their order; a name may stand in it twice. */
export async function writeZip(file: string, entries: Iterable<[string, Buffer]>): Promise<void> {
  const zip = new ZipFile()
  for (const [name, content] of entries) zip.addBuffer(content, name)
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(file))
}
