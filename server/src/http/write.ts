import type { LiveEvent } from '@moray/contract/replies'
import { PERSON_HEADER, REQUEST_HEADER } from '@moray/contract/routes'
import type { Context } from 'hono'
import type { Deps } from '../deps.ts'
import type { Transaction } from '../db/database.ts'
import { Refusal } from './refusal.ts'

export interface Who {
  id: string
  at: Date
}

/** What a write leaves behind beside its own rows. */
export interface Written<T> {
  /** Read after the event is in, so that the answer shows it. */
  reply: () => Promise<T>
  /** null for working state that nobody reads about later. */
  event: { kind: string; jobId: string | null; text: string } | null
  status?: 200 | 201
}

/**
 * The one way in which anything is written: one transaction holds the change, its event row and the answer
 * under the sender's request id. After the commit the event goes out to the open browsers.
 * A repeated request id is answered as the first time, without writing.
 */
export async function write<T extends object>(
  c: Context,
  deps: Deps,
  work: (tx: Transaction, who: Who) => Promise<Written<T>>,
): Promise<Response> {
  const requestId = c.req.header(REQUEST_HEADER)
  if (requestId !== undefined && !/^[\w-]{8,64}$/.test(requestId))
    throw new Refusal(
      422,
      'invalid-input',
      `Header ${REQUEST_HEADER} must be 8 to 64 letters, digits, - or _.`,
    )
  const at = deps.now()
  const done = await deps.db.transaction(async (tx) => {
    if (requestId !== undefined) {
      const [before] = await tx.query<{ route: string; status: number; reply: T }>(
        'select route, status, reply from request_log where id = $1',
        [requestId],
      )
      if (before && before.route !== c.req.path)
        throw new Refusal(
          409,
          'request-reused',
          'This request id was used for something else; send a fresh one.',
        )
      if (before) return { reply: before.reply, status: before.status, event: null }
    }
    const who: Who = { id: await personOf(c, tx), at }
    const { reply, event, status = 201 } = await work(tx, who)
    const published = event && (await record(tx, who, event))
    const answer = await reply()
    if (requestId !== undefined)
      await tx.query(
        'insert into request_log (id, route, status, reply, at) values ($1, $2, $3, $4::jsonb, $5)',
        [requestId, c.req.path, status, JSON.stringify(answer), at],
      )
    return { reply: answer, status, event: published }
  })
  if (done.event) deps.live.publish(done.event)
  return c.json(done.reply, done.status as 200)
}

async function record(
  tx: Transaction,
  who: Who,
  event: { kind: string; jobId: string | null; text: string },
): Promise<LiveEvent> {
  const [row] = await tx.query<{ id: number }>(
    'insert into event (at, by_person, kind, job_id, text) values ($1, $2, $3, $4, $5) returning id',
    [who.at, who.id, event.kind, event.jobId, event.text],
  )
  if (event.jobId !== null)
    await tx.query('update job set touched_at = $2 where id = $1', [event.jobId, who.at])
  return { id: Number(row!.id), kind: event.kind, jobId: event.jobId }
}

async function personOf(c: Context, tx: Transaction): Promise<string> {
  const id = c.req.header(PERSON_HEADER)
  if (!id) throw new Refusal(422, 'no-person', 'Say who is working: choose a name at the top of the page.')
  const [row] = await tx.query('select id from person where id = $1', [id])
  if (!row)
    throw new Refusal(
      422,
      'no-person',
      `Nobody here is called "${id}"; choose a name at the top of the page.`,
    )
  return id
}
