import type { DriveSheet } from '@moray/core/drives/sheet'
import { waitsFor } from '@moray/core/setting/assess'
import {
  AcceptBuild,
  EnterStack,
  SupersedeReading,
  TakePlan,
  TakeReading,
} from '@moray/contract/requests/setting'
import { routes } from '@moray/contract/routes'
import type { Context, Hono } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { notFound } from '../http/refusal.ts'
import { write, type Who } from '../http/write.ts'
import { acceptBuild } from './accept-build.ts'
import { loadBuilds, type LoadedBuild } from './builds.ts'
import { jobDetail } from './detail.ts'
import { enterStack } from './enter-stack.ts'
import { findJob, listJobs, setProgress, type JobRow } from './rows.ts'
import { takePlan } from './take-plan.ts'
import { supersedeReading, takeReading } from './take-reading.ts'

interface Step {
  tx: Transaction
  job: JobRow
  sheet: DriveSheet
  builds: LoadedBuild[]
  who: Who
}

export function mountJobs(app: Hono, deps: Deps) {
  const { db } = deps
  app.get(routes.jobs, async (c) => c.json(await listJobs(db)))
  app.get('/api/jobs/:id', async (c) => c.json(await jobDetail(db, c.req.param('id'))))

  /** A write on one job: does the work, keeps the bench list true, answers with the whole job as it now stands. */
  const onJob = (c: Context, kind: string, work: (step: Step) => Promise<string>) => {
    const id = c.req.param('id')!
    return write(c, deps, async (tx, who) => {
      const job = await findJob(tx, id)
      const builds = await loadBuilds(tx, id, job.sheet)
      const text = await work({ tx, job, sheet: job.sheet, builds, who })
      if (kind !== 'accepted') await keepWaiting(tx, job)
      return { reply: () => jobDetail(tx, id), event: { kind, jobId: id, text } }
    })
  }

  app.post('/api/jobs/:id/stacks', async (c) => {
    const body = await readBody(c, EnterStack)
    return onJob(c, 'stack', ({ tx, sheet, builds, who }) => enterStack(tx, sheet, builds, body, who))
  })

  app.post('/api/jobs/:id/readings', async (c) => {
    const body = await readBody(c, TakeReading)
    return onJob(
      c,
      'reading',
      async ({ tx, sheet, builds, who }) => (await takeReading(tx, sheet, builds, body, who)).text,
    )
  })

  app.post('/api/jobs/:id/readings/:reading/supersede', async (c) => {
    const body = await readBody(c, SupersedeReading)
    const id = Number(c.req.param('reading'))
    if (!Number.isSafeInteger(id)) throw notFound('Reading', c.req.param('reading'))
    return onJob(c, 'superseded', ({ tx, sheet, builds, who }) =>
      supersedeReading(tx, sheet, builds, id, body, who),
    )
  })

  app.post('/api/jobs/:id/trials', async (c) => {
    const body = await readBody(c, TakePlan)
    return onJob(
      c,
      'trial',
      async ({ tx, job, builds, who }) => (await takePlan(tx, job, builds, body, who)).text,
    )
  })

  app.post('/api/jobs/:id/acceptance', async (c) => {
    const body = await readBody(c, AcceptBuild)
    return onJob(c, 'accepted', async ({ tx, job, sheet, builds, who }) => {
      const text = await acceptBuild(tx, sheet, builds, body, who)
      await setProgress(tx, job.id, {
        state: 'waiting',
        stage: 'Closing',
        waitsFor: 'Close the case, then the leak test',
      })
      return text
    })
  })
}

async function keepWaiting(tx: Transaction, job: JobRow) {
  const newest = (await loadBuilds(tx, job.id, job.sheet)).at(-1)!
  await setProgress(tx, job.id, {
    state: 'setting',
    stage: 'Setting',
    waitsFor: waitsFor(job.sheet, newest.assessment, newest.number),
  })
}
