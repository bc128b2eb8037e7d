import { checkSheet } from '@moray/core/drives/check-sheet'
import { asSheet } from '@moray/core/drives/old-sheets'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { checkRoute } from '@moray/core/route/check-route'
import { OUTSIDE_FACTS } from '@moray/core/route/job-facts'
import { routeOf } from '@moray/core/route/route-of'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/** The newest version of every sheet. */
export async function newestSheets(db: Queryable): Promise<DriveSheet[]> {
  const rows = await db.query<{ body: DriveSheet }>(
    'select distinct on (id) body from drive_sheet order by id, version desc',
  )
  return rows.map((r) => asSheet(r.body))
}

export async function newestSheet(db: Queryable, id: string): Promise<DriveSheet> {
  const [row] = await db.query<{ body: DriveSheet }>(
    'select body from drive_sheet where id = $1 order by version desc limit 1',
    [id],
  )
  if (!row) throw notFound('Drive sheet', id)
  return asSheet(row.body)
}

/**
 * Sheets by version, kept in memory once they are read: a version never changes, and the route that core builds from one is
 * remembered with the very object.
 */
export class SheetShelf {
  private kept = new Map<string, DriveSheet>()

  async get(db: Queryable, id: string, version: number): Promise<DriveSheet> {
    const key = `${id} ${version}`
    const before = this.kept.get(key)
    if (before) return before
    const [row] = await db.query<{ body: DriveSheet }>(
      'select body from drive_sheet where id = $1 and version = $2',
      [id, version],
    )
    if (!row) throw notFound('Drive sheet', `${id}, version ${version},`)
    const sheet = asSheet(row.body)
    this.kept.set(key, sheet)
    return sheet
  }
}

/**
 * Stores sheets in versions that are not there yet; jobs keep the version they were opened with.
 * @throws InputError naming the place when a sheet, or the route that follows from it, does not hang together
 */
export async function addSheets(tx: Transaction, sheets: readonly DriveSheet[]): Promise<void> {
  for (const s of sheets) {
    checkSheet(s)
    checkRoute(routeOf(s), OUTSIDE_FACTS)
    await tx.query(
      'insert into drive_sheet (id, version, body) values ($1, $2, $3::jsonb) on conflict (id, version) do nothing',
      [s.id, s.version, JSON.stringify(s)],
    )
  }
}
