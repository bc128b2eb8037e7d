import { DEMO_EPOCH } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import type { Live } from '../live/live.ts'
import { anchorProblem } from './check-seals.ts'
import { arrived, writeMark, type Mark } from './mark.ts'

/** So long after an event its seal stands in the folder at the latest. */
const AFTER_MS = 1000
/** As many breaks are remembered. */
const MOST_BREAKS = 20

export interface AnchorKeeper {
  /** Writes down how the mark will be once the history is there that is just being brought back. */
  awaits: (next: Mark) => void
  /** Writes the newest seal down now. */
  write: () => Promise<void>
  /** Writes the newest seal down and ends. */
  stop: () => Promise<void>
}

/**
 * Writes number and seal of the newest event into the folder's mark, outside of the database that it seals: whoever cuts events off or seals them all
 * anew does not reach it. Each time the one before is looked at first; what does not fit is remembered in the mark, and said by `npm run check`.
 */
export async function keepAnchor(
  db: Queryable,
  live: Live,
  folder: string,
  before: Mark,
  log: (message: string, detail?: unknown) => void,
): Promise<AnchorKeeper> {
  let mark = before
  async function write() {
    const [now] = await db.query<{ id: number | null; digest: string | null; epoch: string | null }>(
      `select e.id, e.digest, (select value #>> '{}' from setting where key = 'epoch') as epoch
       from (values (1)) v left join (select id, digest from event order by id desc limit 1) e on true`,
    )
    const epoch = now!.epoch ?? undefined
    const known = arrived(mark, epoch)
    // only an invented history ends without a trace
    const left = known.epoch?.startsWith(DEMO_EPOCH) && epoch !== known.epoch
    const problem = known.anchor && !left ? await anchorProblem(db, known.anchor) : undefined
    if (problem) log(`the history is not the one that this folder knows: ${problem}. npm run check says more`)
    const { anchor: _before, epoch: _epoch, ...rest } = known
    const next: Mark = {
      ...rest,
      ...(epoch === undefined ? {} : { epoch }),
      ...(now!.id === null
        ? {}
        : { anchor: { event: Number(now!.id), seal: now!.digest!, at: new Date().toISOString() } }),
      ...(problem ? { breaks: [...(known.breaks ?? []), problem].slice(-MOST_BREAKS) } : {}),
    }
    const same =
      known === mark && next.epoch === mark.epoch && next.anchor?.seal === mark.anchor?.seal && !problem
    if (same) return
    mark = next
    writeMark(folder, mark)
  }
  const failed = (e: unknown) => log('the newest seal could not be written into the folder', e)
  await write().catch(failed)
  let timer: NodeJS.Timeout | undefined
  const unlisten = live.listen(() => {
    timer ??= setTimeout(() => {
      timer = undefined
      write().catch(failed)
    }, AFTER_MS).unref()
  })
  return {
    write,
    awaits(next) {
      mark = { ...mark, awaited: next }
      writeMark(folder, mark)
    },
    async stop() {
      unlisten()
      clearTimeout(timer)
      await write().catch(failed)
    },
  }
}
