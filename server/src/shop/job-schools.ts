import type { JobSchoolEntry } from '@moray/contract/replies'
import type { ChooseSchool } from '@moray/contract/requests/route'
import type { Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'
import { mustBeSchool } from './shop.ts'

/** Schools that a job follows against the shop's; the newest choice of each counts. */
export async function listJobSchools(db: Queryable, jobId: string): Promise<JobSchoolEntry[]> {
  const rows = await db.query<{ school: string; choice: string; reason: string; name: string; at: Date }>(
    `select distinct on (s.school) s.school, s.choice, s.reason, p.name, s.at
     from job_school s join person p on p.id = s.by_person where s.job_id = $1 order by s.school, s.id desc`,
    [jobId],
  )
  return rows.map((r) => ({
    school: r.school,
    choice: r.choice,
    reason: r.reason,
    by: r.name,
    at: r.at.toISOString(),
  }))
}

export async function chooseJobSchool({ tx, job, who }: JobStep, body: ChooseSchool): Promise<string> {
  const { school, option } = mustBeSchool(body)
  const reason = body.reason?.trim()
  if (!reason)
    throw new Refusal(422, 'reason-needed', 'Say why this job does it differently.', [
      { path: 'reason', message: 'is missing' },
    ])
  await tx.query(
    'insert into job_school (job_id, school, choice, reason, by_person, at) values ($1, $2, $3, $4, $5, $6)',
    [job.id, school.id, option.value, reason, who.id, who.at],
  )
  return `${school.question}: ${option.label}, on this job (${reason})`
}
