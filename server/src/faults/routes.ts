import { SayFinding, SayOutcome } from '@moray/contract/requests/route'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { onJob } from '../jobs/on-job.ts'
import { sayFinding, sayOutcome } from './faults.ts'

export function mountFaults(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/findings', async (c) => {
    const body = await readBody(c, SayFinding)
    return write(c, 'finding', (at) => sayFinding(at, body))
  })
  app.post('/api/jobs/:id/outcome', async (c) => {
    const body = await readBody(c, SayOutcome)
    return write(c, 'finding', (at) => sayOutcome(at, body))
  })
}
