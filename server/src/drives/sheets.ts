import { asSheet } from '@moray/core/drives/old-sheets'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Queryable, Transaction } from '../db/database.ts'

/** The newest version of every sheet. */
export async function newestSheets(db: Queryable): Promise<DriveSheet[]> {
  const rows = await db.query<{ body: DriveSheet }>(
    'select distinct on (id) body from drive_sheet order by id, version desc',
  )
  return rows.map((r) => asSheet(r.body))
}

/** Stores sheets in versions that are not there yet; jobs keep the version they were opened with. */
export async function addSheets(tx: Transaction, sheets: readonly DriveSheet[]): Promise<void> {
  for (const s of sheets)
    await tx.query(
      'insert into drive_sheet (id, version, body) values ($1, $2, $3::jsonb) on conflict (id, version) do nothing',
      [s.id, s.version, JSON.stringify(s)],
    )
}
