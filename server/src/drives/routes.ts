import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead, paramsOf, rowId } from '../http/endpoint.ts'
import { newestSheet, newestSheets } from './sheets.ts'

export function mountDrives(app: Hono, { db, sheets }: Deps) {
  onRead(app, endpoints.drives, () => newestSheets(db))
  onRead(app, endpoints.drive, (_, { id }) => newestSheet(db, id))
  app.get(endpoints.driveVersion.path, async (c) => {
    const { id, version } = paramsOf(c, endpoints.driveVersion)
    const sheet = await sheets.get(db, id, rowId('Version', version))
    return c.json(sheet, 200, { 'cache-control': 'private, max-age=31536000, immutable' })
  })
}
