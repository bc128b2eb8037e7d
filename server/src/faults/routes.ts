import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead } from '../http/endpoint.ts'
import { onJob } from '../job/on-job.ts'
import { faultHistory, sayFinding, sayOutcome } from './faults.ts'

export function mountFaults(app: Hono, deps: Deps) {
  onRead(app, endpoints.faultHistory, (_, { id }) => faultHistory(deps.db, id))
  onJob(app, deps, endpoints.sayFinding, sayFinding)
  onJob(app, deps, endpoints.sayOutcome, sayOutcome)
}
