import { ChangeTrayPart, LayOnTray, OrderTray } from '@moray/contract/requests/route'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { notFound } from '../http/refusal.ts'
import { onJob } from '../jobs/on-job.ts'
import { changeTrayPart, layOnTray, orderTray } from './tray.ts'

export function mountTray(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/tray', async (c) => {
    const body = await readBody(c, LayOnTray)
    return write(c, 'tray', (at) => layOnTray(at, body))
  })
  app.post('/api/jobs/:id/tray/order', async (c) => {
    const body = await readBody(c, OrderTray)
    return write(c, 'tray', (at) => orderTray(at, body))
  })
  app.post('/api/jobs/:id/tray/:part', async (c) => {
    const body = await readBody(c, ChangeTrayPart)
    const id = Number(c.req.param('part'))
    if (!Number.isSafeInteger(id)) throw notFound('Part in the row', c.req.param('part'))
    return write(c, 'tray', (at) => changeTrayPart(at, id, body))
  })
}
