import type { JobFile } from '@moray/contract/job-file'
import type { Queryable } from '../db/database.ts'
import { hashOf, type FileStore } from '../files/file-store.ts'
import { zipOf } from '../files/write-zip.ts'
import { jobTables } from './job-csv.ts'

/** The list of all files with their sums, as the common tool for SHA-256 writes and checks it. */
export const CHECKSUMS = 'checksums.txt'
export const JOB_JSON = 'job.json'

const ENDINGS: Record<string, string> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/gif': 'gif',
}

/** A name that every system takes: `26-118-Skarv-II.zip`. */
export const zipName = ({ job }: JobFile): string =>
  `${
    `${job.number} ${job.boat}`
      .normalize('NFKD')
      .replace(/[^\w]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60) || 'job'
  }.zip`

/** Name of a picture in the zip. */
export const pictureName = (hash: string, type: string): string =>
  `pictures/${hash}.${ENDINGS[type] ?? 'bin'}`

/** One job as a zip: its file, tables, pictures as they are kept here, and the sums of all of it. */
export async function jobZip(db: Queryable, files: FileStore, file: JobFile): Promise<Buffer> {
  const entries = new Map<string, Uint8Array>([
    [JOB_JSON, Buffer.from(`${JSON.stringify(file, null, 1)}\n`)],
    ...Object.entries(jobTables(file)).map(([name, text]): [string, Buffer] => [name, Buffer.from(text)]),
  ])
  for (const a of file.job.attachments) {
    const content = await files.get(db, a.hash)
    // what is missing here is missing there, and its name stands in the record
    if (content && content !== 'damaged') entries.set(pictureName(a.hash, a.type), content)
  }
  const sums = [...entries].map(([name, content]) => `${hashOf(content)}  ${name}\n`).join('')
  entries.set(CHECKSUMS, Buffer.from(sums))
  return zipOf(entries)
}
