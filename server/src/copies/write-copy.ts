import { createWriteStream, type WriteStream } from 'node:fs'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ZipFile } from 'yazl'
import type { Mark } from '../data/mark.ts'
import { atOneMoment } from '../db/at-one-moment.ts'
import type { Database, Queryable, Transaction } from '../db/database.ts'
import type { FileStore } from '../files/file-store.ts'
import { rowsOf, sequencesOf, TableCount, tablesOf } from './dump.ts'
import { COPY_FORMAT, COPY_LAYOUT, MANIFEST, type Manifest, type TableSum } from './manifest.ts'

/** A shop that a copy is taken of. */
export interface Source {
  db: Database
  files: FileStore
  mark: Pick<Mark, 'breaks'> | undefined
  /** Version of this Moray. */
  moray: string
  /** When the moment was taken that the copy shows. */
  at: Date
}

/**
 * Writes the shop as it stands at one moment into a file: a zip of a line of JSON for each row, the pictures, and a manifest with counts and sums at
 * its end. What is written meanwhile is not in it, and waits for nothing on a PostgreSQL server; an embedded database is read from a snapshot of its
 * own (see snapshot.ts).
 * @param file made anew; it lies on the disk when this returns
 */
export async function writeCopy(source: Source, file: string): Promise<Manifest> {
  let manifest!: Manifest
  await atOneMoment(source.db, async (tx) => {
    const zip = new ZipFile()
    const out = createWriteStream(file, { mode: 0o600, flags: 'wx', flush: true })
    const written = pump(zip, out)
    // what is asked for below may fail first; it is waited for in any case
    written.catch(() => {})
    try {
      const head = await headOf(tx, source)
      const tables: Record<string, TableSum> = {}
      for (const table of await tablesOf(tx))
        await entry(
          zip,
          `tables/${table}.jsonl`,
          written,
          tableLines(tx, table, (s) => (tables[table] = s)),
        )
      const { pictures, lost } = await addPictures(tx, source.files, zip, written)
      manifest = { ...head, tables, pictures, lost }
      zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`), MANIFEST)
      zip.end()
    } catch (e) {
      out.destroy(e as Error)
      await written.catch(() => {})
      throw e
    }
    await written
  })
  return manifest
}

const pump = (zip: ZipFile, out: WriteStream): Promise<void> => {
  zip.on('error', (e: Error) => out.destroy(e))
  return pipeline(zip.outputStream, out)
}

/** Adds an entry and waits until it is through: the transaction answers one question at a time. */
function entry(
  zip: ZipFile,
  name: string,
  written: Promise<void>,
  content: AsyncGenerator<string>,
): Promise<void> {
  const stream = Readable.from(content, { objectMode: false, highWaterMark: 256 * 1024 })
  const through = new Promise<void>((done, failed) => {
    stream.on('end', done).on('error', failed)
  })
  zip.addReadStream(stream, name, { compressionLevel: 6 })
  return Promise.race([through, written])
}

async function* tableLines(tx: Transaction, table: string, done: (sum: TableSum) => void) {
  const count = new TableCount()
  for await (const lines of rowsOf(tx, table)) {
    const text = `${lines.join('\n')}\n`
    count.add(text, lines.length)
    yield text
  }
  done(count.sum())
}

async function addPictures(tx: Transaction, files: FileStore, zip: ZipFile, written: Promise<void>) {
  const pictures = { count: 0, bytes: 0 }
  const lost: string[] = []
  for (const hash of await picturesOf(tx)) {
    const content = await files.get(tx, hash)
    if (content === undefined || content === 'damaged') {
      lost.push(hash)
      continue
    }
    pictures.count++
    pictures.bytes += content.byteLength
    const stream = Readable.from([content], { objectMode: false })
    const through = new Promise<void>((done, failed) => stream.on('end', done).on('error', failed))
    // a picture is compressed already
    zip.addReadStream(stream, `pictures/${hash}`, { compress: false, size: content.byteLength })
    await Promise.race([through, written])
  }
  return { pictures, lost }
}

/** Hashes of the pictures that rows name. An older Moray kept no originals, the first one no pictures. */
export async function picturesOf(db: Queryable): Promise<string[]> {
  const hashes = new Set<string>()
  for (const table of ['file', 'original']) {
    const [there] = await db.query<{ yes: boolean }>('select to_regclass($1) is not null as yes', [table])
    if (!there!.yes) continue
    for (const { hash } of await db.query<{ hash: string }>(`select hash from ${table}`)) hashes.add(hash)
  }
  return [...hashes].sort()
}

async function headOf(tx: Transaction, source: Source) {
  const [row] = await tx.query<{
    schema: number
    shop: string | null
    heading: string | null
    jobs: number
    event: number | null
    seal: string | null
  }>(
    `select (select count(*)::int from schema_version) as schema, (select value ->> 'id' from setting where key = 'shop') as shop,
       (select value ->> 'heading' from setting where key = 'rules') as heading, (select count(*)::int from job) as jobs, e.event, e.seal
     from (values (1)) v left join (select id::float8 as event, to_jsonb(x) ->> 'digest' as seal from event x order by id desc limit 1) e on true`,
  )
  const { schema, shop, heading, jobs, event, seal } = row!
  const at = source.at.toISOString()
  return {
    format: COPY_FORMAT,
    layout: COPY_LAYOUT,
    moray: source.moray,
    schema,
    // the first Moray had no number for a shop
    shop: shop ?? '',
    at,
    heading: heading ?? '',
    jobs,
    anchor: event === null || seal === null ? null : { event, seal, at },
    breaks: source.mark?.breaks ?? [],
    sequences: await sequencesOf(tx),
  } satisfies Partial<Manifest>
}
