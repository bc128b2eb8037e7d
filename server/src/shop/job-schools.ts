import type { ChooseSchool } from '@moray/contract/requests/shop'
import type { Told } from '@moray/core/job/event'
import { Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { mustBeSchool } from './shop.ts'

/** Does one thing on this job another way than the shop does it. */
export async function chooseJobSchool({ tx, job, who }: At, body: ChooseSchool): Promise<Told> {
  const { school, option } = mustBeSchool(body)
  if (!body.reason)
    throw new Refusal(422, 'reason-needed', 'Say why this job does it differently.', [
      { path: 'reason', message: 'is missing' },
    ])
  await tx.query(
    'insert into job_school (job_id, school, choice, reason, by_person, at) values ($1, $2, $3, $4, $5, $6)',
    [job.id, school.id, option.value, body.reason, who.id, who.at],
  )
  return {
    kind: 'school',
    subject: `school:${school.id}`,
    data: { question: school.question, label: option.label, reason: body.reason },
  }
}
