import { endpoints } from '@moray/contract/endpoints'
import type { Person } from '@moray/contract/replies'
import type { AddPerson } from '@moray/contract/requests/shop'
import type { Hono } from 'hono'
import type { Queryable, Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { Refusal } from '../http/refusal.ts'
import { mustBeLead, write } from '../http/write.ts'

const listPeople = (db: Queryable) =>
  db.query<Person>('select id, name, role from person order by role desc, name')

const nobodyYet = async (tx: Transaction) => {
  // two first people at once: the second waits here, and then is not the first
  await tx.query('lock table person in share row exclusive mode')
  const [row] = await tx.query<{ n: number }>('select count(*)::int as n from person')
  return row!.n === 0
}

export function mountPeople(app: Hono, deps: Deps) {
  onRead(app, endpoints.people, () => listPeople(deps.db))
  onWrite(app, endpoints.addPerson, (c, _, body) =>
    write<Person[]>(c, deps, {
      body: body.text,
      withoutPerson: nobodyYet,
      async work(tx, who) {
        const first = await nobodyYet(tx)
        if (!first) mustBeLead(who, 'To add somebody')
        const person = await addPerson(tx, { ...body.checked, role: first ? 'lead' : body.checked.role })
        who.id = first ? person.id : who.id
        return {
          told: {
            kind: 'shop',
            subject: `person:${person.id}`,
            data: { about: 'person', name: person.name, role: person.role },
          },
          subject: person.id,
          reply: () => listPeople(tx),
        }
      },
      again: (tx) => listPeople(tx),
    }),
  )
}

/** An id out of the name, the next free one when it is taken. */
async function addPerson(tx: Transaction, { name, role }: AddPerson): Promise<Person> {
  const base =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 30) || 'person'
  const taken = new Set(
    (await tx.query<{ id: string; name: string }>('select id, name from person')).flatMap((p) => {
      if (p.name === name)
        throw new Refusal(409, 'name-taken', `${name} works here already; add something to the name.`, [
          { path: 'name', message: 'is there already' },
        ])
      return p.id
    }),
  )
  let id = base
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`
  await tx.query('insert into person (id, name, role) values ($1, $2, $3)', [id, name, role])
  return { id, name, role }
}
