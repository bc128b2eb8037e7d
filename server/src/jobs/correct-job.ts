import type { CorrectJob } from '@moray/contract/requests/life'
import type { JobDetail, Told } from '@moray/core/job/event'
import { refuse } from '@moray/core/checks/input-error'
import type { At } from '../job/change.ts'

const DETAILS = ['serial', 'boat', 'owner', 'water', 'hours', 'complaint'] as const satisfies JobDetail[]

/** Puts right what was written down when the job was opened; what it was before stands in the history. */
export async function correctJob({ tx, job }: At, body: CorrectJob): Promise<Told> {
  const changes = DETAILS.flatMap((field) => {
    const now = body[field]
    return now === undefined || now === job[field] ? [] : [{ field, was: job[field] ?? '', now }]
  })
  if (!changes.length) refuse('details', 'are the same as before; change what is wrong', 'same')
  await tx.query(
    `update job set serial = coalesce($2, serial), boat = coalesce($3, boat), owner = coalesce($4, owner), water = coalesce($5, water),
       hours = coalesce($6, hours), complaint = coalesce($7, complaint) where id = $1`,
    [job.id, ...DETAILS.map((field) => body[field] ?? null)],
  )
  return { kind: 'corrected', subject: `job:${job.id}`, data: { changes, reason: body.reason } }
}
