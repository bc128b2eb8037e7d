import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { notFound } from '../http/refusal.ts'
import { newestSheets } from './sheets.ts'

export function mountDrives(app: Hono, { db }: Deps) {
  app.get(routes.drives, async (c) => c.json(await newestSheets(db)))
  app.get('/api/drives/:id', async (c) => {
    const id = c.req.param('id')
    const sheet = (await newestSheets(db)).find((s) => s.id === id)
    if (!sheet) throw notFound('Drive sheet', id)
    return c.json(sheet)
  })
}
