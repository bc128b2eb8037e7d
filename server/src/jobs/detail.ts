import type { AvailablePiece, EventEntry, JobDetail, JobWork } from '@moray/contract/replies'
import { showMm } from '@moray/core/units/format'
import type { Queryable } from '../db/database.ts'
import { listLines } from '../drawer/drawer.ts'
import { loadWork } from '../route/work.ts'
import { loadAcceptance, loadBuilds, type LoadedBuild } from './builds.ts'
import { findJob, toSummary, type JobRow } from './rows.ts'

/** A job with all that is judged about it; loading it is most of the work of a request, so it is done once. */
export interface LoadedJob {
  row: JobRow
  builds: LoadedBuild[]
  work: JobWork
}

export async function loadJob(db: Queryable, id: string, now: Date): Promise<LoadedJob> {
  const row = await findJob(db, id)
  const builds = await loadBuilds(db, id, row.sheet)
  return { row, builds, work: await loadWork(db, row, builds, now) }
}

/** Everything about one job, as one reply. */
export async function jobDetail(db: Queryable, id: string, now: Date): Promise<JobDetail> {
  return detailOf(db, await loadJob(db, id, now))
}

/** The reply for a job that is loaded already; where it stands and its events are read anew. */
export async function detailOf(db: Queryable, { builds, work, row: { id } }: LoadedJob): Promise<JobDetail> {
  const row = await findJob(db, id)
  const newest = builds.at(-1)
  return {
    ...toSummary(row),
    sheet: row.sheet,
    newerSheetVersion: row.newest_version > row.sheet_version ? row.newest_version : null,
    builds: builds.map(({ rowId: _row, facts: _facts, accepted: _accepted, ...build }) => build),
    acceptance: newest ? await loadAcceptance(db, newest.rowId) : null,
    pieces: await availablePieces(db, builds),
    events: await listEvents(db, id),
    work,
  }
}

/**
 * What this job can build with: the drawer's free stock, the drawer pieces in its own newest trial (they come
 * out when it is taken apart), and the pieces that were found in the case.
 */
export async function availablePieces(db: Queryable, builds: LoadedBuild[]): Promise<AvailablePiece[]> {
  const inCase = piecesInUse(builds.at(-1))
  const lines = await listLines(db)
  const found = (builds[0]?.stacks ?? []).filter((s) => !s.superseded)
  return [
    ...lines.map((l) => ({
      id: `d${l.id}`,
      thicknessMm: l.thicknessMm,
      count: l.count + (inCase.get(`d${l.id}`) ?? 0),
      label: `${showMm(l.thicknessMm, 3)} drawer`,
      origin: 'drawer' as const,
    })),
    ...found.flatMap((s) =>
      s.pieces.map((p) => ({
        id: p.id,
        thicknessMm: p.thicknessMm,
        count: 1,
        label: `${showMm(p.thicknessMm, 3)} out of ${s.location}`,
        origin: 'case' as const,
      })),
    ),
  ]
}

/** How often each piece id sits in a build. Found pieces count as the case's own, whatever they were likened to. */
export function piecesInUse(build: LoadedBuild | undefined): Map<string, number> {
  const used = new Map<string, number>()
  for (const s of build?.stacks ?? [])
    if (!s.superseded) for (const p of s.pieces) used.set(p.id, (used.get(p.id) ?? 0) + 1)
  return used
}

async function listEvents(db: Queryable, jobId: string): Promise<EventEntry[]> {
  const rows = await db.query<{
    id: number
    at: Date
    name: string
    kind: string
    job_id: string
    text: string
  }>(
    `select e.id, e.at, p.name, e.kind, e.job_id, e.text from event e join person p on p.id = e.by_person
     where e.job_id = $1 order by e.id`,
    [jobId],
  )
  return rows.map((r) => ({
    id: r.id,
    at: r.at.toISOString(),
    by: r.name,
    kind: r.kind,
    jobId: r.job_id,
    text: r.text,
  }))
}
