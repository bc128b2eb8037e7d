import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { listGauges } from './gauges.ts'

export function mountGauges(app: Hono, { db, now }: Deps) {
  app.get(routes.gauges, async (c) => c.json(await listGauges(db, now())))
}
