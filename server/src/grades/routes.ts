import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onJob } from '../job/on-job.ts'
import { gradePart } from './grades.ts'

export function mountGrades(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.gradePart, gradePart)
}
