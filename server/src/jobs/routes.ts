import { ChangeLife, OpenJob } from '@moray/contract/requests/route'
import {
  AcceptBuild,
  EnterStack,
  SupersedeReading,
  TakePlan,
  TakeReading,
} from '@moray/contract/requests/setting'
import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { notFound } from '../http/refusal.ts'
import { write as writeAll } from '../http/write.ts'
import { acceptBuild } from './accept-build.ts'
import { detailOf, jobDetail, loadJob } from './detail.ts'
import { enterStack } from './enter-stack.ts'
import { changeLife, knownUnits, openJob } from './life.ts'
import { onJob } from './on-job.ts'
import { keepProgress } from './progress.ts'
import { listJobs } from './rows.ts'
import { takePlan } from './take-plan.ts'
import { supersedeReading, takeReading } from './take-reading.ts'

export function mountJobs(app: Hono, deps: Deps) {
  const { db } = deps
  const write = onJob(deps)
  app.get(routes.jobs, async (c) => c.json(await listJobs(db)))
  app.get('/api/jobs/:id', async (c) => c.json(await jobDetail(db, c.req.param('id'), deps.now())))

  app.post('/api/jobs/:id/stacks', async (c) => {
    const body = await readBody(c, EnterStack)
    return write(c, 'stack', ({ tx, sheet, builds, who }) => enterStack(tx, sheet, builds, body, who))
  })

  app.post('/api/jobs/:id/readings', async (c) => {
    const body = await readBody(c, TakeReading)
    return write(
      c,
      'reading',
      async ({ tx, sheet, builds, who }) => (await takeReading(tx, sheet, builds, body, who)).text,
    )
  })

  app.post('/api/jobs/:id/readings/:reading/supersede', async (c) => {
    const body = await readBody(c, SupersedeReading)
    const id = Number(c.req.param('reading'))
    if (!Number.isSafeInteger(id)) throw notFound('Reading', c.req.param('reading'))
    return write(c, 'superseded', ({ tx, sheet, builds, who }) =>
      supersedeReading(tx, sheet, builds, id, body, who),
    )
  })

  app.post('/api/jobs/:id/trials', async (c) => {
    const body = await readBody(c, TakePlan)
    return write(
      c,
      'trial',
      async ({ tx, job, builds, who }) => (await takePlan(tx, job, builds, body, who)).text,
    )
  })

  app.post('/api/jobs/:id/acceptance', async (c) => {
    const body = await readBody(c, AcceptBuild)
    return write(c, 'accepted', ({ tx, sheet, builds, who }) => acceptBuild(tx, sheet, builds, body, who))
  })

  app.get(routes.units, async (c) => c.json(await knownUnits(db)))
  app.post(routes.jobs, async (c) => {
    const body = await readBody(c, OpenJob)
    return writeAll(c, deps, async (tx, who) => {
      const { id, text } = await openJob(tx, body, who)
      const loaded = await loadJob(tx, id, who.at)
      await keepProgress(tx, loaded)
      return { reply: () => detailOf(tx, loaded), event: { kind: 'opened', jobId: id, text } }
    })
  })
  app.post('/api/jobs/:id/life', async (c) => {
    const body = await readBody(c, ChangeLife)
    return write(c, 'life', (at) => changeLife(at, body))
  })
}
