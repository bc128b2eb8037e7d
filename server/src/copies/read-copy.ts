import { StringDecoder } from 'node:string_decoder'
import { hashOf } from '../files/file-store.ts'
import { openZip, ZipError, type OpenZip } from '../files/read-zip.ts'
import { TableCount } from './dump.ts'
import { checkedManifest, CopyError, MANIFEST, PICTURE_NAME, TABLE_NAME, type Manifest } from './manifest.ts'

const GB = 1024 ** 3
const RULES = {
  what: 'copy of a shop',
  mayHold: (name: string) => name === MANIFEST || TABLE_NAME.test(name) || PICTURE_NAME.test(name),
  mostEntries: 5_000_000,
  mostBytes: 2000 * GB,
}
const MOST_MANIFEST = 4 * 1024 * 1024
/** No row of ours is nearly as long. */
const MOST_LINE = 64 * 1024 * 1024
const MOST_PICTURE = 64 * 1024 * 1024
/** Rows that are handed on at a time. */
const AT_A_TIME = 500
const MOST_TEXT = 4 * 1024 * 1024

export interface OpenCopy {
  manifest: Manifest
  /** Lines of a table, some at a time; at its end what came is held against the manifest. @throws CopyError naming the table when it is not what was written */
  rows: (table: string) => AsyncGenerator<string[]>
  /** Hashes of the pictures in it. */
  pictures: string[]
  /** @throws CopyError when the content is not what its name says */
  picture: (hash: string) => Promise<Uint8Array<ArrayBuffer>>
  close: () => void
}

/** Opens a copy and looks at what it says of itself. @throws CopyError in words that name what is wrong */
export async function openCopy(file: string): Promise<OpenCopy> {
  const zip = await openZip(file, RULES).catch(asCopyError)
  try {
    if (!zip.entries.has(MANIFEST))
      throw new CopyError(`it has no ${MANIFEST}: it is no copy of a shop, or was cut off`)
    const manifest = checkedManifest(
      (await zip.read(MANIFEST, MOST_MANIFEST).catch(asCopyError)).toString('utf8'),
    )
    const pictures = [...zip.entries.keys()].flatMap((n) => PICTURE_NAME.exec(n)?.[1] ?? [])
    mustBeComplete(zip, manifest, pictures)
    return {
      manifest,
      rows: (table) => rows(zip, table, manifest),
      pictures,
      picture: (hash) => picture(zip, hash),
      close: () => zip.close(),
    }
  } catch (e) {
    zip.close()
    throw e
  }
}

function asCopyError(e: unknown): never {
  throw e instanceof ZipError ? new CopyError(e.message) : e
}

/** All that the manifest names is there, and nothing else. */
function mustBeComplete(zip: OpenZip, manifest: Manifest, pictures: string[]) {
  const tables = [...zip.entries.keys()].flatMap((n) => TABLE_NAME.exec(n)?.[1] ?? [])
  for (const table of Object.keys(manifest.tables))
    if (!tables.includes(table)) throw new CopyError(`tables/${table}.jsonl is missing`)
  for (const table of tables)
    if (!manifest.tables[table])
      throw new CopyError(`tables/${table}.jsonl was put in: ${MANIFEST} does not know it`)
  if (pictures.length !== manifest.pictures.count)
    throw new CopyError(`it holds ${pictures.length} pictures, ${MANIFEST} says ${manifest.pictures.count}`)
}

async function* rows(zip: OpenZip, table: string, manifest: Manifest): AsyncGenerator<string[]> {
  const name = `tables/${table}.jsonl`
  const count = new TableCount()
  let lines: string[] = []
  let length = 0
  const flush = () => {
    const out = lines
    count.add(`${out.join('\n')}\n`, out.length)
    lines = []
    length = 0
    return out
  }
  try {
    for await (const line of linesOf(await zip.stream(name), name)) {
      lines.push(line)
      length += line.length
      if (lines.length >= AT_A_TIME || length > MOST_TEXT) yield flush()
    }
  } catch (e) {
    if (e instanceof CopyError || (e as { constraint?: string }).constraint) throw e
    if (e instanceof ZipError) throw new CopyError(e.message)
    throw new CopyError(`${name} is damaged: ${(e as Error).message}`)
  }
  if (lines.length) yield flush()
  const [found, said] = [count.sum(), manifest.tables[table]!]
  if (found.rows !== said.rows || found.sha256 !== said.sha256)
    throw new CopyError(
      `${name} was altered: it is not what was written (${found.rows} of ${said.rows} rows)`,
    )
}

/** Lines that end; what stands behind the last end is no line. */
async function* linesOf(stream: AsyncIterable<unknown>, name: string): AsyncGenerator<string> {
  const decoder = new StringDecoder('utf8')
  let rest = ''
  for await (const part of stream) {
    rest += decoder.write(part as Buffer)
    if (rest.length > MOST_LINE)
      throw new CopyError(`${name} holds a line that is longer than any row of Moray`)
    const lines = rest.split('\n')
    rest = lines.pop()!
    yield* lines
  }
  if (rest !== '') throw new CopyError(`${name} was cut off amid a row`)
}

async function picture(zip: OpenZip, hash: string): Promise<Uint8Array<ArrayBuffer>> {
  const content = new Uint8Array(await zip.read(`pictures/${hash}`, MOST_PICTURE).catch(asCopyError))
  if (hashOf(content) !== hash)
    throw new CopyError(`pictures/${hash} was altered: its content is not what its name says`)
  return content
}
