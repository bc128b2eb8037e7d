import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'

/**
 * Leaves the demo: every row of it goes, an empty shop begins. The one place where rows that look like evidence are deleted; they are
 * invented, and it is refused in any other shop.
 */
export async function leaveDemo(tx: Transaction): Promise<Told> {
  const [demo] = await tx.query(
    "select 1 from setting where key = 'demo' and value = 'true'::jsonb for update",
  )
  if (!demo) throw new Refusal(409, 'no-demo', 'This is no demo; what is in it stays.')
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
  return { kind: 'shop', subject: 'shop', data: { about: 'left-demo' } }
}
