import { parentPort, workerData } from 'node:worker_threads'
import { giveWay } from '../give-way.ts'
import { openRawFolder, type RawTransaction } from './pglite.ts'
import type { RawRows } from './raw-rows.ts'
import { plainError, type Ask, type Say } from './thread-protocol.ts'

/** Runs the embedded database off the main thread, so that a slow statement does not block other requests. */
const port = parentPort!
const say = (message: Say) => port.postMessage(message)

class RolledBack extends Error {}

interface Open {
  tx: Promise<RawTransaction>
  end: (how: 'commit' | 'rollback') => void
  over: Promise<void>
}

/** A log that is never written into the tables grows without end; a checkpoint now and then keeps recovery short. */
const CHECKPOINT_MS = 10 * 60_000

async function work() {
  giveWay('database')
  const db = await openRawFolder((workerData as { folder: string }).folder)
  await db.listen((told) => say({ told }))
  /** Transactions that were asked for, from then until they are over: their handle, how they end, and when they have. */
  const open = new Map<number, Open>()
  let written = false
  setInterval(() => {
    if (!written) return
    written = false
    db.script('checkpoint').catch(() => (written = true))
  }, CHECKPOINT_MS).unref()

  /** Whoever asks for a transaction does not wait for it: its first statement does. */
  function begin(id: number): void {
    let end!: Open['end']
    let over!: Open['over']
    const tx = new Promise<RawTransaction>((begun, failed) => {
      const whole = db.transaction(
        (handle) =>
          new Promise<void>((commit, rollback) => {
            end = (how) => (how === 'commit' ? commit() : rollback(new RolledBack()))
            begun(handle)
          }),
      )
      over = whole.catch((e: unknown) => {
        if (!(e instanceof RolledBack)) throw e
      })
      over.catch(failed)
    })
    // said by its statements, and by its end
    tx.catch(() => {})
    open.set(id, { tx, end: (how) => end(how), over })
  }

  const handleOf = (tx: number) => (tx ? open.get(tx)!.tx : db)

  async function answer(ask: Exclude<Ask, { do: 'begin' }>): Promise<RawRows | undefined> {
    switch (ask.do) {
      case 'commit':
      case 'rollback': {
        written = true
        const { tx, end, over } = open.get(ask.tx)!
        open.delete(ask.tx)
        await tx
        end(ask.do)
        await over
        return undefined
      }
      case 'query':
        return (await handleOf(ask.tx)).query(ask.sql, ask.params)
      case 'script':
        written = true
        await (await handleOf(ask.tx)).script(ask.sql)
        return undefined
      case 'close':
        await db.close()
        return undefined
    }
  }

  port.on('message', (ask: Ask) => {
    if (ask.do === 'begin') return begin(ask.tx)
    answer(ask).then(
      (result) => say(result ? { id: ask.id, result } : { id: ask.id }),
      (e: unknown) => say({ id: ask.id, error: plainError(e) }),
    )
  })
  say({ ready: true })
}

work().catch((e: unknown) => say({ failed: plainError(e) }))
