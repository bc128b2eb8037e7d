import { createHash } from 'node:crypto'
import type { Standing } from '@moray/core/job/standing'
import type { Told } from '@moray/core/job/event'
import { PERSON_HEADER, REQUEST_HEADER, SESSION_COOKIE } from '@moray/contract/endpoints'
import type { Context } from 'hono'
import { getCookie } from 'hono/cookie'
import type { Transaction } from '../db/database.ts'
import { withRetries } from '../db/sqlstate.ts'
import type { Deps } from '../deps.ts'
import { markColumns, type Mark } from '../job/record-shelf.ts'
import { hashOf } from '../devices/tokens.ts'
import { SESSION_MS } from '../people/session.ts'
import { Refusal } from './refusal.ts'
import type { Who } from './who.ts'

/** So long after a code was said it still signs. */
const SIGNING_MS = 2 * 60_000

/** What a write has done, before it is written into the history. */
export interface Done<Reply> {
  told: Told | null
  /** The job it belongs to, with where it stands now. */
  job?: { id: string; standing: Standing }
  /** What a repeated request is answered about: a job's or a line's id. */
  subject: string
  /** @param eventId of the event that this write left; 0 without one */
  reply: (eventId: number) => Promise<Reply>
  /** Called once it is committed. @param row of the job as it was written, see {@link Mark} */
  committed?: (end: Pick<Mark, 'row' | 'event'>) => void
}

export interface Write<Reply> {
  /** Bytes of the body, as they came. */
  body: string | Uint8Array
  /** The job that is locked until the end. */
  lock?: string
  /** @param mark of the job that is locked */
  work: (tx: Transaction, who: Who, mark: Mark) => Promise<Done<Reply>>
  /** The answer to a request that was done before, from the present state. */
  again: (tx: Transaction, subject: string) => Promise<Reply>
  /** True where somebody may write before anybody is known. */
  withoutPerson?: (tx: Transaction) => Promise<boolean>
}

interface Opening extends Mark {
  role: Who['role'] | null
  route: string | null
  body_hash: string | null
  subject: string | null
  /** A code is asked for under this name. */
  coded: boolean
  /** It was said on this device, and still holds. */
  said: boolean
  /** It was said a moment ago. */
  now: boolean
}

/**
 * Who writes, whether this request came before, and the job's mark: one statement. The job is locked together with the other case of its unit, which
 * stands by what happens here; always in the order of their ids, so that two who write to both never wait for each other.
 */
const OPEN = `with held as materialized (
    select id, xmin::text as row from job where id = $3 or id in (select other_id from job_unit where job_id = $3) order by id for update
  )
  select (select role from person where id = $1 and not retired) as role, r.route, r.body_hash, r.subject,
  ${markColumns('$3', 'select row from held where id = $3')},
  exists (select 1 from person where id = $1 and code_hash is not null) as coded,
  exists (select 1 from person_session where token_hash = $4 and person_id = $1 and ends_at > $5) as said,
  exists (select 1 from person_session where token_hash = $4 and person_id = $1 and ends_at > $6 and at <= $5) as now
  from (values (1)) v left join request_log r on r.id = $2`

/** The event (sealed and numbered by its trigger), the job's standing and the request: one statement, the last before the commit. */
const FINISH = `with told as (
    insert into event (at, by_person, kind, job_id, subject, data)
    select $1::timestamptz, $2, $3, $4, $5, $6::jsonb where $3::text is not null returning id
  ), touched as (
    update job set touched_at = $1, state = $7, stage = $8, waits = $9::jsonb where id = $4 and $7::text is not null returning xmin::text as row
  ), logged as (
    insert into request_log (id, route, body_hash, status, subject, event_id, at)
    select $10, $11, $12, 201, $13, (select id from told), $1 where $10::text is not null returning 1
  )
  select (select id from told) as event, (select row from touched) as row, (select count(*) from logged) as written`

/**
 * The one way in which anything is written: one transaction reads who writes and locks the job, makes the change, and ends with its event, the
 * job's standing and the request's id in one statement. Collisions with another transaction are tried again.
 * A repeated request id is answered from the present state, without writing; with another body it is refused.
 */
