import type { JudgedJob } from '@moray/core/job/judged'
import type { Standing } from '@moray/core/job/standing'
import type { Transaction } from '../db/database.ts'
import type { AlongsideFrom } from '../request/write.ts'
import { markColumns, type Mark } from './record-shelf.ts'

/** What is read when a unit is locked. */
export interface Locked extends Mark {
  /** The number of the next act of the unit. */
  entered: number
}

/**
 * Locks every case of a job's unit, numbers the act that follows, and reads how far everything is. The other case stands by what happens here, so
 * whoever writes to one holds both; always in the order of their ids, so that two who write to both never wait for each other.
 */
export const lockUnit =
  (job: string): AlongsideFrom =>
  (first) => ({
    tables: `held as materialized (
      select id, xmin::text as row, entered from job
      where id = $${first} or id in (select other_id from job_unit where job_id = $${first}) order by id for update
    )`,
    columns: `(select max(entered) + 1 from held) as entered, ${markColumns(`$${first}`, `select row from held where id = $${first}`)}`,
    params: [job],
  })

/** Writes down where a job stands after a write to it. Its row comes back with another version: see `Mark`. */
export const settleWith =
  (job: string, at: Date, { state, stage, waits }: Standing, entered = 0): AlongsideFrom =>
  (first) => ({
    tables: `touched as (
      update job set touched_at = $${first + 1}, state = $${first + 2}, stage = $${first + 3}, waits = $${first + 4}::jsonb, entered = $${first + 5}
      where id = $${first} returning xmin::text as row
    )`,
    columns: '(select row from touched) as row',
    params: [job, at, state, stage, JSON.stringify(waits), entered],
  })

/** Writes down where a job stands, so that the bench says so without anybody opening it. */
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
