import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead, rowId } from '../http/endpoint.ts'
import { onJob } from '../job/on-job.ts'
import { acceptBuild, withdrawAcceptance } from './accept-build.ts'
import { enterStack } from './enter-stack.ts'
import { lastBuilt } from './last-built.ts'
import { referencePatterns } from './reference-patterns.ts'
import { markPattern } from './mark-pattern.ts'
import { takePlan } from './take-plan.ts'
import { supersedeReading, takeReading } from './take-reading.ts'

export function mountSetting(app: Hono, deps: Deps) {
  onRead(app, endpoints.referencePatterns, (_, { id }) => referencePatterns(deps.db, id))
  onRead(app, endpoints.lastBuilt, (_, { id }) => lastBuilt(deps.db, id))
  onJob(app, deps, endpoints.enterStack, enterStack)
  onJob(app, deps, endpoints.takeReading, takeReading)
  onJob(app, deps, endpoints.supersedeReading, (at, body, { reading }) =>
    supersedeReading(at, body, rowId('Reading', reading)),
  )
  onJob(app, deps, endpoints.takePlan, takePlan)
  onJob(app, deps, endpoints.markPattern, markPattern)
  onJob(app, deps, endpoints.acceptBuild, acceptBuild)
  onJob(app, deps, endpoints.withdrawAcceptance, withdrawAcceptance)
}
