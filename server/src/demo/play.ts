import type { Told } from '@moray/core/job/event'
import type { JudgedJob } from '@moray/core/job/judged'
import type { Transaction } from '../db/database.ts'
import type { SheetShelf } from '../drives/sheets.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'
import { readJudged } from '../job/on-job.ts'
import { settle } from '../job/unit.ts'

/**
 * A demo job that is being played: changes go through the same functions as real ones. Reading all anew before every change would take most of
 * the demo's time, so the job is read again only when somebody says that it has changed.
 */
export class Player {
  private job: JudgedJob | undefined
  private entered = 0
  constructor(
    private readonly tx: Transaction,
    private readonly sheets: SheetShelf,
    readonly id: string,
  ) {}

  /** The job as it was last read, or as it is when it has changed since. */
  async state(now: Date): Promise<JudgedJob> {
    this.job ??= await readJudged(this.tx, { sheets: this.sheets }, this.id, now)
    return this.job
  }

  /** What a change has made of the job, where it is known without reading. */
  knows(job: JudgedJob | undefined): void {
    this.job = job
  }

  /** Makes a change and writes it into the history, as `who` and when. */
  async change(by: string, at: Date, change: (at: At) => Promise<Told>): Promise<void> {
    const who: Who = { id: by, role: by === 'runa' ? 'lead' : 'technician', at, code: 'none' }
    const told = await change({ tx: this.tx, job: await this.state(at), who, entered: ++this.entered })
    await this.tell(by, at, told)
    this.job = undefined
  }

  async tell(by: string, at: Date, told: Told): Promise<void> {
    await this.tx.query(
      'insert into event (at, by_person, kind, job_id, subject, data) values ($1, $2, $3, $4, $5, $6::jsonb)',
      [at, by, told.kind, this.id, told.subject, JSON.stringify(told.data)],
    )
  }

  /** Writes down where the job stands now. */
  async settle(now: Date, touched: Date): Promise<void> {
    this.job = undefined
    await settle(this.tx, await this.state(now))
    await this.tx.query('update job set touched_at = $2, entered = greatest(entered, $3) where id = $1', [
      this.id,
      touched,
      this.entered,
    ])
  }
}
