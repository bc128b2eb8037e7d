import { MakeEstimate, RecordApproval } from '@moray/contract/requests/route'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { onJob } from '../jobs/on-job.ts'
import { makeEstimate, recordApproval } from './estimates.ts'

export function mountEstimates(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/estimates', async (c) => {
    const body = await readBody(c, MakeEstimate)
    return write(c, 'estimate', (at) => makeEstimate(at, body))
  })
  app.post('/api/jobs/:id/approvals', async (c) => {
    const body = await readBody(c, RecordApproval)
    return write(c, 'approval', (at) => recordApproval(at, body))
  })
}
