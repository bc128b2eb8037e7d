import type { Queryable } from '../db/database.ts'
import { readRecord, REST, type Read } from './read-record.ts'

/** Jobs that are kept ready; the one that was asked for longest ago goes first. */
const MOST = 60

/**
 * How far everything was that a record tells of. Two alike mean the same record: events tell of every change but those of drafts, whose rows
 * carry the number of the transaction that wrote them, and of new sheets, which are counted (`rest`); every write of a job touches its row.
 */
export interface Mark {
  /** Version of the job's row: the number of the transaction that wrote it; null where there is no such job. */
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
 * Records of jobs, kept for as long as nothing has happened that they could tell of. Whether something has is asked of the database every time.
 * Several servers on one database each keep their own, and none is ever behind.
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
