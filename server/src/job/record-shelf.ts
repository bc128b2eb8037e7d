import type { Queryable } from '../db/database.ts'
import { readRecord, REST, type Read } from './read-record.ts'

/** Jobs that are cached; the least recently used goes first. */
const MOST = 60

/**
 * Version stamp of a cached record; equal stamps mean the record is unchanged. Every write of a job updates its row and leaves an event. Drafts and new
 * sheets leave none: `rest` holds the transaction that wrote each draft, and the number of sheets.
 */
export interface Mark {
  /** The transaction that wrote the job's row; null where there is no such job. */
  row: string | null
  /** Id of the newest event. */
  event: number
  rest: string
}

/** The mark of the job `$n`, as columns of a statement. @param row how its row is read: locked or not */
export const markColumns = (job: string, row: string): string =>
  `(${row}) as row, (select coalesce(max(id), 0) from event) as event, ${REST(job)} as rest`

const MARK = `select ${markColumns('$1', 'select xmin::text from job where id = $1')}`

/**
 * Cache of job records. The stamp is read from the database on every use, so several servers on one database can each keep their own and none is ever
 * behind.
 */
export class RecordShelf {
  readonly #kept = new Map<string, { mark: Mark; read: Read }>()

  /**
   * @param mark how far everything is, where it was asked already: with the job locked, by whoever writes
   * @throws Refusal 404
   */
  async get(db: Queryable, id: string, mark?: Mark): Promise<Read> {
    const now = mark ?? (await db.query<Mark>(MARK, [id]))[0]!
    const before = this.#kept.get(id)
    if (before && same(before.mark, now)) {
      this.keep(id, now, before.read)
      return before.read
    }
    // what came in between the two statements is in it, and the next asking finds the mark changed
    const read = await readRecord(db, id)
    this.keep(id, now, read)
    return read
  }

  keep(id: string, mark: Mark, read: Read): void {
    this.#kept.delete(id)
    this.#kept.set(id, { mark, read })
    const oldest = this.#kept.keys().next().value
    if (this.#kept.size > MOST && oldest !== undefined) this.#kept.delete(oldest)
  }
}

const same = (a: Mark, b: Mark) => a.row === b.row && a.event === b.event && a.rest === b.rest
