import { parentPort, workerData } from 'node:worker_threads'
import type { Transaction } from './database.ts'
import { openFolder } from './pglite.ts'
import { plainError, type Ask, type Say } from './thread-protocol.ts'

/** The thread in which the embedded database works, so that a slow statement keeps nobody waiting who does not need it. */
const port = parentPort!
const say = (message: Say) => port.postMessage(message)

class RolledBack extends Error {}

/** A log that is never written into the tables grows without end; a checkpoint now and then keeps recovery short. */
const CHECKPOINT_MS = 10 * 60_000

async function work() {
  const db = await openFolder((workerData as { folder: string }).folder)
  await db.listen(
    (told) => say({ told }),
    () => {},
  )
  /** Open transactions: their handle, how they end, and when they are over. */
  const open = new Map<number, { tx: Transaction; end: (how: 'commit' | 'rollback') => void }>()
  const over = new Map<number, Promise<void>>()
  let written = false
  setInterval(() => {
    if (!written) return
    written = false
    db.script('checkpoint').catch(() => (written = true))
  }, CHECKPOINT_MS).unref()

  function begin(id: number): Promise<void> {
    return new Promise<void>((begun, failed) => {
      const whole = db.transaction(
        (tx) =>
          new Promise<void>((commit, rollback) => {
            open.set(id, { tx, end: (how) => (how === 'commit' ? commit() : rollback(new RolledBack())) })
            begun()
          }),
      )
      const ended = whole.catch((e: unknown) => {
        if (!(e instanceof RolledBack)) throw e
      })
      over.set(id, ended)
      ended.catch(failed)
    })
  }

  async function answer(ask: Ask): Promise<unknown[] | undefined> {
    switch (ask.do) {
      case 'begin':
        await begin(ask.tx)
        return undefined
      case 'commit':
      case 'rollback': {
        written = true
        open.get(ask.tx)!.end(ask.do)
        open.delete(ask.tx)
        await over.get(ask.tx)
        over.delete(ask.tx)
        return undefined
      }
      case 'query':
        return (ask.tx ? open.get(ask.tx)!.tx : db).query(ask.sql, ask.params)
      case 'script':
        written = true
        await (ask.tx ? open.get(ask.tx)!.tx : db).script(ask.sql)
        return undefined
      case 'close':
        await db.close()
        return undefined
    }
  }

  port.on('message', (ask: Ask) => {
    answer(ask).then(
      (rows) => say(rows ? { id: ask.id, rows } : { id: ask.id }),
      (e: unknown) => say({ id: ask.id, error: plainError(e) }),
    )
  })
  say({ ready: true })
}

work().catch((e: unknown) => say({ failed: plainError(e) }))
