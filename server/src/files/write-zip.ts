import { once } from 'node:events'
import { PassThrough } from 'node:stream'
import { ZipFile } from 'yazl'

/** A zip of these files, in their order. Pictures are compressed already. */
export async function zipOf(entries: Iterable<[string, Uint8Array]>): Promise<Buffer> {
  const zip = new ZipFile()
  for (const [name, content] of entries)
    zip.addBuffer(Buffer.from(content), name, { compress: !name.startsWith('pictures/') })
  zip.end()
  const parts: Buffer[] = []
  const out = zip.outputStream.pipe(new PassThrough())
  out.on('data', (part: Buffer) => parts.push(part))
  await once(out, 'end')
  return Buffer.concat(parts)
}
