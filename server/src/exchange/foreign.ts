import type { JobFile } from '@moray/contract/job-file'
import type { Told } from '@moray/core/job/event'
import type { Queryable, Transaction } from '../db/database.ts'
import { hashOf, type FileStore } from '../files/file-store.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { ForeignJob } from './read-job-zip.ts'

/** Keeps a record that another Moray has written, with its pictures. @throws Refusal 409 when it is here already */
export async function keepForeign(
  tx: Transaction,
  store: FileStore,
  { file, pictures }: ForeignJob,
  who: Who,
): Promise<{ id: number; told: Told }> {
  const text = JSON.stringify(file)
  const [row] = await tx.query<{ id: number }>(
    `insert into foreign_job (hash, file, by_person, at) values ($1, $2::jsonb, $3, $4) on conflict (hash) do nothing returning id::float8 as id`,
    [hashOf(Buffer.from(text)), text, who.id, who.at],
  )
  if (!row)
    throw new Refusal(
      409,
      'here-already',
      `The record of job ${file.job.number} is here already, just as it stands in this file.`,
    )
  for (const p of pictures) {
    const hash = await store.put(tx, p.content)
    // not made here: it is made anew each time it is shown, without what a camera may have written beside it
    await tx.query(
      'insert into file (hash, type, bytes, at, made) values ($1, $2, $3, $4, false) on conflict (hash) do nothing',
      [hash, p.type, p.content.byteLength, who.at],
    )
  }
  return {
    id: row.id,
    told: {
      kind: 'foreign',
      subject: `foreign:${row.id}`,
      data: { number: file.job.number, sheet: file.sheet.name, pictures: pictures.length },
    },
  }
}

/** @throws Refusal 404 */
export async function foreignFile(db: Queryable, id: number): Promise<JobFile> {
  const [row] = await db.query<{ file: JobFile }>('select file from foreign_job where id = $1', [id])
  if (!row) throw notFound('Record', String(id))
  return row.file
}
