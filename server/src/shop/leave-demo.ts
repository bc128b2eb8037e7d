import { demoSheets } from '@moray/core/drives/sheets/index'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { demoJobs } from '../demo/jobs.ts'
import { PAST } from '../demo/history.ts'
import { people } from '../demo/people-and-gauges.ts'
import { Refusal } from '../http/refusal.ts'
import { tellNewEpoch } from '../live/live.ts'
import { newEpoch } from './epoch.ts'

/** As many of one's own are named. */
const MOST_NAMED = 8

/** Jobs, drives and people that did not come with the demo, in words. */
async function ownInDemo(tx: Transaction): Promise<string[]> {
  const own = await tx.query<{ what: string }>(
    `select 'job ' || number || ' (' || boat || ')' as what from job where id <> all($1) and id not like '${PAST}%'
     union all select 'drive ' || coalesce((select max(s.name) from drive_sheet s where s.id = d.id), (select t.body ->> 'name' from sheet_draft t where t.id = d.id), d.id)
       from drive d where d.id <> all($2)
     union all select 'draft of ' || coalesce(t.body ->> 'name', t.id) from sheet_draft t where t.id = any($2)
     union all select name from person where id <> all($3)`,
    [demoJobs.map((j) => j.id), demoSheets.map((s) => s.id), people.map((p) => p.id)],
  )
  return own.map((o) => o.what)
}

/**
 * Leaves the demo: every row of it goes, an empty shop begins. The one place where rows that look like evidence are deleted; they are
 * invented; it is refused in any other shop, and where something of the shop's own lies among them.
 */
export async function leaveDemo(tx: Transaction): Promise<Told> {
  const [demo] = await tx.query(
    "select 1 from setting where key = 'demo' and value = 'true'::jsonb for update",
  )
  if (!demo) throw new Refusal(409, 'no-demo', 'This is no demo; what is in it stays.')
  const own = await ownInDemo(tx)
  if (own.length)
    throw new Refusal(
      409,
      'own-in-demo',
      `Nothing was deleted: not everything here is invented. Yours are ${own.slice(0, MOST_NAMED).join(', ')}${own.length > MOST_NAMED ? ` and ${own.length - MOST_NAMED} more` : ''}. Save your sheets as files (Drives), then begin your own shop in another folder (MORAY_DATA, with MORAY_DEMO=off); this one stays as it is.`,
    )
  const tables = await tx.query<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = current_schema() and tablename not in ('schema_version', 'setting')`,
  )
  const names = tables.map((t) => `"${t.name}"`)
  await tx.script(
    [
      ...names.map((n) => `alter table ${n} disable trigger user`),
      `truncate ${names.join(', ')} restart identity`,
      ...names.map((n) => `alter table ${n} enable trigger user`),
      "delete from setting where key <> 'shop'",
    ].join('; '),
  )
  await tx.query(`insert into setting (key, value) values ('epoch', to_jsonb($1::text))`, [newEpoch(false)])
  await tellNewEpoch(tx)
  return { kind: 'shop', subject: 'shop', data: { about: 'left-demo' } }
}
