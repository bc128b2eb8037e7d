import type { ForeignHead } from '@moray/contract/found'
import type { Queryable } from '../db/database.ts'

const HEAD = `json_build_object('id', f.id, 'number', f.file #>> '{job,number}', 'serial', f.file #>> '{job,serial}', 'boat', f.file #>> '{job,boat}',
  'owner', f.file #>> '{job,owner}', 'sheetName', f.file #>> '{sheet,name}', 'shop', split_part(f.file #>> '{ways,rules,heading}', E'\\n', 1),
  'openedAt', f.file #>> '{job,openedAt}', 'at', iso(f.at), 'by', (select name from person where id = f.by_person)) as head`

/** What records of other shops are about, the newest first. @param ids of these; left out, of all */
export async function foreignHead(db: Queryable, ids?: number[]): Promise<ForeignHead[]> {
  if (ids && !ids.length) return []
  const rows = await db.query<{ head: ForeignHead }>(
    `select ${HEAD} from foreign_job f where $1::bigint[] is null or f.id = any($1) order by f.id desc limit 500`,
    [ids ?? null],
  )
  return rows.map((r) => r.head)
}
