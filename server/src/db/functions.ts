import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Queryable, Transaction } from './database.ts'

/** A function of the database, as its file has it. */
export interface DbFunction {
  name: string
  sql: string
}

/** Reads `name.sql`, each of which makes the function of that name. @throws when one makes another */
export function readFunctions(folder: string): DbFunction[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .sort()
    .map((f) => {
      const name = f.slice(0, -'.sql'.length)
      const sql = readFileSync(join(folder, f), 'utf8')
      if (!sql.includes(`create or replace function ${name}(`))
        throw new Error(`${f} does not make the function ${name}`)
      return { name, sql }
    })
}

/** What stands between the dollar signs, as the database keeps it. */
export const bodyOf = ({ sql }: DbFunction): string | undefined => /\$\$([\s\S]*?)\$\$/.exec(sql)?.[1]

const hashOf = (sql: string) => createHash('sha256').update(sql).digest('hex')

/**
 * Makes the functions whose text has changed since they were last made. An older Moray on the same tables would put its own back: where the reply of a
 * function changes, a migration belongs beside it, so that the older one no longer starts.
 * @returns how many were made
 */
export async function applyFunctions(
  tx: Transaction,
  functions: readonly DbFunction[],
  now: Date,
): Promise<number> {
  await tx.script(
    'create table if not exists schema_function (name text primary key, hash text not null, at timestamptz not null)',
  )
  const changed = await changedOf(tx, functions)
  for (const f of changed) {
    await tx.script(f.sql)
    await tx.query(
      `insert into schema_function (name, hash, at) values ($1, $2, $3)
       on conflict (name) do update set hash = excluded.hash, at = excluded.at`,
      [f.name, hashOf(f.sql), now],
    )
  }
  return changed.length
}

async function changedOf(db: Queryable, functions: readonly DbFunction[]): Promise<DbFunction[]> {
  const made = await db.query<{ name: string; hash: string }>('select name, hash from schema_function')
  const hashes = new Map(made.map((f) => [f.name, f.hash]))
  return functions.filter((f) => hashes.get(f.name) !== hashOf(f.sql))
}
