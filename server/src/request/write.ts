import { createHash } from 'node:crypto'
import type { Told } from '@moray/core/job/event'
import { PERSON_HEADER, REQUEST_HEADER, SESSION_COOKIE } from '@moray/contract/endpoints'
import type { Context } from 'hono'
import { getCookie } from 'hono/cookie'
import type { Transaction } from '../db/database.ts'
import { withRetries } from '../db/sqlstate.ts'
import type { Deps } from '../deps.ts'
import { Refusal } from '../http/refusal.ts'
import { mustBeSomebody, mustSayCode } from './rights.ts'
import { SESSION_MS, SIGNING_MS } from './session.ts'
import { hashOf } from './tokens.ts'
import type { Who } from './who.ts'

/**
 * SQL that goes along in a statement of ours: a resource locks its rows in the statement that opens a write, and updates them in the one that ends it.
 * By itself each would be a round trip to the database, and a click of a wrench has four.
 */
export interface Alongside {
  /** Common table expressions, without "with". */
  tables: string
  /** Columns of the row that comes back. */
  columns: string
  params: unknown[]
}
/** @param first number of its first parameter: `$first`, `$first+1`, … */
export type AlongsideFrom = (first: number) => Alongside

/** What a write has done, before it is written into the history. */
export interface Done<Reply, Ended = object> {
  told: Told | null
  /** The job that the event belongs to. */
  job?: string
  /** What a repeated request is answered about: a job's or a line's id. */
  subject: string
  /** @param eventId of the event that this write left; 0 without one */
  reply: (eventId: number) => Promise<Reply>
  /** Updated together with the event. */
  ends?: AlongsideFrom
  /** Called once it is committed. */
  committed?: (end: Ended & { event: number }) => void
}

export interface Write<Reply, Opened = object, Ended = object> {
  /** Bytes of the body, as they came. */
  body: string | Uint8Array
  /** Done twice it is as if done once: no request id is kept of it. */
  sameTwice?: boolean
  /** Locked and read until the end. */
  opens?: AlongsideFrom
  /** @param opened the row of {@link Write.opens} */
  work: (tx: Transaction, who: Who, opened: Opened) => Promise<Done<Reply, Ended>>
  /** The answer to a request that was done before, from the present state. */
  again: (tx: Transaction, subject: string) => Promise<Reply>
  /** True where somebody may write before anybody is known. */
  withoutPerson?: (tx: Transaction) => Promise<boolean>
}

interface Opening {
  role: Who['role'] | null
  body_hash: string | null
  subject: string | null
  /** A code is asked for under this name. */
  coded: boolean
  /** It was said on this device, and still holds. */
  said: boolean
  /** It was said a moment ago. */
  now: boolean
}

const NOTHING: AlongsideFrom = () => ({ tables: '', columns: '', params: [] })

/** Who writes, and whether this request came before; $1 to $5. */
const open = ({ tables, columns }: Alongside) => `${tables && `with ${tables}`}
  select (select role from person where id = $1 and not retired) as role, r.body_hash, r.subject,
  exists (select 1 from person where id = $1 and code_hash is not null) as coded,
  exists (select 1 from person_session where token_hash = $3 and person_id = $1 and ends_at > $4) as said,
  exists (select 1 from person_session where token_hash = $3 and person_id = $1 and ends_at > $5 and at <= $4) as now
  ${columns && `, ${columns}`}
  from (values (1)) v left join request_log r on r.id = $2`

/** The event (sealed and numbered by its trigger) and the request, $1 to $10: the last statement before the commit. */
const finish = ({ tables, columns }: Alongside) => `with told as (
    insert into event (at, by_person, kind, job_id, subject, data)
    select $1::timestamptz, $2, $3, $4, $5, $6::jsonb where $3::text is not null returning id
  ), logged as (
    insert into request_log (id, route, body_hash, status, subject, event_id, at)
    select $7, $8, $9, 201, $10, (select id from told), $1 where $7::text is not null
  )${tables && `, ${tables}`}
  select (select id from told) as event${columns && `, ${columns}`}`

/**
 * The one way in which anything is written: one transaction finds out who writes and whether the request came before, locks, makes the change, and
 * ends with its event and the request's id. Collisions with another transaction are tried again.
 * A repeated request id is answered from the present state, without writing; with another body it is refused.
 */
