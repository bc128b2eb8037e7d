import { endpoints } from '@moray/contract/endpoints'
import { refuse } from '@moray/core/checks/input-error'
import type { JobReply } from '@moray/contract/replies'
import type { Context, Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { afterOf } from '../http/after.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { searchOf } from '../http/search-of.ts'
import { write } from '../request/write.ts'
import { jobReply, judgedOf, onJob } from '../job/on-job.ts'
import { readRecord } from '../job/read-record.ts'
import { settleWith } from '../job/unit.ts'
import { addCase, moveJob } from './cases.ts'
import { correctJob } from './correct-job.ts'
import { listEvents } from './events.ts'
import { changeLife } from './life.ts'
import { knownUnits, listJobs, type JobQuery } from './list.ts'
import { openJob } from './open-job.ts'

const PAGE = 50
const STATES = ['open', 'over', 'all'] as const

export function mountJobs(app: Hono, deps: Deps) {
  const { db } = deps
  onRead(app, endpoints.jobs, (c) => listJobs(db, queryOf(c), deps.now()))
  onRead(app, endpoints.units, (c) => knownUnits(db, searchOf(c), c.req.query('all') === 'yes'))
  onRead(app, endpoints.job, async (_, { id }) => (await deps.records.get(db, id)).record)
  onRead(app, endpoints.events, (c, { id }) => listEvents(db, id, afterOf(c)))
  onWrite(app, endpoints.openJob, (c, _, body) =>
    write<JobReply>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const { id, told } = await openJob(tx, body.checked, who)
        const read = await readRecord(tx, id)
        const { standing } = await judgedOf(tx, deps, read, who.at)
        return {
          told,
          job: id,
          subject: id,
          ends: settleWith(id, who.at, standing),
          reply: (seen) => Promise.resolve({ ...read.record, ...standing, seen }),
        }
      },
      again: jobReply,
    }),
  )
  onJob(app, deps, endpoints.correctJob, correctJob)
  onJob(app, deps, endpoints.addCase, addCase)
  onJob(app, deps, endpoints.moveJob, moveJob)
  onJob(app, deps, endpoints.changeLife, changeLife, { whenOver: 'anew' })
}

function queryOf(c: Context): JobQuery {
  const asked = c.req.query('state') ?? 'all'
  const state = STATES.find((s) => s === asked)
  if (!state) refuse('state', `one of ${STATES.join(', ')}`)
  const before = c.req.query('before') ?? null
  if (before !== null && !/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z\|[\w.:-]{1,80}$/.test(before))
    refuse('before', 'is not the "next" of a page')
  return { state, before, search: searchOf(c), limit: PAGE }
}
