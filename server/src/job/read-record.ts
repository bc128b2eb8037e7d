import { fullRecord, type CompactRecord } from '@moray/core/job/compact'
import { USUAL_WAYS, type JobRecord, type ShopWays } from '@moray/core/job/record'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import { waysOf, type StoredWays } from '../shop/ways.ts'

/** Who did it, by name. */
const name = (person: string) => `(select p.name from person p where p.id = ${person})`

/** A list of JSON values out of a subquery, or null when it is empty; json_strip_nulls then leaves it out. */
const list = (value: string, from: string, order: string) =>
  `(select json_agg(${value} order by ${order}) from ${from})`
/** What is seldom there, as one object; null when nothing of it is. */
const more = (fields: string) => `nullif(jsonb_strip_nulls(jsonb_build_object(${fields})), '{}')`
const tuples = (values: string, from: string, order: string) =>
  list(`json_build_array(${values})`, from, order)
const objects = (fields: string, from: string, order: string) =>
  list(`json_build_object(${fields})`, from, order)

// the order of the values is that of the types in core/src/job/compact.ts
const PIECES = tuples(
  `case when sp.line_id is not null then 'd' || sp.line_id else 'c' || coalesce(sp.found_piece_id, sp.id) end, sp.thickness_mm, sp.text`,
  'stack_piece sp where sp.stack_id = s.id',
  'sp.position',
)

const STACKS = tuples(
  `s.id, s.location, s.by_person, ms(s.at), ${PIECES},
   (select json_build_array(x.reason, x.by_person, ms(x.at)) from stack_superseded x where x.stack_id = s.id)`,
  'stack s where s.build_id = b.id',
  's.id',
)

const READINGS = tuples(
  `r.id, r.measure, r.raw_mm, case when r.value_mm <> r.raw_mm then r.value_mm end, r.text, r.unit, r.gauge_id,
   r.gauge_overdue::int, r.resolution, r.mpe, r.repeatability, r.by_person, ms(r.at), ${more(
     `'masterMm', r.master_mm, 'clockDeg', r.clock_deg, 'note', r.note, 'superseded',
      (select jsonb_build_array(x.reason, x.by_person, ms(x.at), x.replaced_by) from reading_superseded x where x.reading_id = r.id)`,
   )}`,
  'reading r where r.build_id = b.id',
  'r.id',
)

const BUILDS = objects(
  `'id', b.id, 'number', b.number, 'by', b.by_person, 'at', ms(b.at), 'plan', b.plan,
   'acceptance', (select json_build_array(a.reason, a.by_person, ms(a.at)) from acceptance a where a.build_id = b.id),
   'stacks', ${STACKS}, 'readings', ${READINGS}`,
  'build b where b.job_id = j.id',
  'b.number',
)

/** A closing without the words it was asked in. */
export const CLOSING = `json_build_array(d.id, d.step, d.by_person, ms(d.at), d.answers, ${more(
  `'texts', nullif(d.texts, '{}'), 'departedFrom', nullif(d.departed_from, '[]'), 'reason', d.reason, 'lead', d.lead,
   'takenBack', (select jsonb_build_array(x.reason, x.by_person, ms(x.at)) from step_taken_back x where x.step_done_id = d.id)`,
)})`

export const PEOPLE = '(select json_object_agg(p.id, p.name) from person p)'

