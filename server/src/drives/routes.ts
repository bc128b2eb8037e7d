import type { DriveSheet } from '@moray/core/drives/sheet'
import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import type { Queryable } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

export async function newestSheets(db: Queryable): Promise<DriveSheet[]> {
  const rows = await db.query<{ body: DriveSheet }>(
    'select distinct on (id) body from drive_sheet order by id, version desc',
  )
  return rows.map((r) => r.body)
}

export function mountDrives(app: Hono, { db }: Deps) {
  app.get(routes.drives, async (c) => c.json(await newestSheets(db)))
  app.get('/api/drives/:id', async (c) => {
    const id = c.req.param('id')
    const sheet = (await newestSheets(db)).find((s) => s.id === id)
    if (!sheet) throw notFound('Drive sheet', id)
    return c.json(sheet)
  })
}
