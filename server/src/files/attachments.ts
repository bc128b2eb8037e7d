import type { Told } from '@moray/core/job/event'
import { isVisible, textProblem } from '@moray/contract/fields/text-rule'
import { refuse } from '@moray/core/checks/input-error'
import type { At } from '../job/change.ts'
import type { FileStore } from './file-store.ts'
import type { Remade } from './picture.ts'

const SUBJECTS = ['step', 'part', 'grade', 'job'] as const
const MOST_NOTE = 300

export interface About {
  subject: string
  subjectId: string
  note: string
}

/** Keeps a picture and what it shows; and the file as it came where the job may end before an insurer. */
export async function attach(
  { tx, job, who }: At,
  store: FileStore,
  { content, type, came }: Remade,
  original: Uint8Array,
  about: About,
): Promise<Told> {
  const subject = SUBJECTS.find((s) => s === about.subject)
  if (!subject) refuse('subject', `one of ${SUBJECTS.join(', ')}`)
  const of = shownBy(job, subject, about.subjectId)
  const bad = textProblem(about.note)
  if (bad) refuse('note', bad)
  if (about.note.length > MOST_NOTE)
    refuse('note', `has ${about.note.length} characters; at most ${MOST_NOTE} are kept`)
  const note = isVisible(about.note) ? about.note : null
  const hash = await store.put(tx, content)
  const kept = mayEndBeforeAnInsurer(job)
  if (kept) {
    await store.put(tx, original)
    await tx.query(
      'insert into original (hash, job_id, type, bytes, at) values ($1, $2, $3, $4, $5) on conflict (hash) do nothing',
      [came.hash, job.id, came.type, came.bytes, who.at],
    )
  }
  await tx.query(
    `with kept as (
       insert into file (hash, type, bytes, at, made) values ($2, $3, $4, $9, true) on conflict (hash) do nothing returning 1
     )
     insert into attachment (job_id, hash, subject, subject_id, note, by_person, at, came)
     values ($1, $2, $5, $6, $7, $8, $9, $10::jsonb)`,
    [
      job.id,
      hash,
      type,
      content.byteLength,
      subject,
      about.subjectId,
      note,
      who.id,
      who.at,
      JSON.stringify({ ...came, ...(kept ? { kept } : {}) }),
    ],
  )
  return {
    kind: 'picture',
    subject: `${subject}:${about.subjectId}`,
    data: { of, ...(note ? { note } : {}) },
  }
}

/** A drive that was struck, or may have been: what it looked like is asked about in court, not only at the bench. */
const mayEndBeforeAnInsurer = (job: At['job']): boolean =>
  job.scopes.at(-1)?.mode === 'strike' || ['yes', 'unknown'].includes(String(job.facts['in.struck']))

/** What the picture shows, in words. @throws InputError when the job has nothing of that id */
function shownBy(job: At['job'], subject: (typeof SUBJECTS)[number], id: string): string {
  const of =
    subject === 'job'
      ? id === '' || id === job.id
        ? job.number
        : undefined
      : subject === 'step'
        ? job.route.steps.find((s) => s.id === id)?.what
        : (job.sheet.parts.find((p) => p.id === id)?.name ?? job.row.find((t) => String(t.id) === id)?.name)
  return of ?? refuse('of', `names no ${subject} of this job`)
}
