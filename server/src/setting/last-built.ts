import type { LastBuilt } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/** The newest accepted build of the same unit (serial and sheet) in another job; null where there is none. One statement. */
export async function lastBuilt(db: Queryable, job: string): Promise<LastBuilt | null> {
  const [row] = await db.query<{ built: LastBuilt | null }>(
    `select (select json_strip_nulls(json_build_object('job', o.id, 'number', o.number,
         'by', (select p.name from person p where p.id = a.by_person), 'at', iso(a.at),
         'stacks', coalesce((select json_agg(json_build_object('location', s.location, 'turnedMm', s.turned_mm,
             'pieces', coalesce((select json_agg(json_build_object('thicknessMm', p.thickness_mm, 'text', p.text) order by p.position)
                                 from stack_piece p where p.stack_id = s.id), '[]')) order by s.id)
           from stack s where s.build_id = b.id and not exists (select 1 from stack_superseded x where x.stack_id = s.id)), '[]'),
         'reads', coalesce((select json_object_agg(m.measure, m.mean) from (
             select r.measure, avg(r.value) as mean from reading r
             where r.build_id = b.id and not exists (select 1 from reading_superseded x where x.reading_id = r.id)
             group by r.measure) m), '{}')))
       from job o join build b on b.job_id = o.id
         join acceptance_standing t on t.build_id = b.id join acceptance a on a.id = t.acceptance_id
       where o.serial = j.serial and o.sheet_id = j.sheet_id and o.id <> j.id
       order by a.at desc, a.id desc limit 1) as built
     from job j where j.id = $1`,
    [job],
  )
  if (!row) throw notFound('Job', job)
  return row.built
}
