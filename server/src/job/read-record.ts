import { USUAL_WAYS, type JobRecord, type ShopWays } from '@moray/core/job/record'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import { waysOf, type StoredWays } from './ways.ts'

export interface Read {
  /** As it goes over the wire. */
  record: JobRecord
  ways: ShopWays
  /** See {@link REST}. */
  rest: string
}

type Row = { record: JobRecord; ways: StoredWays | null; rest: string }

/** What may have changed about the job `id` without an event: how many sheets there are, and its drafts. */
export const REST = (id: string): string => `concat_ws(' ', (select count(*) from drive_sheet),
  (select string_agg(t.xmin::text, ',' order by t.step) from step_draft t where t.job_id = ${id}))`

/** Everything that is kept of one job, with the shop's ways that it is judged by: one statement. @throws Refusal 404 */
export async function readRecord(db: Queryable, id: string): Promise<Read> {
  const [row] = await db.query<Row>(`select record, ways, ${REST('$1')} as rest from job_record($1)`, [id])
  return readOf(row, id)
}

/** The same of several jobs, in their order, in one statement. @throws Refusal 404 */
export async function readRecords(db: Queryable, ids: readonly string[]): Promise<Read[]> {
  const rows = await db.query<Row>(
    `select r.record, r.ways, ${REST('j.id')} as rest from unnest($1::text[]) j(id), lateral job_record(j.id) r`,
    [ids],
  )
  return ids.map((id) =>
    readOf(
      rows.find((r) => r.record.id === id),
      id,
    ),
  )
}

function readOf(row: Row | undefined, id: string): Read {
  if (!row) throw notFound('Job', id)
  return { ...row, ways: row.ways ? waysOf(row.ways) : USUAL_WAYS }
}
