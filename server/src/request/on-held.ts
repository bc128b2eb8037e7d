import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { Told } from '@moray/core/job/event'
import type { Hono } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onWrite } from '../http/endpoint.ts'
import { write } from './write.ts'
import type { Who } from './who.ts'

/** How one kind of thing is held until the commit, and read. */
export interface Held<T> {
  hold: (tx: Transaction, id: string) => Promise<unknown>
  read: (tx: Transaction, id: string, at: Date) => Promise<T>
}

/** Mounts changes of one thing, which is held until the commit: of two changes at once the second sees what the first has made. */
export const onHeld =
  <T>(app: Hono, deps: Deps, { hold, read }: Held<T>) =>
  <E extends Endpoint<`/api/${string}/:id/${string}`, object, T>>(
    endpoint: E,
    change: (tx: Transaction, subject: T, body: BodyOf<E>, who: Who) => Promise<Told>,
  ): void =>
    onWrite(app, endpoint, async (c, params, body) => {
      const { id } = params as unknown as { id: string }
      const reply = await write<T>(c, deps, {
        body: body.text,
        async work(tx, who) {
          await hold(tx, id)
          const told = await change(tx, await read(tx, id, who.at), body.checked, who)
          return { told, subject: id, reply: () => read(tx, id, who.at) }
        },
        again: (tx) => read(tx, id, deps.now()),
      })
      return reply as never
    })
