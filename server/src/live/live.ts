import { randomUUID } from 'node:crypto'
import type { LiveEvent } from '@moray/contract/replies'
import type { Context, Hono } from 'hono'
import { endpoints } from '@moray/contract/endpoints'
import { streamSSE } from 'hono/streaming'
import type { Database, Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import { afterOf } from '../http/after.ts'

/** What a stream hears beside events: some may have been missed, or the shop's history is another one now. */
type Heard = LiveEvent | 'lost' | 'epoch'
type Listener = (event: Heard) => void
/** Kind of the notification that the history of the shop is another one now; no event is of it. */
export const EPOCH = 'epoch'

/** Tells every server on this database that another history begins: event numbers begin again, and whoever listens has to be told. */
export const tellNewEpoch = (db: Queryable): Promise<unknown> =>
  db.query("select pg_notify('moray_' || current_schema(), json_build_object('kind', $1::text)::text)", [
    EPOCH,
  ])

/** Tells every open browser what has been committed, by whichever server: the database itself tells us. */
export class Live {
  private listeners = new Set<Listener>()
  /** Ends of the streams by who has them, the oldest first. */
  private closers = new Map<() => void, string>()
  /** This run of the server: whoever meets another one may have missed what no event number tells. */
  readonly boot: string = randomUUID()

  /** Listens on the database. @returns ends it */
  async follow(db: Database): Promise<() => Promise<void>> {
    return db.listen(
      (payload) => {
        const event = JSON.parse(payload) as LiveEvent | { kind: typeof EPOCH }
        this.tell(event.kind === EPOCH ? 'epoch' : (event as LiveEvent))
      },
      () => this.tell('lost'),
    )
  }

  private tell(event: Heard) {
    for (const listen of this.listeners) listen(event)
  }

  /** Hears every event, for the server itself. @returns a function that ends it */
  listen(listener: Listener): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** @param client whose stream it is: of one that has many, the oldest is closed. @returns a function that ends the subscription */
  subscribe(listener: Listener, close: () => void, client: string): () => void {
    const own = [...this.closers].filter(([, of]) => of === client)
    if (own.length >= MOST_OF_ONE) own[0]![0]()
    this.listeners.add(listener)
    this.closers.set(close, client)
    return () => {
      this.listeners.delete(listener)
      this.closers.delete(close)
    }
  }

  get open(): number {
    return this.closers.size
  }

  /** Ends every stream, so that a stopping server does not wait for its browsers. */
  stop() {
    for (const close of [...this.closers.keys()]) close()
  }
}

const HEARTBEAT_MS = 15_000
/** Streams at once; a shop has a handful of browsers, and each shares one stream among its tabs. */
const MOST_STREAMS = 500
/** Streams of one device: nobody has more tabs without a stream of their own, and one that asks for ever more shuts nobody else out. */
const MOST_OF_ONE = 20
/** Events that are told one by one to a browser that comes back; beyond it loads afresh. */
const MOST_CAUGHT_UP = 500

/** Id of the newest event. */
async function newestEvent(db: Queryable): Promise<number> {
  const [row] = await db.query<{ id: number }>('select coalesce(max(id), 0) as id from event')
  return Number(row!.id)
}

/** Which history this is: another one after the demo was left or a copy was brought back. */
async function epochOf(db: Queryable): Promise<string> {
  const [row] = await db.query<{ epoch: string | null }>(
    "select value #>> '{}' as epoch from setting where key = 'epoch'",
  )
  return row?.epoch ?? ''
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
 * The event stream: first what happened since the event that the browser knows, then a `hello` with the newest event's id, the shop's epoch and this
 * run of the server, then what happens, in order; a beat every 15 seconds says that the line stands. What may have been missed is said by `again`.
 */
export function mountLive(app: Hono, live: Live, db: Database, stillKnown: (c: Context) => Promise<boolean>) {
  app.get(endpoints.live.path, (c) => {
    const known = knownTo(c)
    if (live.open >= MOST_STREAMS)
      throw new Refusal(429, 'busy', 'Too many browsers listen already; close some of them.')
    return streamSSE(c, async (stream) => {
      let end = () => {}
      const ended = new Promise<void>((resolve) => (end = resolve))
      let last = known ?? 0
      let ready = false
      const waiting: Heard[] = []
      const send = (event: LiveEvent) => {
        if (event.id <= last) return
        last = event.id
        stream.writeSSE({ id: String(event.id), event: 'change', data: JSON.stringify(event) }).catch(end)
      }
      const catchUp = async () => {
        const newest = await newestEvent(db)
        const missed = newest < last ? [] : await eventsAfter(db, last)
        // more than is told one by one, or an older history than the browser knows
        if (missed.length > MOST_CAUGHT_UP || newest < last) {
          last = newest
          await stream.writeSSE({ id: String(last), event: 'again', data: JSON.stringify({ last }) })
        } else missed.forEach(send)
      }
      const hello = async () => {
        const data = JSON.stringify({ last, epoch: await epochOf(db), boot: live.boot })
        await stream.writeSSE({ id: String(last), event: 'hello', data })
      }
      const anew = async () => {
        last = await newestEvent(db)
        await hello()
      }
      const hear = (event: Heard) => {
        if (!ready) waiting.push(event)
        else if (event === 'lost') catchUp().catch(end)
        else if (event === 'epoch') anew().catch(end)
        else {
          send(event)
          // a device that is let in no more hears no more either
          if (event.kind === 'shop') stillKnown(c).then((known) => known || end(), end)
        }
      }
      // heard from here on; what was committed before is read, what comes meanwhile waits
      const release = live.subscribe(hear, end, c.get('client'))
      stream.onAbort(end)
      try {
        if (known === undefined) last = await newestEvent(db)
        else await catchUp()
        await hello()
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
