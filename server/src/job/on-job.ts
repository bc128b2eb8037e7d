import { judged, type JudgedJob } from '@moray/core/job/judged'
import { isOver } from '@moray/core/job/record'
import type { JobReply } from '@moray/contract/replies'
import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { Context, Hono } from 'hono'
import type { Queryable, Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onWrite, type Params } from '../http/endpoint.ts'
import { mustBeOpen } from './must-be-open.ts'
import { write, type Done } from '../http/write.ts'
import type { Who } from '../http/who.ts'
import type { At } from './change.ts'
import { readRecord, readRecords, type Read } from './read-record.ts'
import type { Mark } from './record-shelf.ts'
import type { Told } from '@moray/core/job/event'

type JobDeps = Pick<Deps, 'sheets' | 'records'>
/** `anew`: it is judged where the job stands then. `as-it-stands`: it stays over, whatever was changed. */
type WhenOver = 'anew' | 'as-it-stands'
type JobEndpoint = Endpoint<`/api/jobs/:id/${string}`, object, JobReply>

/** The reply about a job: its record as it stands, with the version of the sheet to fetch. */
export async function jobReply(db: Queryable, id: string): Promise<JobReply> {
  return (await readRecord(db, id)).compact
}

/** A job as it is now, judged. */
export async function readJudged(db: Queryable, deps: Pick<Deps, 'sheets'>, id: string, now: Date) {
  return judgedOf(db, deps, await readRecord(db, id), now)
}

async function judgedOf(
  db: Queryable,
  deps: Pick<Deps, 'sheets'>,
  { record, ways, compact }: Read,
  now: Date,
) {
  const sheet = await deps.sheets.get(db, record.sheetId, record.sheetVersion)
  return { job: judged(record, sheet, ways, now), compact }
}

/**
 * The way of every change of a job: taken as it is known or read, locked, judged purely, changed, read once more, judged; the standing and the
 * event go in together, and the answer is the record as it now stands.
 */
export async function changeJob(
  tx: Transaction,
  deps: JobDeps,
  id: string,
  { who, mark }: { who: Who; mark: Mark },
  change: (at: At) => Promise<Told>,
  options: { whenOver?: WhenOver } = {},
): Promise<Done<JobReply>> {
  const before = await judgedOf(tx, deps, await deps.records.get(tx, id, mark), who.at)
  if (!options.whenOver) mustBeOpen(before.job)
  const told = await change({ tx, job: before.job, who })
  const other = SEEN_BY_THE_OTHER.has(told.kind) ? otherOf(before.job, told) : undefined
  const [own, others] = await readRecords(tx, other === undefined ? [id] : [id, other])
  const { job } = await judgedOf(tx, deps, own!, who.at)
  // locked with this one; closed or handed over, it stays so until somebody reopens it
  if (others && !isOver(others.record.state)) await settle(tx, (await judgedOf(tx, deps, others, who.at)).job)
  const { state, stage, waits } = before.job
  const stays = options.whenOver === 'as-it-stands' && isOver(state)
  const standing = stays ? { state, stage, waits } : job.standing
  const now = (seen: number) => ({ ...standing, touchedAt: who.at.toISOString(), seen })
  return {
    told,
    job: { id, standing },
    subject: id,
    reply: (event) => Promise.resolve({ ...own!.compact, ...now(event) }),
    committed({ row, event }) {
      const { compact, record, ways, rest } = own!
      // an event of somebody else in between: what it tells of may have been read, or not
      if (event !== compact.seen + 1) return
      const as = now(event)
      deps.records.keep(
        id,
        { row, event, rest },
        { compact: { ...compact, ...as }, record: { ...record, ...as }, ways, rest },
      )
    },
  }
}

/** The other case of the unit; a case that was added just now is known by what was told of it. */
const otherOf = ({ partner }: JudgedJob, told: Told): string | undefined =>
  partner?.id ?? (told.kind === 'case' ? told.subject.replace(/^job:/, '') : undefined)

/** What changes the steps that stand: only they are known to the other case. */
const SEEN_BY_THE_OTHER: ReadonlySet<Told['kind']> = new Set([
  'step',
  'step-back',
  'step-corrected',
  'loop',
  'case',
])

/** Writes down where a job stands, so that the bench says so without anybody opening it: the other case of a unit stands by what happened here. */
export async function settle(
  tx: Transaction,
  { id, standing }: Pick<JudgedJob, 'id' | 'standing'>,
): Promise<void> {
  await tx.query('update job set state = $2, stage = $3, waits = $4::jsonb where id = $1', [
    id,
    standing.state,
    standing.stage,
    JSON.stringify(standing.waits),
  ])
}

/** Mounts a change of a job. @param options.whenOver it may be done to a job that is over, and what that does to where the job stands */
export function onJob<E extends JobEndpoint>(
  app: Hono,
  deps: Deps,
  endpoint: E,
  change: (at: At, body: BodyOf<E>, params: Params<E>) => Promise<Told>,
  options: { whenOver?: WhenOver } = {},
): void {
  onWrite(app, endpoint, async (c, params, body) => {
    const { id } = params as unknown as { id: string }
    return changeOnJob(c, deps, id, body.text, (at) => change(at, body.checked, params), options) as never
  })
}

/** A change of a job by a request whose body is read already. */
export function changeOnJob(
  c: Context,
  deps: Deps,
  id: string,
  body: string | Uint8Array,
  change: (at: At) => Promise<Told>,
  options: { whenOver?: WhenOver } = {},
): Promise<JobReply> {
  return write<JobReply>(c, deps, {
    body,
    lock: id,
    work: (tx, who, mark) => changeJob(tx, deps, id, { who, mark }, change, options),
    again: jobReply,
  })
}
