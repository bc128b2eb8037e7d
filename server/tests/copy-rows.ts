import type { Database } from '../src/db/database.ts'

interface TableRows {
  name: string
  /** What is not worked out by the database. */
  columns: string
  /** All its rows as the database writes them in JSON. */
  rows: string
}

/** Every table with what is in it. */
export async function rowsOf(db: Database): Promise<TableRows[]> {
  const tables = await db.query<{ name: string; columns: string }>(
    `select table_name as name, string_agg(format('%I', column_name), ', ') as columns from information_schema.columns
     join pg_tables on schemaname = table_schema and tablename = table_name
     where table_schema = 'public' and is_generated = 'NEVER' group by table_name`,
  )
  return Promise.all(
    tables.map(async (t) => {
      const [all] = await db.query<{ rows: string }>(
        `select coalesce(json_agg(t), '[]')::text as rows from public.${t.name} t`,
      )
      return { ...t, rows: all!.rows }
    }),
  )
}

/** Lays them into a database with the same tables, instead of what its migrations left in them; nothing is checked or worked out on the way. */
export const putRows = (db: Database, tables: TableRows[]): Promise<void> =>
  db.transaction(async (tx) => {
    await tx.script('set local session_replication_role = replica')
    for (const { name, columns, rows } of tables) {
      await tx.script(`delete from public.${name}`)
      await tx.query(
        `insert into public.${name} (${columns}) overriding system value
         select ${columns} from json_populate_recordset(null::public.${name}, $1::json)`,
        [rows],
      )
    }
  })
