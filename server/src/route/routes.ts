import { CloseStep, KeepDraft, TakeBack } from '@moray/contract/requests/route'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { notFound } from '../http/refusal.ts'
import { onJob } from '../jobs/on-job.ts'
import { closeStep, keepDraft, takeBack } from './steps.ts'

export function mountRoute(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/steps', async (c) => {
    const body = await readBody(c, CloseStep)
    return write(c, 'step', (at) => closeStep(at, body))
  })
  app.post('/api/jobs/:id/draft', async (c) => {
    const body = await readBody(c, KeepDraft)
    return write(c, 'draft', (at) => keepDraft(at, body))
  })
  app.post('/api/jobs/:id/steps/:done/take-back', async (c) => {
    const body = await readBody(c, TakeBack)
    const id = Number(c.req.param('done'))
    if (!Number.isSafeInteger(id)) throw notFound('Closed step', c.req.param('done'))
    return write(c, 'step', (at) => takeBack(at, id, body.reason))
  })
}
