import type { AnchorKeeper } from '../data/keep-anchor.ts'
import type { Database, Queryable, Transaction } from '../db/database.ts'
import type { Schema } from '../db/migrate.ts'
import type { SheetShelf } from '../drives/sheets.ts'
import type { FileStore } from '../files/file-store.ts'
import { tellNewEpoch } from '../live/live.ts'
import { restoredMark } from './bring-back.ts'
import { loadCopy } from './load.ts'
import { CopyError } from './manifest.ts'
import { openCopy } from './read-copy.ts'

export interface OpenShop {
  db: Database
  files: FileStore
  sheets: SheetShelf
  schema: Schema
  /** Knows what the folder says of the shop. */
  anchor: AnchorKeeper
}

/** Whether nobody has begun with this shop. */
export async function isEmptyShop(db: Queryable): Promise<boolean> {
  const [row] = await db.query<{ empty: boolean }>(
    'select not exists (select 1 from person) and not exists (select 1 from job) as empty',
  )
  return row!.empty
}

/** Holds the shop until the end of the transaction, so that nobody begins with it meanwhile. @throws CopyError when somebody has */
async function holdEmptyShop(tx: Transaction) {
  await tx.query('lock table person, job in access exclusive mode')
  if (!(await isEmptyShop(tx)))
    throw new CopyError(
      'This shop is not empty any more. Nothing was changed; a copy comes back into an empty shop only.',
    )
}

/**
 * Brings a copy back into the shop that this server has open, and that nobody has begun with: one transaction, then every page is loaded anew.
 * @throws CopyError when the shop is not empty, or the copy is not whole
 */
export async function bringBackHere(
  file: string,
  { db, files, sheets, schema, anchor }: OpenShop,
): Promise<void> {
  const copy = await openCopy(file)
  const now = new Date()
  try {
    await loadCopy(db, files, copy, schema, now, {
      proving: false,
      first: holdEmptyShop,
      // written down before it is so: a server that is killed in between knows at its next start that this history is the right one
      before: (epoch) => anchor.awaits(restoredMark(copy.manifest, epoch, schema, now)),
    })
    await anchor.write()
    sheets.clear()
    await tellNewEpoch(db)
  } finally {
    copy.close()
  }
}
