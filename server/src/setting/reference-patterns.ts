import type { ReferencePattern } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/**
 * Contact patterns of a good build: accepted with every window met, in another job on this drive. One for each pair and flank: of this very unit
 * before others, then the newest. One statement.
 */
export async function referencePatterns(db: Queryable, job: string): Promise<ReferencePattern[]> {
  const [row] = await db.query<{ found: ReferencePattern[] }>(
    `select coalesce((select json_agg(f.pattern order by f.mesh, f.flank) from (
         select distinct on (m.mesh, m.flank) m.mesh, m.flank, json_build_object('mesh', m.mesh, 'flank', m.flank, 'outline', m.outline,
           'number', o.number, 'at', iso(a.at), 'sameUnit', o.serial = j.serial) as pattern
         from job o join build b on b.job_id = o.id
           join acceptance_standing t on t.build_id = b.id join acceptance a on a.id = t.acceptance_id
           join pattern_mark m on m.build_id = b.id
         where o.sheet_id = j.sheet_id and o.id <> j.id and a.reason is null
           and not exists (select 1 from pattern_mark_superseded x where x.mark_id = m.id)
         order by m.mesh, m.flank, o.serial = j.serial desc, a.at desc, m.place, m.id desc) f), '[]') as found
     from job j where j.id = $1`,
    [job],
  )
  if (!row) throw notFound('Job', job)
  return row.found
}
