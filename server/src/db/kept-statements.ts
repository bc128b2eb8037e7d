/**
 * So many statements stay planned, in the embedded database and on every connection to a PostgreSQL server; ours are fewer than half as many. What is
 * put together anew each time comes after them.
 */
export const STATEMENTS_KEPT = 300
