/** Runs one statement with `$1`-style parameters and returns its rows. */
export interface Queryable {
  query<Row = Record<string, unknown>>(sql: string, params?: unknown[]): Promise<Row[]>
}

/**
 * All that the server asks of a database. Embedded PGlite stands behind it now; a PostgreSQL server can later.
 * Inside `transaction` use the handle that is passed in: the outer one would wait for itself.
 */
export interface Database extends Queryable {
  /** Runs several statements without parameters. */
  script(sql: string): Promise<void>
  /** All or nothing; an error thrown by `work` rolls back and is passed on. */
  transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T>
  close(): Promise<void>
}

export interface Transaction extends Queryable {
  script(sql: string): Promise<void>
}
