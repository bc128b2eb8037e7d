import type { Database, Queryable, Transaction } from '../db/database.ts'
import { migrateIn, type Schema } from '../db/migrate.ts'
import { codeOf } from '../db/sqlstate.ts'
import type { FileStore } from '../files/file-store.ts'
import { newEpoch } from '../shop/epoch.ts'
import { tablesOf } from './dump.ts'
import { CopyError, type Manifest } from './manifest.ts'
import type { OpenCopy } from './read-copy.ts'

export interface LoadOptions {
  /** Only to see whether it can be read: everything stays as it lies in the copy, its tables and the name of its history too. */
  proving: boolean
  /** Done first, in the same transaction. */
  first?: (tx: Transaction) => Promise<void>
  /** Told the name of the new history before anything is settled. */
  before?: (epoch: string) => void
}

/**
 * Brings a copy into a database, in one transaction: afterwards it is there whole, or nothing has happened. What the database held goes. The tables are
 * made as they were when the copy was written, its rows come in, and then they are brought up to date as an upgrade would.
 * @param files where the pictures go; those that came before something went wrong stay there, and harm nobody
 * @returns name of the history that begins: another one than that of the shop that was copied, so that every open page is loaded anew
 * @throws CopyError naming what is wrong with the copy, or which version it needs
 */
export async function loadCopy(
  db: Database,
  files: FileStore,
  copy: OpenCopy,
  schema: Schema,
  now: Date,
  { proving, first, before }: LoadOptions,
): Promise<string> {
  const { manifest } = copy
  mustBeKnown(manifest, schema)
  return db.transaction(async (tx) => {
    await first?.(tx)
    await dropAll(tx)
    await migrateIn(
      tx,
      { migrations: schema.migrations.slice(0, manifest.schema), functions: [], moray: manifest.moray },
      now,
    )
    const putBack = await withoutGuards(tx)
    for (const table of await tablesFor(tx, manifest)) await loadRows(tx, table, copy)
    for (const hash of copy.pictures) await files.put(tx, await copy.picture(hash))
    await goOnWithNumbers(tx, manifest)
    const epoch = newEpoch(await isDemo(tx))
    if (!proving)
      await tx.query(
        `insert into setting (key, value) values ('epoch', to_jsonb($1::text)) on conflict (key) do update set value = excluded.value`,
        [epoch],
      )
    await putBack()
    if (!proving) await migrateIn(tx, schema, now)
    before?.(epoch)
    return epoch
  })
}

function mustBeKnown({ schema, moray }: Manifest, { migrations }: Schema) {
  if (schema > migrations.length)
    throw new CopyError(
      `it was written by Moray ${moray}, which keeps more than this one; bring it back with version ${moray} or a newer one`,
    )
}

/** Takes every table and function of the shop away; those of an extension of PostgreSQL stay. */
async function dropAll(tx: Transaction) {
  const things = await tx.query<{ drop: string }>(
    `select format('drop table if exists %I cascade', relname) as drop from pg_class
       where relkind = 'r' and relnamespace = current_schema()::regnamespace
     union all
     select format('drop function if exists %I(%s) cascade', proname, pg_get_function_identity_arguments(oid)) from pg_proc
       where pronamespace = current_schema()::regnamespace
         and not exists (select 1 from pg_depend d where d.objid = pg_proc.oid and d.deptype = 'e')`,
  )
  // a function over the rows of a table goes with the table, and is not found by its arguments after that: functions first
  const ordered = things.map((t) => t.drop).sort((a, b) => a.localeCompare(b))
  if (ordered.length) await tx.script(ordered.join('; '))
}

/**
 * Takes triggers and foreign keys away while rows come in, which are as they were when they were guarded, and empties the tables of what migrations write
 * into new ones.
 * @returns puts them back: every foreign key is then looked at, row by row
 */
async function withoutGuards(tx: Transaction): Promise<() => Promise<void>> {
  const tables = await tx.query<{ name: string }>(
    `select relname::text as name from pg_class where relkind = 'r' and relnamespace = current_schema()::regnamespace`,
  )
  const names = tables.map((t) => `"${t.name}"`)
  const keys = await tx.query<{ table: string; name: string; definition: string }>(
    `select c.relname::text as table, k.conname::text as name, pg_get_constraintdef(k.oid) as definition from pg_constraint k join pg_class c on c.oid = k.conrelid
     where k.contype = 'f' and k.connamespace = current_schema()::regnamespace order by 1, 2`,
  )
  await tx.script(
    [
      ...names.map((t) => `alter table ${t} disable trigger user`),
      ...keys.map((k) => `alter table "${k.table}" drop constraint "${k.name}"`),
      `truncate ${names.join(', ')}`,
    ].join('; '),
  )
  return () =>
    tx.script(
      [
        ...keys.map((k) => `alter table "${k.table}" add constraint "${k.name}" ${k.definition}`),
        ...names.map((t) => `alter table ${t} enable trigger user`),
      ].join('; '),
    )
}

/** The tables that the copy holds, all of which the schema that it names has. */
async function tablesFor(tx: Queryable, manifest: Manifest): Promise<string[]> {
  const there = await tablesOf(tx)
  const held = Object.keys(manifest.tables)
  const strange = held.find((t) => !there.includes(t))
  if (strange) throw new CopyError(`tables/${strange}.jsonl: Moray ${manifest.moray} had no such table`)
  const missing = there.find((t) => !held.includes(t))
  if (missing) throw new CopyError(`tables/${missing}.jsonl is missing`)
  return held
}

async function loadRows(tx: Transaction, table: string, copy: OpenCopy) {
  const columns = await tx.query<{ name: string }>(
    `select attname::text as name from pg_attribute where attrelid = $1::regclass and attnum > 0 and not attisdropped and attgenerated = ''`,
    [`"${table}"`],
  )
  const list = columns.map((c) => `"${c.name}"`).join(', ')
  const insert = `insert into "${table}" (${list}) overriding system value select ${list} from json_populate_recordset(null::"${table}", $1::json)`
  for await (const lines of copy.rows(table))
    await tx.query(insert, [`[${lines.join(',')}]`]).catch((e: unknown) => {
      // a value of a wrong kind, or one that its column does not take
      if (/^(22|23)/.test(codeOf(e)))
        throw new CopyError(
          `tables/${table}.jsonl was altered: it does not hold rows of Moray (${(e as Error).message})`,
        )
      throw e
    })
}

/** Numbers that the database gives out go on behind those that were given out, also behind those of rows that are gone. */
async function goOnWithNumbers(tx: Transaction, { sequences }: Manifest) {
  const columns = await tx.query<{ table: string; column: string; sequence: string }>(
    `select c.relname::text as table, a.attname::text as column, s.relname::text as sequence
     from pg_attribute a join pg_class c on c.oid = a.attrelid
       join pg_class s on s.oid = pg_get_serial_sequence(quote_ident(c.relname), a.attname)::regclass
     where a.attidentity <> '' and c.relkind = 'r' and c.relnamespace = current_schema()::regnamespace`,
  )
  for (const { table, column, sequence } of columns)
    await tx.query(
      `select setval($1, x.last) from (select greatest(max("${column}"), $2::bigint) as last from "${table}") x where x.last > 0`,
      [`"${sequence}"`, sequences[sequence] ?? 0],
    )
}

async function isDemo(tx: Queryable): Promise<boolean> {
  const [row] = await tx.query<{ demo: boolean }>(
    "select exists (select 1 from setting where key = 'demo' and value = 'true'::jsonb) as demo",
  )
  return row!.demo
}
