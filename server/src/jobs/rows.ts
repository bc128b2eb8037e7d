import type { JobState, JobSummary } from '@moray/contract/replies'
import { asSheet } from '@moray/core/drives/old-sheets'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

export interface JobRow {
  id: string
  number: string
  sheet_id: string
  sheet_version: number
  sheet: DriveSheet
  newest_version: number
  serial: string
  boat: string
  owner: string
  water: JobSummary['water']
  hours: number | null
  stand: string | null
  state: JobState
  stage: string
  waits_for: string
  complaint: string
  held_reason: string | null
  opened_at: Date
  touched_at: Date
}

const SELECT = `
  select j.*, d.body as sheet, (select max(version) from drive_sheet n where n.id = j.sheet_id) as newest_version
  from job j join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version`

export function toSummary(r: JobRow): JobSummary {
  return {
    id: r.id,
    number: r.number,
    sheetId: r.sheet_id,
    sheetName: r.sheet.name,
    family: r.sheet.family,
    serial: r.serial,
    boat: r.boat,
    owner: r.owner,
    water: r.water,
    hours: r.hours,
    stand: r.stand,
    state: r.state,
    stage: r.stage,
    waitsFor: r.waits_for,
    complaint: r.complaint,
    openedAt: r.opened_at.toISOString(),
    touchedAt: r.touched_at.toISOString(),
  }
}

export async function listJobs(db: Queryable): Promise<JobSummary[]> {
  return (await db.query<JobRow>(`${SELECT} order by j.touched_at desc`)).map(toSummary)
}

export async function findJob(db: Queryable, id: string): Promise<JobRow> {
  const [row] = await db.query<JobRow>(`${SELECT} where j.id = $1`, [id])
  if (!row) throw notFound('Job', id)
  return { ...row, sheet: asSheet(row.sheet) }
}

/** Where the job stands, for the bench list. */
export async function setProgress(
  tx: Queryable,
  jobId: string,
  progress: { state: JobState; stage: string; waitsFor: string },
): Promise<void> {
  await tx.query('update job set state = $2, stage = $3, waits_for = $4 where id = $1', [
    jobId,
    progress.state,
    progress.stage,
    progress.waitsFor,
  ])
}
