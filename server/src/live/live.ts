import type { LiveEvent } from '@moray/contract/replies'
import type { Context, Hono } from 'hono'
import { endpoints } from '@moray/contract/endpoints'
import { streamSSE } from 'hono/streaming'
import type { Database, Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import { afterOf } from '../http/after.ts'

type Listener = (event: LiveEvent | 'lost') => void

/** Tells every open browser what has been committed, by whichever server: the database itself tells us. */
export class Live {
  private listeners = new Set<Listener>()
  private closers = new Set<() => void>()

  /** Listens on the database. @returns ends it */
  async follow(db: Database): Promise<() => Promise<void>> {
    return db.listen(
      (payload) => this.tell(JSON.parse(payload) as LiveEvent),
      () => this.tell('lost'),
    )
  }

  private tell(event: LiveEvent | 'lost') {
    for (const listen of this.listeners) listen(event)
  }

  /** @returns a function that ends the subscription */
  subscribe(listener: Listener, close: () => void): () => void {
    this.listeners.add(listener)
    this.closers.add(close)
    return () => {
      this.listeners.delete(listener)
      this.closers.delete(close)
    }
  }

  get open(): number {
    return this.listeners.size
  }

  /** Ends every stream, so that a stopping server does not wait for its browsers. */
  stop() {
    for (const close of [...this.closers]) close()
  }
}

const HEARTBEAT_MS = 15_000
/** Streams at once; a shop has a handful of browsers, and each shares one stream among its tabs. */
const MOST_STREAMS = 500
/** Events that are told one by one to a browser that comes back; beyond it loads afresh. */
const MOST_CAUGHT_UP = 500

/** Id of the newest event. */
async function newestEvent(db: Queryable): Promise<number> {
  const [row] = await db.query<{ id: number }>('select coalesce(max(id), 0) as id from event')
  return Number(row!.id)
}

async function eventsAfter(db: Queryable, after: number): Promise<LiveEvent[]> {
  return db.query<LiveEvent>(
    'select id, kind, job_id as "jobId" from event where id > $1 order by id limit $2',
    [after, MOST_CAUGHT_UP + 1],
  )
}

/** The last event that the browser knows: what it says, or what its stream last heard. */
function knownTo(c: Context): number | undefined {
  const heard = c.req.header('last-event-id')
  if (heard !== undefined && /^\d{1,15}$/.test(heard)) return Number(heard)
  return c.req.query('after') === undefined ? undefined : afterOf(c)
}

/**
 * The event stream: first what happened since the event that the browser knows, then a `hello` with the newest event's id, then what happens,
 * in order and without gaps; a beat every 15 seconds says that the line stands.
 */
export function mountLive(app: Hono, live: Live, db: Database) {
  app.get(endpoints.live.path, (c) => {
    const known = knownTo(c)
    if (live.open >= MOST_STREAMS)
      throw new Refusal(429, 'busy', 'Too many browsers listen already; close some of them.')
    return streamSSE(c, async (stream) => {
      let end = () => {}
      const ended = new Promise<void>((resolve) => (end = resolve))
      let last = known ?? 0
      let ready = false
      const waiting: (LiveEvent | 'lost')[] = []
      const send = (event: LiveEvent) => {
        if (event.id <= last) return
        last = event.id
        stream.writeSSE({ id: String(event.id), event: 'change', data: JSON.stringify(event) }).catch(end)
      }
      const catchUp = async () => {
        const missed = await eventsAfter(db, last)
        if (missed.length > MOST_CAUGHT_UP) {
          last = await newestEvent(db)
          await stream.writeSSE({ id: String(last), event: 'again', data: JSON.stringify({ last }) })
        } else missed.forEach(send)
      }
      const hear = (event: LiveEvent | 'lost') => {
        if (!ready) waiting.push(event)
        else if (event === 'lost') catchUp().catch(end)
        else send(event)
      }
      // heard from here on; what was committed before is read, what comes meanwhile waits
      const release = live.subscribe(hear, end)
      stream.onAbort(end)
      try {
        if (known === undefined) last = await newestEvent(db)
        else await catchUp()
        await stream.writeSSE({ id: String(last), event: 'hello', data: JSON.stringify({ last }) })
        ready = true
        waiting.forEach(hear)
        const beat = setInterval(
          () => stream.writeSSE({ event: 'beat', data: JSON.stringify({ last }) }).catch(end),
          HEARTBEAT_MS,
        )
        await ended
        clearInterval(beat)
      } finally {
        release()
      }
    })
  })
}
