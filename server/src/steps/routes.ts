import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead, onWrite, rowId } from '../http/endpoint.ts'
import { draftOnJob, onJob, readJudged } from '../job/on-job.ts'
import { agreeToDeparture } from './agree.ts'
import { listClosings } from './closings.ts'
import { closeStep, correctAnswers } from './close-step.ts'
import { keepDraft } from './draft.ts'
import { routeChanges, seeRoute } from './route-seen.ts'
import { takeBack } from './take-back.ts'
import { acceptLine, undoStep } from './told.ts'

export function mountSteps(app: Hono, deps: Deps) {
  onJob(app, deps, endpoints.closeStep, closeStep)
  onJob(app, deps, endpoints.takeBack, (at, body, { closing }) =>
    takeBack(at, body, rowId('Closed step', closing)),
  )
  onJob(
    app,
    deps,
    endpoints.correctStep,
    (at, body, { closing }) => correctAnswers(at, body, rowId('Closed step', closing)),
    { whenOver: 'as-it-stands' },
  )
  onJob(app, deps, endpoints.undoStep, (at, body, { closing }) =>
    undoStep(at, body, rowId('Closed step', closing)),
  )
  onJob(app, deps, endpoints.acceptLine, acceptLine)
  onJob(app, deps, endpoints.agree, agreeToDeparture)
  onJob(app, deps, endpoints.seeRoute, seeRoute)
  onWrite(app, endpoints.keepDraft, async (c, { id }, body) => {
    await draftOnJob(c, deps, id, body.text, (tx, who) => keepDraft(tx, deps, id, body.checked, who))
    return undefined
  })
  onRead(app, endpoints.closings, (_, { id }) => listClosings(deps.db, id))
  onRead(app, endpoints.routeChanges, async (_, { id }) => {
    return routeChanges(deps.db, await readJudged(deps.db, deps, id, deps.now()))
  })
}
