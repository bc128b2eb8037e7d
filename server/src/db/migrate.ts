import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Database } from './database.ts'

export interface Migration {
  number: number
  name: string
  sql: string
}

/** Reads `0001_name.sql`, `0002_…` in order. @throws when a number is missing or used twice */
export function readMigrations(folder: string): Migration[] {
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

/**
 * Brings the schema up to date, each migration in a transaction of its own with its version row first.
 * @throws when the database was written by a newer Moray
 */
export async function migrate(db: Database, migrations: Migration[], now: Date): Promise<number> {
  await db.script(
    'create table if not exists schema_version (number integer primary key, name text not null, at timestamptz not null)',
  )
  const [row] = await db.query<{ newest: number | null }>('select max(number) as newest from schema_version')
  const newest = row?.newest ?? 0
  if (newest > migrations.length)
    throw new Error(
      `the data folder was written by a newer Moray (schema ${newest}, this one knows ${migrations.length}); start the newer one`,
    )
  for (const m of migrations.slice(newest))
    await db.transaction(async (tx) => {
      await tx.query('insert into schema_version (number, name, at) values ($1, $2, $3)', [
        m.number,
        m.name,
        now,
      ])
      await tx.script(m.sql)
    })
  return migrations.length - newest
}
