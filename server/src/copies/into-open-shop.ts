import type { AnchorKeeper } from '../data/keep-anchor.ts'
import type { Database } from '../db/database.ts'
import type { Schema } from '../db/migrate.ts'
import type { SheetShelf } from '../drives/sheets.ts'
import type { FileStore } from '../files/file-store.ts'
import { tellNewEpoch } from '../live/live.ts'
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
export async function isEmptyShop(db: Pick<Database, 'query'>): Promise<boolean> {
  const [row] = await db.query<{ empty: boolean }>(
    'select not exists (select 1 from person) and not exists (select 1 from job) as empty',
  )
  return row!.empty
}

/**
 * Brings a copy back into the shop that this server has open, and that nobody has begun with: one transaction, then every page is loaded anew.
 * @throws CopyError when the shop is not empty, or the copy is not whole
 */
export async function bringBackHere(file: string, shop: OpenShop): Promise<void> {
  const copy = await openCopy(file)
  try {
    if (!(await isEmptyShop(shop.db)))
      throw new CopyError(
        'This shop is not empty any more. Nothing was changed; a copy comes back into an empty shop only.',
      )
    const { manifest } = copy
    await loadCopy(shop.db, shop.files, copy, shop.schema, new Date(), {
      proving: false,
      // written down before it is so: a server that is killed in between knows at its next start that this history is the right one
      before: (epoch) =>
        shop.anchor.awaits({
          epoch,
          shop: manifest.shop,
          anchor: manifest.anchor,
          breaks: manifest.breaks,
          copyOf: manifest.at,
        }),
    })
    await shop.anchor.write()
    shop.sheets.clear()
    await tellNewEpoch(shop.db)
  } finally {
    copy.close()
  }
}
