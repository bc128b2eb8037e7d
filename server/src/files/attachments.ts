import type { Attachment } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'
import { pictureType, type FileStore } from './file-store.ts'

interface AttachmentRow {
  id: number
  hash: string
  type: string
  bytes: number
  subject: Attachment['subject']
  subject_id: string
  note: string | null
  name: string
  at: Date
}

export async function listAttachments(db: Queryable, jobId: string): Promise<Attachment[]> {
  const rows = await db.query<AttachmentRow>(
    `select a.id, a.hash, f.type, f.bytes, a.subject, a.subject_id, a.note, p.name, a.at
     from attachment a join file f on f.hash = a.hash join person p on p.id = a.by_person
     where a.job_id = $1 order by a.id`,
    [jobId],
  )
  return rows.map((r) => ({
    id: r.id,
    hash: r.hash,
    type: r.type,
    bytes: r.bytes,
    subject: r.subject,
    subjectId: r.subject_id,
    note: r.note,
    by: r.name,
    at: r.at.toISOString(),
  }))
}

const SUBJECTS = ['step', 'part', 'grade', 'job'] as const

/** Keeps a picture and what it shows. The bytes are on disk before the row that names them is. */
export async function attach(
  { tx, job, who }: JobStep,
  store: FileStore,
  content: Uint8Array,
  about: { subject: string; subjectId: string; note: string },
): Promise<string> {
  const type = pictureType(content)
  if (!type)
    throw new Refusal(
      415,
      'not-a-picture',
      'Only pictures are kept here (JPEG, PNG, WebP, GIF), by what is in the file, not by its name.',
    )
  const subject = SUBJECTS.find((s) => s === about.subject)
  if (!subject)
    throw new Refusal(422, 'invalid-input', `A picture belongs to one of ${SUBJECTS.join(', ')}.`, [
      { path: 'subject', message: `is "${about.subject}"` },
    ])
  const hash = store.put(content)
  await tx.query(
    'insert into file (hash, type, bytes, at) values ($1, $2, $3, $4) on conflict (hash) do nothing',
    [hash, type, content.byteLength, who.at],
  )
  await tx.query(
    `insert into attachment (job_id, hash, subject, subject_id, note, by_person, at) values ($1, $2, $3, $4, $5, $6, $7)`,
    [
      job.id,
      hash,
      subject,
      about.subjectId.slice(0, 60),
      about.note.trim().slice(0, 300) || null,
      who.id,
      who.at,
    ],
  )
  return `Picture of ${subject} ${about.subjectId}${about.note ? `: ${about.note.trim()}` : ''}`
}