const RECORD = `json_strip_nulls(json_build_object(
  'id', j.id, 'number', j.number, 'sheetId', j.sheet_id, 'sheetVersion', j.sheet_version,
  'newestSheetVersion', (select max(n.version) from drive_sheet n where n.id = j.sheet_id),
  'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'water', j.water, 'hours', j.hours, 'stand', j.stand,
  'state', j.state, 'stage', j.stage, 'waits', j.waits, 'complaint', j.complaint, 'heldReason', j.held_reason,
  'openedAt', iso(j.opened_at), 'touchedAt', iso(j.touched_at), 'routeHash', j.route_hash,
  'people', ${PEOPLE},
  'gauges', (select json_object_agg(g.id, g.name) from gauge g
             where g.id in (select r.gauge_id from reading r join build b on b.id = r.build_id where b.job_id = j.id)),
  'builds', ${BUILDS},
  'closings', ${list(CLOSING, 'step_done d where d.job_id = j.id', 'd.id')},
  'drafts', ${objects(
    `'step', t.step, 'answers', t.answers, 'begunAt', iso(t.begun_at), 'by', ${name('t.by_person')}, 'at', iso(t.at)`,
    'step_draft t where t.job_id = j.id',
    't.step',
  )},
  'row', ${tuples(
    `r.id, r.part, r.name, r.orientation, r.off_by, ms(r.off_at), r.fitted_by, ms(r.fitted_at),
     ${more(`'ink', r.ink, 'stack', r.stack, 'note', r.note, 'leftOut', r.left_out`)}`,
    'row_part r where r.job_id = j.id',
    'r.position, r.id',
  )},
  'grades', ${tuples(
    `g.id, g.part, g.grade, g.reason, nullif(g.seen, '[]'), g.measured_mm,
     case when g.proposed = g.grade then '=' else g.proposed end, g.by_person, ms(g.at)`,
    'grade g where g.job_id = j.id',
    'g.id',
  )},
  'findings', ${objects(
    `'finding', f.finding, 'present', f.present, 'by', ${name('f.by_person')}, 'at', iso(f.at)`,
    `(select distinct on (finding) * from job_finding where job_id = j.id order by finding, id desc) f
     where f.present is not null`,
    'f.finding',
  )},
  'outcome', (select json_build_object('cause', o.cause, 'note', o.note, 'by', ${name('o.by_person')}, 'at', iso(o.at))
              from fault_outcome o where o.job_id = j.id order by o.id desc limit 1),
  'estimates', ${objects(
    `'id', e.id, 'body', e.body, 'by', ${name('e.by_person')}, 'at', iso(e.at),
     'approval', (select json_build_object('choice', a.choice, 'customer', a.customer, 'how', a.how,
                    'by', ${name('a.by_person')}, 'at', iso(a.at))
                  from approval a where a.estimate_id = e.id order by a.id desc limit 1)`,
    'estimate e where e.job_id = j.id',
    'e.id',
  )},
  'schools', ${objects(
    `'school', s.school, 'choice', s.choice, 'reason', s.reason, 'by', ${name('s.by_person')}, 'at', iso(s.at)`,
    '(select distinct on (school) * from job_school where job_id = j.id order by school, id desc) s',
    's.school',
  )},
  'attachments', ${objects(
    `'id', a.id, 'hash', a.hash, 'type', f.type, 'bytes', f.bytes, 'subject', a.subject, 'subjectId', a.subject_id,
     'note', a.note, 'by', ${name('a.by_person')}, 'at', iso(a.at)`,
    'attachment a join file f on f.hash = a.hash where a.job_id = j.id',
    'a.id',
  )},
  'seen', (select coalesce(max(id), 0) from event)
))`

const STATEMENT = `select ${RECORD} as record,
  (select json_object_agg(key, value) from setting where key in ('schools', 'rules', 'stands')) as ways
  from job j where j.id = $1`

export interface Read {
  /** As it goes over the wire. */
  compact: CompactRecord
  record: JobRecord
  ways: ShopWays
}

/** Everything that is kept of one job, with the shop's ways that it is judged by: one statement. @throws Refusal 404 */
export async function readRecord(db: Queryable, id: string): Promise<Read> {
  const [row] = await db.query<{ record: CompactRecord; ways: StoredWays | null }>(STATEMENT, [id])
  if (!row) throw notFound('Job', id)
  return {
    compact: row.record,
    record: fullRecord(row.record),
    ways: row.ways ? waysOf(row.ways) : USUAL_WAYS,
  }
}
