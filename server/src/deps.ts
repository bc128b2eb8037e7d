import type { Database } from './db/database.ts'
import type { Live } from './live/live.ts'

/** What every route may use; tests pass their own. */
export interface Deps {
  db: Database
  live: Live
  now: () => Date
  log: (message: string, detail?: unknown) => void
}
