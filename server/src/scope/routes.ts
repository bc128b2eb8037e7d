import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { rowId } from '../http/endpoint.ts'
import { onJob } from '../job/on-job.ts'
import { addOpenItem, closeOpenItem, openLoop, setScope } from './scope.ts'

export function mountScope(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.setScope, setScope)
  onJob(app, deps, endpoints.addOpenItem, addOpenItem)
  onJob(app, deps, endpoints.closeOpenItem, (at, body, { item }) =>
    closeOpenItem(at, body, rowId('Open item', item)),
  )
  onJob(app, deps, endpoints.openLoop, openLoop, { whenOver: 'anew' })
}
