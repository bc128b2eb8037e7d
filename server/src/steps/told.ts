import type { AcceptLine, UndoStep } from '@moray/contract/requests/route'
import { isFirm, lineId } from '@moray/core/assembly/invariants'
import { lineText } from '@moray/core/job/acts/line-text'
import { undoneOf } from '@moray/core/job/acts/told-entries'
import type { Told } from '@moray/core/job/event'
import type { ToldEntry } from '@moray/core/job/record'
import { baseOf } from '@moray/core/route/occurrence'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { mustBeLead } from '../request/rights.ts'

/** What a closed step did was undone since: the closing stands, and what it did is left to do once more. */
export async function undoStep(at: At, { reason }: UndoStep, closingId: number): Promise<Told> {
  const { job } = at
  const entry = job.closings.find((c) => c.id === closingId)
  if (!entry) throw notFound('Closed step', String(closingId))
  const step = job.route.steps.find((s) => s.id === entry.step)
  const what = step?.what ?? baseOf(entry.step)
  if (entry.takenBack)
    throw new Refusal(409, 'already-taken-back', 'That step was taken back: what it did is done again.')
  if (!undoneOf(job, entry.id).length)
    throw new Refusal(
      409,
      'nothing-to-undo',
      `${what}: nothing of what it did still stands that could be undone. A wrong answer is corrected.`,
    )
  await keep(at, 'undone', String(entry.id), reason)
  return { kind: 'step-undone', subject: `step:${entry.step}`, data: { what, reason } }
}

/** A line may stay as it is. What could hurt somebody is accepted by nobody, and where the shop wants its lead to agree, by the lead alone. */
export async function acceptLine(at: At, { line, reason }: AcceptLine): Promise<Told> {
  const { job, who } = at
  const found = job.work.lines.find((l) => lineId(l) === line && l.colour === 'red')
  if (!found)
    throw new Refusal(409, 'no-such-line', 'That is not open any more: look at the list again.', [
      { path: 'line', message: 'names nothing that is open' },
    ])
  const text = lineText(job.sheet, found)
  if (isFirm(found.code))
    throw new Refusal(422, 'unsafe', `${text}: nobody accepts this, whoever agrees. It is mended first.`, [
      { path: 'line', message: 'could hurt somebody' },
    ])
  if (job.ways.rules.departuresNeedLead) mustBeLead(who, 'To accept what is open')
  await keep(at, 'accepted', line, reason)
  return { kind: 'line-accepted', subject: 'handover', data: { line: text, reason } }
}

async function keep({ tx, job, who, entered }: At, kind: ToldEntry['kind'], subject: string, reason: string) {
  await tx.query(
    'insert into told (job_id, kind, subject, reason, by_person, at, entered) values ($1, $2, $3, $4, $5, $6, $7)',
    [job.id, kind, subject, reason, who.id, who.at, entered],
  )
}
