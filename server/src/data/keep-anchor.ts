import type { Queryable } from '../db/database.ts'
import type { Live } from '../live/live.ts'
import { anchorProblem } from './check-seals.ts'
import { writeMark, type Mark } from './mark.ts'

/** So long after an event its seal stands in the folder at the latest. */
const AFTER_MS = 1000

export interface AnchorKeeper {
  /** Writes the newest seal down and ends. */
  stop: () => Promise<void>
}

/**
 * Writes number and seal of the newest event into the folder's mark, outside of the database that it seals: whoever cuts events off or seals them all
 * anew does not reach it. What did not fit at the start is remembered there, and said by `npm run check`.
 */
export async function keepAnchor(
  db: Queryable,
  live: Live,
  folder: string,
  before: Mark,
  log: (message: string, detail?: unknown) => void,
): Promise<AnchorKeeper> {
  let mark = before
  const problem = mark.anchor && (await anchorProblem(db, mark.anchor))
  if (problem) {
    log(`the history is not the one that this folder knows: ${problem}. npm run check says more`)
    mark = { ...mark, breaks: [...(mark.breaks ?? []), problem].slice(-20) }
  }
  async function write() {
    const [newest] = await db.query<{ id: number; digest: string }>(
      'select id, digest from event order by id desc limit 1',
    )
    if (!newest || (newest.id === mark.anchor?.event && newest.digest === mark.anchor.seal)) return
    mark = {
      ...mark,
      anchor: { event: Number(newest.id), seal: newest.digest, at: new Date().toISOString() },
    }
    writeMark(folder, mark)
  }
  const failed = (e: unknown) => log('the newest seal could not be written into the folder', e)
  if (problem) writeMark(folder, mark)
  await write().catch(failed)
  let timer: NodeJS.Timeout | undefined
  const unlisten = live.listen(() => {
    timer ??= setTimeout(() => {
      timer = undefined
      write().catch(failed)
    }, AFTER_MS).unref()
  })
  return {
    async stop() {
      unlisten()
      clearTimeout(timer)
      await write().catch(failed)
    },
  }
}
