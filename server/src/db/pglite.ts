import { PGlite, type PGliteInterface, type Transaction as PGliteTransaction } from '@electric-sql/pglite'
import type { Database, Transaction } from './database.ts'

function wrap(handle: PGliteTransaction | PGliteInterface): Transaction {
  return {
    async query<Row>(sql: string, params: unknown[] = []) {
      return (await handle.query<Row>(sql, params)).rows
    },
    async script(sql) {
      await handle.exec(sql)
    },
  }
}

/** An open PGlite as the server's Database. */
export function wrapPglite(pg: PGlite): Database {
  return {
    ...wrap(pg),
    transaction: (work) => pg.transaction((tx) => work(wrap(tx))) as ReturnType<typeof work>,
    close: () => pg.close(),
  }
}

/**
 * Opens the embedded database.
 * @param folder where it lives; left out, it lives in memory (tests)
 * @param from a dump of a data folder to begin with
 */
export async function openPglite(folder?: string, from?: Blob): Promise<Database> {
  return wrapPglite(await PGlite.create(folder ?? 'memory://', from ? { loadDataDir: from } : {}))
}
