import type { Database } from './db/database.ts'
import { catchUp } from './search/search.ts'

const PROBE_MS = 5_000
const PRUNE_MS = 60 * 60_000
const CATCH_UP_MS = 30_000
/** The first pages come first. */
const FIRST_CATCH_UP_MS = 3_000
const CATCH_UP_PAUSE_MS = 20
/** A browser that has not repeated a request within a day will not. */
const KEPT_HOURS = 24

export interface House {
  /** How the database answered when it was last asked. */
  databaseAnswers: () => boolean
  stop: () => void
}

/** What is done by the way: asking whether the database answers, forgetting old request ids, making what is searched. */
export function keepHouse(db: Database, log: (message: string, detail?: unknown) => void): House {
  let answers = true
  const probe = () =>
    db.query('select 1').then(
      () => (answers = true),
      (e: unknown) => {
        if (answers) log('the database does not answer', e)
        answers = false
      },
    )
  const prune = () =>
    pruneRequests(db, new Date()).catch((e: unknown) => log('old request ids could not be forgotten', e))
  void prune()
  let stopped = false
  /** What is searched, little by little: after an upgrade or a restore there are years of it, and everybody else goes first. */
  const find = async () => {
    while (!stopped && (await catchUp(db)) > 0) await new Promise((r) => setTimeout(r, CATCH_UP_PAUSE_MS))
  }
  const findAll = () =>
    find().catch((e: unknown) => log('what is searched could not be brought up to date', e))
  const timers = [
    setInterval(() => void probe(), PROBE_MS),
    setInterval(() => void prune(), PRUNE_MS),
    setTimeout(() => void findAll(), FIRST_CATCH_UP_MS),
    setInterval(() => void findAll(), CATCH_UP_MS),
  ]
  timers.forEach((t) => t.unref())
  return { databaseAnswers: () => answers, stop: () => ((stopped = true), timers.forEach(clearInterval)) }
}

/** Forgets request ids older than a day. */
export async function pruneRequests(db: Database, now: Date): Promise<void> {
  await db.query('delete from request_log where at < $1', [new Date(now.getTime() - KEPT_HOURS * 3_600_000)])
}
