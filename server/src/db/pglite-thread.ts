import { Worker } from 'node:worker_threads'
import { threadFile } from '../threads.ts'
import type { Database, Transaction } from './database.ts'
import { readRows, type RawRows } from './raw-rows.ts'
import { asError, type Ask, type Say } from './thread-protocol.ts'

type Answered = Extract<Ask, { id: number }>
type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never

const NO_ROWS: RawRows = { rows: [], json: [] }

/** The embedded database in a thread of its own: while it works or syncs, the server goes on answering. */
export async function openPgliteThread(folder: string): Promise<Database> {
  const worker = new Worker(threadFile('pglite-worker', import.meta.url), { workerData: { folder } })
  const waiting = new Map<number, { done: (result: RawRows) => void; failed: (e: Error) => void }>()
  const listeners = new Set<(payload: string) => void>()
  let lastId = 0
  let lastTx = 0
  let broken: Error | undefined

  const breakAll = (e: Error) => {
    broken ??= e
    for (const w of waiting.values()) w.failed(e)
    waiting.clear()
  }
  await new Promise<void>((ready, failed) => {
    worker.on('message', (m: Say) => {
      if ('ready' in m) return ready()
      if ('failed' in m) return failed(asError(m.failed))
      if ('told' in m) return listeners.forEach((tell) => tell(m.told))
      const w = waiting.get(m.id)
      waiting.delete(m.id)
      if ('error' in m) w?.failed(asError(m.error))
      else w?.done(m.result ?? NO_ROWS)
    })
    worker.on('error', (e) => {
      failed(e)
      breakAll(e as Error)
    })
    worker.on('exit', () => {
      const gone = new Error('the database has been closed')
      failed(gone)
      breakAll(gone)
    })
  })

  const post = (message: Ask) => worker.postMessage(message)
  const ask = (what: WithoutId<Answered>) =>
    new Promise<RawRows>((done, failed) => {
      if (broken) return failed(broken)
      const id = ++lastId
      waiting.set(id, { done, failed })
      post({ ...what, id })
    })
  const handle = (tx: number): Transaction => ({
    query: async <Row>(sql: string, params: unknown[] = []) =>
      readRows<Row>(await ask({ do: 'query', tx, sql, params })),
    script: async (sql) => void (await ask({ do: 'script', tx, sql })),
  })

  return {
    ...handle(0),
    async transaction(work) {
      const tx = ++lastTx
      post({ do: 'begin', tx })
      try {
        const result = await work(handle(tx))
        await ask({ do: 'commit', tx })
        return result
      } catch (e) {
        await ask({ do: 'rollback', tx }).catch(() => {})
        throw e
      }
    },
    listen(told) {
      listeners.add(told)
      return Promise.resolve(() => Promise.resolve(void listeners.delete(told)))
    },
    async close() {
      await ask({ do: 'close' })
      await worker.terminate()
    },
  }
}
