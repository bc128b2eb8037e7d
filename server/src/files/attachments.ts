import type { Told } from '@moray/core/job/event'
import { isVisible, textProblem } from '@moray/contract/fields/text-rule'
import { refuse } from '@moray/core/checks/input-error'
import { Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { pictureType, type FileStore } from './file-store.ts'
import { stripPlace } from './strip-place.ts'

const SUBJECTS = ['step', 'part', 'grade', 'job'] as const
const MOST_NOTE = 300

export interface About {
  subject: string
  subjectId: string
  note: string
}

/** Keeps a picture and what it shows. The bytes are on disk before the row that names them is. */
export async function attach(
  { tx, job, who }: At,
  store: FileStore,
  content: Uint8Array,
  about: About,
): Promise<Told> {
  const type = pictureType(content)
  if (!type)
    throw new Refusal(
      415,
      'not-a-picture',
      'Only pictures are kept here (JPEG, PNG, WebP, GIF), by what is in the file, not by its name.',
    )
  const subject = SUBJECTS.find((s) => s === about.subject)
  if (!subject) refuse('subject', `one of ${SUBJECTS.join(', ')}`)
  const of = shownBy(job, subject, about.subjectId)
  const bad = textProblem(about.note)
  if (bad) refuse('note', bad)
  if (about.note.length > MOST_NOTE)
    refuse('note', `has ${about.note.length} characters; at most ${MOST_NOTE} are kept`)
  const note = isVisible(about.note) ? about.note : null
  const stripped = stripPlace(content, type)
  const hash = store.put(stripped)
  await tx.query(
    `with kept as (
       insert into file (hash, type, bytes, at) values ($2, $3, $4, $9) on conflict (hash) do nothing returning 1
     )
     insert into attachment (job_id, hash, subject, subject_id, note, by_person, at)
     values ($1, $2, $5, $6, $7, $8, $9)`,
    [job.id, hash, type, stripped.byteLength, subject, about.subjectId, note, who.id, who.at],
  )
  return {
    kind: 'picture',
    subject: `${subject}:${about.subjectId}`,
    data: { of, ...(note ? { note } : {}) },
  }
}

/** What the picture shows, in words. @throws InputError when the job has nothing of that id */
function shownBy(job: At['job'], subject: (typeof SUBJECTS)[number], id: string): string {
  const of =
    subject === 'job'
      ? job.number
      : subject === 'step'
        ? job.route.steps.find((s) => s.id === id)?.what
        : (job.sheet.parts.find((p) => p.id === id)?.name ?? job.row.find((t) => String(t.id) === id)?.name)
  return of ?? refuse('of', `names no ${subject} of this job`)
}
