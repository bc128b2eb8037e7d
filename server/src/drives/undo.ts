import type { DraftChange } from '@moray/contract/replies'
import { rowName } from '@moray/core/drives/graph/row-name'
import type { RowChange } from '@moray/core/drives/own/row-changes'
import type { Queryable } from '../db/database.ts'

/** As many changes can be taken back one after the other. */
const KEPT = 100
/** As many rows of a change are named. */
const NAMED = 3

/** What was changed last in a draft, the newest first. */
export async function lastChanges(db: Queryable, drive: string): Promise<DraftChange[]> {
  const rows = await db.query<Omit<DraftChange, 'rows' | 'count'> & { changes: RowChange[] }>(
    `select c.id::float8 as id, c.by_person as by, p.name, iso(c.at) as at, c.undoes::float8 as undoes, c.changes,
       exists (select 1 from sheet_draft_change u where u.undoes = c.id) as undone
     from sheet_draft_change c join person p on p.id = c.by_person where c.drive = $1 order by c.id desc limit ${KEPT}`,
    [drive],
  )
  return rows.map(({ changes, ...change }) => {
    // where a figure comes from changes along with it
    const own = changes.filter((c) => c.at !== 'sources')
    const shown = own.length ? own : changes
    return { ...change, count: shown.length, rows: shown.slice(0, NAMED).map(shortly) }
  })
}

function shortly({ at, id, before, after, order }: RowChange): DraftChange['rows'][number] {
  const name = rowName(after ?? before) ?? id ?? at
  const did = order ? 'moved' : before === undefined ? 'in' : after === undefined ? 'out' : 'changed'
  return { list: at, name, did }
}
