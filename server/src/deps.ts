import type { CalcPool } from './calc/pool.ts'
import type { CopyKeeper } from './copies/keeper.ts'
import type { Database } from './db/database.ts'
import type { SheetShelf } from './drives/sheets.ts'
import type { FileStore } from './files/file-store.ts'
import type { RecordShelf } from './job/record-shelf.ts'
import type { Live } from './live/live.ts'

/** What every route may use; tests pass their own. */
export interface Deps {
  db: Database
  sheets: SheetShelf
  records: RecordShelf
  live: Live
  files: FileStore
  calc: CalcPool
  copies: CopyKeeper
  now: () => Date
  log: (message: string, detail?: unknown) => void
}
