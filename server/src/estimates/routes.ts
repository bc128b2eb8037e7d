import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onJob } from '../job/on-job.ts'
import { makeEstimate, recordApproval } from './estimates.ts'

export function mountEstimates(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.makeEstimate, makeEstimate)
  onJob(app, deps, endpoints.recordApproval, recordApproval)
}
