import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Database, Queryable, Transaction } from './database.ts'
import { applyFunctions, readFunctions, type DbFunction } from './functions.ts'

export interface Migration {
  number: number
  name: string
  sql: string
}

/** All that makes the database what this Moray works with. */
export interface Schema {
  migrations: Migration[]
  functions: DbFunction[]
  /** Version of this Moray: written beside each migration, so that an older one can say which it would take. */
  moray: string
}

/** @param server folder of the server */
export const readSchema = (server: string): Schema => ({
  migrations: readMigrations(join(server, 'migrations')),
  functions: readFunctions(join(server, 'src/db/functions')),
  moray: (JSON.parse(readFileSync(join(server, '../package.json'), 'utf8')) as { version: string }).version,
})

/** Reads `0001_name.sql`, `0002_…` in order. @throws when a number is missing or used twice */
function readMigrations(folder: string): Migration[] {
  const found = readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .sort()
    .map((f) => ({ number: Number(f.slice(0, 4)), name: f, sql: readFileSync(join(folder, f), 'utf8') }))
  found.forEach((m, i) => {
    if (m.number !== i + 1)
      throw new Error(`migration ${m.name} should have number ${String(i + 1).padStart(4, '0')}`)
  })
  return found
}

/** The tables are those of a newer Moray. */
export class NewerShopError extends Error {}

/** Held while the schema is brought up to date: of several servers that start at once, one does it. */
const MIGRATION_LOCK = 4_747_001

/**
 * Brings the schema up to date, in one transaction: each migration with its version row first, then the functions that have changed.
 * @returns how many migrations were new
 * @throws when the database was written by a newer Moray, or by another one: a migration that was applied has another name
 */
export const migrate = (db: Database, schema: Schema, now: Date): Promise<number> =>
  db.transaction((tx) => migrateIn(tx, schema, now))

/** The same, within a transaction that does more. */
export async function migrateIn(
  tx: Transaction,
  { migrations, functions, moray }: Schema,
  now: Date,
): Promise<number> {
  await tx.query('select pg_advisory_xact_lock($1)', [MIGRATION_LOCK])
  await tx.script(
    'create table if not exists schema_version (number integer primary key, name text not null, at timestamptz not null)',
  )
  const applied = await appliedOf(tx, migrations)
  for (const m of migrations.slice(applied)) {
    await tx.query('insert into schema_version (number, name, at) values ($1, $2, $3)', [
      m.number,
      m.name,
      now,
    ])
    await tx.script(m.sql)
  }
  await nameVersion(tx, moray)
  await applyFunctions(tx, functions, now)
  return migrations.length - applied
}

/** Writes down with which version the newest migration came; what an older Moray has applied stays without one. */
async function nameVersion(tx: Transaction, moray: string) {
  const [last] = await tx.query<{ named: boolean; known: boolean }>(
    `select v.row ? 'moray' as known, v.row ->> 'moray' is not null as named
     from (select to_jsonb(s) as row from schema_version s order by number desc limit 1) v`,
  )
  if (last?.known && !last.named)
    await tx.query(
      'update schema_version set moray = $1 where number = (select max(number) from schema_version)',
      [moray],
    )
}

/** How many migrations the schema has, checked against those that this Moray knows. @throws when it is newer, or another one's */
async function appliedOf(db: Queryable, migrations: Migration[]): Promise<number> {
  const applied = await db.query<{ number: number; name: string; moray: string | null }>(
    "select number, name, to_jsonb(s) ->> 'moray' as moray from schema_version s order by number",
  )
  if (applied.length > migrations.length) {
    const needed = applied.at(-1)!.moray
    throw new NewerShopError(
      `The shop was written by a newer Moray (schema ${applied.length}, this one knows ${migrations.length}); ${needed ? `start version ${needed} or a newer one on it` : 'start the newer one'}`,
    )
  }
  for (const [i, a] of applied.entries())
    if (a.name !== migrations[i]!.name)
      throw new Error(
        `the database holds migration ${a.name} where this Moray has ${migrations[i]!.name}; it belongs to something else`,
      )
  return applied.length
}

/** How far the schema is, and how many migrations it lacks; nothing is changed. @throws as {@link migrate} */
export async function pendingMigrations(
  db: Queryable,
  { migrations }: Pick<Schema, 'migrations'>,
): Promise<{ applied: number; pending: number }> {
  const [table] = await db.query<{ there: boolean }>(
    "select to_regclass('schema_version') is not null as there",
  )
  const applied = table!.there ? await appliedOf(db, migrations) : 0
  return { applied, pending: migrations.length - applied }
}
