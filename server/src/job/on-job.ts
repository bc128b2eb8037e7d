import { logAfter } from '@moray/core/job/acts/log-after'
import { judged, type JudgedJob } from '@moray/core/job/judged'
import { isOver } from '@moray/core/job/record'
import type { Told } from '@moray/core/job/event'
import type { JobReply } from '@moray/contract/replies'
import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { Context, Hono } from 'hono'
import type { Queryable, Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onWrite, type Params } from '../http/endpoint.ts'
import { write, type Done } from '../request/write.ts'
import type { Who } from '../request/who.ts'
import type { At } from './change.ts'
import { writeLog } from '../acts/log.ts'
import { mustBeOpen } from './must-be-open.ts'
import { readRecord, readRecords, type Read } from './read-record.ts'
import type { Mark } from './record-shelf.ts'
import { lockUnit, settle, settleWith, type Locked } from './unit.ts'

type JobDeps = Pick<Deps, 'sheets' | 'records'>
/** `anew`: it is judged where the job stands then. `as-it-stands`: it stays over, whatever was changed. */
type WhenOver = 'anew' | 'as-it-stands'
type JobEndpoint = Endpoint<`/api/jobs/:id/${string}`, object, JobReply>
type Settled = Pick<Mark, 'row'>

/** The reply about a job: its record as it stands, with the version of the sheet to fetch. */
export async function jobReply(db: Queryable, id: string): Promise<JobReply> {
  return (await readRecord(db, id)).record
}

/** A job as it is now, judged. */
export async function readJudged(
  db: Queryable,
  deps: Pick<Deps, 'sheets'>,
  id: string,
  now: Date,
): Promise<JudgedJob> {
  return judgedOf(db, deps, await readRecord(db, id), now)
}

export async function judgedOf(
  db: Queryable,
  deps: Pick<Deps, 'sheets'>,
  { record, ways }: Read,
  now: Date,
): Promise<JudgedJob> {
  const sheet = await deps.sheets.get(db, record.sheetId, record.sheetVersion)
  return judged(record, sheet, ways, now)
}

/**
 * The way of every change of a job, whose unit is locked: taken as it is known or read, judged purely, changed, read once more, judged; the standing
 * and the event go in together, and the answer is the record as it now stands.
 */
async function changeJob(
  tx: Transaction,
  deps: JobDeps,
  id: string,
  { who, locked }: { who: Who; locked: Locked },
  change: (at: At) => Promise<Told>,
  options: { whenOver?: WhenOver } = {},
): Promise<Done<JobReply, Settled>> {
  const before = await judgedOf(tx, deps, await deps.records.get(tx, id, locked), who.at)
  if (!options.whenOver) mustBeOpen(before)
  const { entered } = locked
  const told = await change({ tx, job: before, who, entered })
  const other = SEEN_BY_THE_OTHER.has(told.kind) ? otherOf(before, told) : undefined
  const [own, others] = await readRecords(tx, other === undefined ? [id] : [id, other])
  const after = await judgedOf(tx, deps, own!, who.at)
  // closed or handed over, it stays so until somebody reopens it
  if (others && !isOver(others.record.state)) await settle(tx, await judgedOf(tx, deps, others, who.at))
  await writeLog(tx, after, who, entered)
  const { state, stage, waits } = before
  const stays = options.whenOver === 'as-it-stands' && isOver(state)
  const standing = stays ? { state, stage, waits } : after.standing
  const { record, ways, rest } = own!
  const log = logAfter(after.log ?? [], after.work.acts, entered)
  const now = (seen: number) => ({ ...record, ...standing, log, touchedAt: who.at.toISOString(), seen })
  return {
    told,
    job: id,
    subject: id,
    ends: settleWith(id, who.at, standing, entered),
    reply: (event) => Promise.resolve(now(event)),
    committed({ row, event }) {
      // an event of somebody else in between: what it tells of may have been read, or not
      if (event !== record.seen + 1) return
      deps.records.keep(id, { row, event, rest }, { record: now(event), ways, rest })
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
  'step-undone',
  'step-corrected',
  'loop',
  'case',
])

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
  return write<JobReply, Locked, Settled>(c, deps, {
    body,
    opens: lockUnit(id),
    work: (tx, who, locked) => changeJob(tx, deps, id, { who, locked }, change, options),
    again: jobReply,
  })
}

/** Keeps working state of a job, which is no evidence: under a name and with its unit locked, but without an event; the same twice is the same. */
export async function draftOnJob(
  c: Context,
  deps: Deps,
  id: string,
  body: string,
  keep: (tx: Transaction, who: Who) => Promise<void>,
): Promise<void> {
  await write<void>(c, deps, {
    body,
    sameTwice: true,
    opens: lockUnit(id),
    async work(tx, who) {
      await keep(tx, who)
      return { told: null, subject: id, reply: () => Promise.resolve() }
    },
    again: () => Promise.resolve(),
  })
}
