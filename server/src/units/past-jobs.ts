import type { PastJob, UnitsBefore } from '@moray/contract/found'
import { LEAK_TESTS } from '@moray/core/route/step-ids'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/** As many units like one are shown. */
const MOST_LIKE = 12
const MOST_SAME = 200

/** How jobs left their units: of the build that was accepted, or of the newest one. A selection of `job` as `j` follows. */
const PAST = `select json_build_object('id', j.id, 'number', j.number, 'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'state', j.state,
    'openedAt', iso(j.opened_at), 'sheetId', j.sheet_id, 'sheetName', d.name, 'complaint', j.complaint, 'hours', j.hours, 'acceptedAt', iso(b.accepted_at),
    'stacks', coalesce((select json_object_agg(s.location, coalesce(s.turned_mm, 0) + coalesce((select sum(p.thickness_mm) from stack_piece p where p.stack_id = s.id), 0))
      from stack s where s.build_id = b.id and not exists (select 1 from stack_superseded x where x.stack_id = s.id)), '{}'),
    'reads', coalesce((select json_object_agg(m.measure, m.mean) from (select r.measure, avg(r.value) as mean from reading r
      where r.build_id = b.id and not exists (select 1 from reading_superseded x where x.reading_id = r.id) group by r.measure) m), '{}'),
    'tests', coalesce((select json_agg(json_build_object('step', c.step, 'answers', c.answers, 'at', iso(c.at)) order by c.id)
      from step_done c where c.job_id = j.id and c.step = any($1) and not exists (select 1 from step_taken_back x where x.step_done_id = c.id)), '[]')) as past
  from job j join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version
  left join lateral (select b.id, a.at as accepted_at from build b
    left join acceptance_standing t on t.build_id = b.id left join acceptance a on a.id = t.acceptance_id
    where b.job_id = j.id order by a.at is null, b.number desc limit 1) b on true`

const read = async (db: Queryable, where: string, ...params: unknown[]): Promise<PastJob[]> =>
  (await db.query<{ past: PastJob }>(`${PAST} ${where}`, [LEAK_TESTS, ...params])).map((r) => r.past)

/** Every job of a unit, the newest first. */
export const jobsOfUnit = (db: Queryable, sheet: string, serial: string): Promise<PastJob[]> =>
  read(
    db,
    `where j.serial = $2 and j.sheet_id = $3 order by j.opened_at desc, j.id limit ${MOST_SAME}`,
    serial,
    sheet,
  )

/** The same unit before, and the newest other units of the same drive that were set here. @throws Refusal 404 */
export async function unitsBefore(db: Queryable, job: string): Promise<UnitsBefore> {
  // which jobs first, so that what is said of them is asked for once
  const [found] = await db.query<{ same: string[]; like: string[] }>(
    `select
       array(select id from job where serial = me.serial and sheet_id = me.sheet_id and id <> me.id
         order by opened_at desc, id limit ${MOST_SAME}) as same,
       array(select id from job where sheet_id = me.sheet_id and serial <> me.serial
         and exists (select 1 from build x join acceptance_standing t on t.build_id = x.id where x.job_id = job.id)
         order by opened_at desc limit ${MOST_LIKE}) as like
     from job me where me.id = $1`,
    [job],
  )
  if (!found) throw notFound('Job', job)
  const all = await read(db, 'where j.id = any($2) order by j.opened_at desc, j.id', [
    ...found.same,
    ...found.like,
  ])
  const of = (ids: readonly string[]) => all.filter((j) => ids.includes(j.id))
  return { same: of(found.same), like: of(found.like) }
}
