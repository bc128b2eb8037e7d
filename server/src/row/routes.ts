import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { rowId } from '../http/endpoint.ts'
import { onJob } from '../job/on-job.ts'
import { changeRowPart, layInRow, orderRow } from './row.ts'

export function mountRow(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.layInRow, layInRow)
  onJob(app, deps, endpoints.orderRow, orderRow)
  onJob(app, deps, endpoints.changeRowPart, (at, body, { part }) =>
    changeRowPart(at, body, rowId('Part in the row', part)),
  )
}
