import type { Database, Transaction } from './database.ts'

/** Reads several things as they stand at the same moment. */
export const atOneMoment = <T>(db: Database, work: (tx: Transaction) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await tx.script('set transaction isolation level repeatable read, read only')
    return work(tx)
  })
