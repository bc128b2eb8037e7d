import type { Database } from './db/database.ts'
import type { FileStore } from './files/file-store.ts'
import type { Live } from './live/live.ts'

/** What every route may use; tests pass their own. */
export interface Deps {
  db: Database
  live: Live
  files: FileStore
  now: () => Date
  log: (message: string, detail?: unknown) => void
}
