/**
 * Most statements that stay prepared, in the embedded database and on each connection to a PostgreSQL server. Ours are fewer than half as many; those
 * that are put together anew each time are not prepared once it is full.
 */
export const STATEMENTS_KEPT = 300

/** Runs one statement with `$1`-style parameters and returns its rows. int8 comes as a number, json parsed, timestamptz as a Date. */
export interface Queryable {
  query<Row = Record<string, unknown>>(sql: string, params?: unknown[]): Promise<Row[]>
}

/**
 * All that the server asks of a database. Two drivers stand behind it: embedded PGlite (pglite.ts, in a thread of its own: pglite-thread.ts)
 * and a PostgreSQL server (postgres.ts). Inside `transaction` use the handle that is passed in: the outer one would wait for itself.
 */
export interface Database extends Queryable {
  /** Runs several statements without parameters. */
  script(sql: string): Promise<void>
  /** All or nothing; an error thrown by `work` rolls back and is passed on. */
  transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T>
  /**
   * Calls back for every notification of the shop's channel, from whichever server it was committed.
   * `lost` is called when notifications may have been missed: the line to the server was down.
   * @returns ends the subscription
   */
  listen(told: (payload: string) => void, lost: () => void): Promise<() => Promise<void>>
  close(): Promise<void>
}

export interface Transaction extends Queryable {
  script(sql: string): Promise<void>
}
