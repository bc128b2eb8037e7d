import { fullRecord, type CompactRecord } from '@moray/core/job/compact'
import { USUAL_WAYS, type JobRecord, type ShopWays } from '@moray/core/job/record'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import { waysOf, type StoredWays } from '../shop/ways.ts'

/** A closing as a list of values, without the words it was asked in; as in the function job_record of the migrations. */
export const CLOSING = `json_build_array(d.id, d.step, d.by_person, ms(d.at), d.answers, nullif(jsonb_strip_nulls(jsonb_build_object(
   'texts', nullif(d.texts, '{}'), 'departedFrom', nullif(d.departed_from, '[]'), 'reason', d.reason, 'lead', d.lead,
   'takenBack', (select jsonb_build_array(x.reason, x.by_person, ms(x.at), x.replaced_by) from step_taken_back x where x.step_done_id = d.id))), '{}'))`

export const PEOPLE = '(select json_object_agg(p.id, p.name) from person p)'

export interface Read {
  /** As it goes over the wire. */
  compact: CompactRecord
  record: JobRecord
  ways: ShopWays
  /** See {@link REST}. */
  rest: string
}

type Row = { record: CompactRecord; ways: StoredWays | null; rest: string }

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
  const rows = await db.query<Row & { id: string }>(
    `select j.id, r.record, r.ways, ${REST('j.id')} as rest from unnest($1::text[]) j(id), lateral job_record(j.id) r`,
    [ids],
  )
  return ids.map((id) =>
    readOf(
      rows.find((r) => r.id === id),
      id,
    ),
  )
}

function readOf(row: Row | undefined, id: string): Read {
  if (!row) throw notFound('Job', id)
  return {
    compact: row.record,
    record: fullRecord(row.record),
    ways: row.ways ? waysOf(row.ways) : USUAL_WAYS,
    rest: row.rest,
  }
}
