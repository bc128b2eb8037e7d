import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead } from '../http/endpoint.ts'
import { searchOf } from '../http/search-of.ts'
import { jobsOfUnit, unitsBefore } from './past-jobs.ts'

export function mountUnits(app: Hono, { db }: Deps) {
  onRead(app, endpoints.unitJobs, (c, { sheet }) => jobsOfUnit(db, sheet, searchOf(c, 'serial')))
  onRead(app, endpoints.unitsBefore, (_, { id }) => unitsBefore(db, id))
}
