import { createHash } from 'node:crypto'
import type { Queryable, Transaction } from '../db/database.ts'
import type { TableSum } from './manifest.ts'

/** Rows that are fetched at a time: enough to be quick, few enough that nobody else waits for long. */
const AT_A_TIME = 500

/**
 * Contents of pictures lie elsewhere in a copy; which functions were made when belongs to one database and not to the shop; what is searched is made anew
 * out of the rows that it came from.
 */
const NOT_DUMPED = ['file_content', 'schema_function', 'search_line', 'search_state']

/** Names of the tables of a shop, in the order of the alphabet. */
export async function tablesOf(db: Queryable): Promise<string[]> {
  const rows = await db.query<{ name: string }>(
    `select c.relname::text as name from pg_class c
     where c.relkind = 'r' and c.relnamespace = current_schema()::regnamespace and c.relname <> all($1) order by c.relname collate "C"`,
    [NOT_DUMPED],
  )
  return rows.map((r) => r.name)
}

/** The columns that a table is sorted by: its primary key, texts by their bytes so that every database sorts them alike. */
async function orderOf(db: Queryable, table: string): Promise<string> {
  const keys = await db.query<{ name: string; type: string }>(
    `select a.attname::text as name, format_type(a.atttypid, a.atttypmod) as type
     from pg_index i, unnest(i.indkey) with ordinality as k(number, at) join pg_attribute a on a.attnum = k.number
     where i.indrelid = $1::regclass and a.attrelid = i.indrelid and i.indisprimary order by k.at`,
    [`"${table}"`],
  )
  if (!keys.length) throw new Error(`the table ${table} has no primary key`)
  return keys.map((k) => `t."${k.name}"${k.type === 'text' ? ' collate "C"' : ''}`).join(', ')
}

/** The rows of a table as JSON, in the order of its primary key. Inside a transaction: the rows are those of its moment. */
export async function* rowsOf(tx: Transaction, table: string): AsyncGenerator<string[]> {
  const order = await orderOf(tx, table)
  const cursor = `copy_${table}`
  await tx.script(
    `declare "${cursor}" no scroll cursor for select row_to_json(t)::text as line from "${table}" t order by ${order}`,
  )
  for (;;) {
    const rows = await tx.query<{ line: string }>(`fetch ${AT_A_TIME} from "${cursor}"`)
    if (rows.length) yield rows.map((r) => r.line)
    if (rows.length < AT_A_TIME) break
  }
  await tx.script(`close "${cursor}"`)
}

/** Adds the lines of a table up, as they pass. */
export class TableCount {
  #hash = createHash('sha256')
  #rows = 0
  #bytes = 0

  /** @param text whole lines, each with its end */
  add(text: string, rows: number): void {
    this.#hash.update(text)
    this.#rows += rows
    this.#bytes += Buffer.byteLength(text)
  }

  sum(): TableSum {
    return { rows: this.#rows, bytes: this.#bytes, sha256: this.#hash.digest('hex') }
  }
}

/** The same sum of a table that stands in a database. */
export async function sumOf(tx: Transaction, table: string): Promise<TableSum> {
  const count = new TableCount()
  for await (const lines of rowsOf(tx, table)) count.add(`${lines.join('\n')}\n`, lines.length)
  return count.sum()
}

/** Where the numbers stand that the database gives out; those that were never asked are left out. */
export async function sequencesOf(db: Queryable): Promise<Record<string, number>> {
  const rows = await db.query<{ name: string; last: number }>(
    `select sequencename::text as name, last_value::float8 as last from pg_sequences
     where schemaname = current_schema() and last_value is not null order by 1`,
  )
  return Object.fromEntries(rows.map((r) => [r.name, r.last]))
}