export async function write<Reply>(c: Context, deps: Deps, w: Write<Reply>): Promise<Reply> {
  const requestId = c.req.header(REQUEST_HEADER)
  if (requestId !== undefined && !/^[\w-]{8,64}$/.test(requestId))
    throw new Refusal(
      422,
      'invalid-input',
      `Header ${REQUEST_HEADER} must be 8 to 64 letters, digits, - or _.`,
    )
  const route = c.req.path.slice(0, 200)
  const asked = askedBy(c, deps, w.lock)
  // not by which name or port the server was reached: it may be another one the second time
  const hash = createHash('sha256')
    .update(`${asked.person}\n${c.req.path}${new URL(c.req.url).search}\n`)
    .update(w.body)
    .digest('hex')
  let committed = () => {}
  const reply = await withRetries(() => {
    committed = () => {}
    return deps.db.transaction(async (tx) => {
      const { open, who } = await enter(tx, asked, requestId)
      if (open.body_hash !== null) {
        if (open.body_hash !== hash)
          throw new Refusal(
            409,
            'request-reused',
            'This request id was used for something else; send a fresh one. Nothing was written.',
          )
        return w.again(tx, open.subject!)
      }
      if (open.role === null && !(await w.withoutPerson?.(tx))) mustBeSomebody(who.id)
      const done = await w.work(tx, who, open)
      const { told, job } = done
      const [end] = await tx.query<{ event: number | null; row: string | null }>(FINISH, [
        who.at,
        told ? who.id : null,
        told?.kind ?? null,
        job?.id ?? null,
        told?.subject ?? '',
        JSON.stringify(told?.data ?? {}),
        job?.standing.state ?? null,
        job?.standing.stage ?? null,
        job ? JSON.stringify(job.standing.waits) : null,
        requestId ?? null,
        route,
        hash,
        done.subject,
      ])
      const event = Number(end!.event ?? 0)
      committed = () => done.committed?.({ event, row: end!.row })
      return done.reply(event)
    })
  })
  committed()
  return reply
}

/** What a request says of who asks and when, read before its transaction. */
interface Asked {
  person: string
  session: string
  at: Date
  /** The job that is locked; '' for none. */
  job: string
}

const askedBy = (c: Context, deps: Pick<Deps, 'now'>, job: string | undefined): Asked => ({
  person: personHeader(c),
  session: hashOf(getCookie(c, SESSION_COOKIE) ?? ''),
  at: deps.now(),
  job: job ?? '',
})

/** Locks the job, and finds out who writes. @throws Refusal 401 where the code of that name was not said on this device */
async function enter(tx: Transaction, asked: Asked, requestId = ''): Promise<{ open: Opening; who: Who }> {
  const { person, session, at, job } = asked
  const signing = new Date(at.getTime() + SESSION_MS - SIGNING_MS)
  const [open] = await tx.query<Opening>(OPEN, [person, requestId, job, session, at, signing])
  if (open!.coded && !open!.said) mustSayCode()
  const code = !open!.coded ? 'none' : open!.now ? 'now' : 'today'
  return { open: open!, who: { id: person, role: open!.role ?? 'technician', at, code } }
}

/** Writes what is no evidence, under a name and with the job locked, but without an event or a request id: the same twice is the same. */
export function writeDraft(
  c: Context,
  deps: Pick<Deps, 'db' | 'now'>,
  jobId: string,
  work: (tx: Transaction, who: Who) => Promise<void>,
): Promise<void> {
  const asked = askedBy(c, deps, jobId)
  return withRetries(() =>
    deps.db.transaction(async (tx) => {
      const { open, who } = await enter(tx, asked)
      if (open.role === null) mustBeSomebody(who.id)
      await work(tx, who)
    }),
  )
}

/** The id of whoever writes, as the header names it; '' without one. */
export function personHeader(c: Context): string {
  const id = c.req.header(PERSON_HEADER) ?? ''
  return /^[\w.:-]{1,80}$/.test(id) ? id : ''
}

/** @throws Refusal always: nobody known writes */
export function mustBeSomebody(person: string): never {
  throw new Refusal(
    422,
    'no-person',
    person === ''
      ? 'Say who is working: choose a name at the top of the page.'
      : `Nobody here is called "${person}"; choose a name at the top of the page.`,
    [{ path: PERSON_HEADER, message: 'names nobody who works here' }],
  )
}

/** A signature is the code, said for it: a session of the morning does not sign. @returns whether it is signed; a name without a code signs nothing */
export function signedBy(who: Who, what: string): boolean {
  if (who.code === 'today')
    throw new Refusal(
      401,
      'code-needed',
      `${what} is signed with the code of your name: say it, then do it again.`,
      [{ path: PERSON_HEADER, message: 'has a code that was not said for this signature' }],
    )
  return who.code === 'now'
}

/** @throws Refusal always: under this name nobody writes who has not said its code */
export function mustSayCode(): never {
  throw new Refusal(
    401,
    'code-needed',
    'Under this name a code is asked for first. What you typed is still there; say the code, then send it again.',
    [{ path: PERSON_HEADER, message: 'has a code that was not said on this device' }],
  )
}

/** What only the lead may do is done in a request of his own. */
export function mustBeLead(who: Who, what: string): void {
  if (who.role !== 'lead')
    throw new Refusal(
      403,
      'lead-only',
      `${what} is for the lead of this shop: let him choose his name and do it.`,
      [{ path: PERSON_HEADER, message: 'is not the lead' }],
    )
}