export async function write<Reply, Opened = object, Ended = object>(
  c: Context,
  deps: Pick<Deps, 'db' | 'now'>,
  w: Write<Reply, Opened, Ended>,
): Promise<Reply> {
  const asked = askedBy(c, deps, w)
  let committed = () => {}
  const reply = await withRetries(() => {
    committed = () => {}
    return deps.db.transaction(async (tx) => {
      const { opened, who } = await enter<Opened>(tx, deps, asked, w.opens)
      if (opened.body_hash !== null) {
        if (opened.body_hash !== asked.hash)
          throw new Refusal(
            409,
            'request-reused',
            'This request id was used for something else; send a fresh one. Nothing was written.',
          )
        return w.again(tx, opened.subject!)
      }
      if (opened.role === null && !(await w.withoutPerson?.(tx))) mustBeSomebody(who.id)
      const done = await w.work(tx, who, opened)
      const end = await leave(tx, asked, who, done)
      committed = () => done.committed?.(end)
      return done.reply(end.event)
    })
  })
  committed()
  return reply
}

/** What a request says of itself, read before its transaction. */
interface Asked {
  person: string
  session: string
  /** When it came: what was said as a code is held against it. */
  came: Date
  /** Its id; undefined where the same twice is the same anyway. */
  id: string | undefined
  route: string
  hash: string
}

function askedBy(
  c: Context,
  deps: Pick<Deps, 'now'>,
  { body, sameTwice }: Pick<Write<unknown>, 'body' | 'sameTwice'>,
): Asked {
  const id = c.req.header(REQUEST_HEADER)
  if (id !== undefined && !/^[\w-]{8,64}$/.test(id))
    throw new Refusal(
      422,
      'invalid-input',
      `Header ${REQUEST_HEADER} must be 8 to 64 letters, digits, - or _.`,
    )
  const person = personHeader(c)
  // not by which name or port the server was reached: it may be another one the second time
  const hash = createHash('sha256').update(`${person}\n${c.req.path}${new URL(c.req.url).search}\n`)
  return {
    person,
    session: hashOf(getCookie(c, SESSION_COOKIE) ?? ''),
    came: deps.now(),
    id: sameTwice ? undefined : id,
    route: c.req.path.slice(0, 200),
    hash: hash.update(body).digest('hex'),
  }
}

/** The id of whoever writes, as the header names it; '' without one. */
function personHeader(c: Context): string {
  const id = c.req.header(PERSON_HEADER) ?? ''
  return /^[\w.:-]{1,80}$/.test(id) ? id : ''
}

/** Locks, and finds out who writes. @throws Refusal 401 where the code of that name was not said on this device */
async function enter<Opened>(
  tx: Transaction,
  deps: Pick<Deps, 'now'>,
  { person, session, came, id }: Asked,
  opens: AlongsideFrom = NOTHING,
): Promise<{ opened: Opening & Opened; who: Who }> {
  const signing = new Date(came.getTime() + SESSION_MS - SIGNING_MS)
  const own = [person, id ?? '', session, came, signing]
  const along = opens(own.length + 1)
  const [opened] = await tx.query<Opening & Opened>(open(along), [...own, ...along.params])
  const { coded, said, now, role } = opened!
  if (coded && !said) mustSayCode()
  const code = !coded ? 'none' : now ? 'now' : 'today'
  // its turn may have come long after the request: the act is dated when nobody else can date one before it
  return { opened: opened!, who: { id: person, role: role ?? 'technician', at: deps.now(), code } }
}

/** Writes the event and the request's id; nothing where there is neither, nor anything alongside. */
async function leave<Ended>(
  tx: Transaction,
  { id, route, hash }: Asked,
  who: Who,
  { told, job, subject, ends }: Done<unknown, Ended>,
): Promise<Ended & { event: number }> {
  if (!told && id === undefined && !ends) return { event: 0 } as Ended & { event: number }
  const own = [
    who.at,
    told ? who.id : null,
    told?.kind ?? null,
    job ?? null,
    told?.subject ?? '',
    JSON.stringify(told?.data ?? {}),
    id ?? null,
    route,
    hash,
    subject,
  ]
  const along = (ends ?? NOTHING)(own.length + 1)
  const [end] = await tx.query<Ended & { event: number | null }>(finish(along), [...own, ...along.params])
  return { ...end!, event: Number(end!.event ?? 0) }
}
