import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead } from '../http/endpoint.ts'
import { listGauges } from './gauges.ts'

export function mountGauges(app: Hono, { db, now }: Deps) {
  onRead(app, endpoints.gauges, () => listGauges(db, now()))
}
