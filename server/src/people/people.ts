import type { Person } from '@moray/contract/replies'
import type { AddPerson, ChangePerson } from '@moray/contract/requests/shop'
import type { PersonSaid, Told } from '@moray/core/job/event'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'

export const listPeople = (db: Queryable) =>
  db.query<Person>(
    'select id, name, role, retired, code_hash is not null as coded from person order by retired, role desc, name',
  )

/** Holds the list of people until the commit, and says whether it is still empty: of two first people at once the second is not the first. */
export async function nobodyYet(tx: Transaction): Promise<boolean> {
  await tx.query('lock table person in share row exclusive mode')
  const [row] = await tx.query<{ n: number }>('select count(*)::int as n from person')
  return row!.n === 0
}

/** An id out of the name, the next free one when it is taken. A twin meets the constraint person_name_once. */
export async function addPerson(tx: Transaction, { name, role }: AddPerson): Promise<Person> {
  const base =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 30) || 'person'
  const taken = new Set((await tx.query<{ id: string }>('select id from person')).map((p) => p.id))
  let id = base
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`
  await tx.query('insert into person (id, name, role) values ($1, $2, $3)', [id, name, role])
  return { id, name, role, retired: false, coded: false }
}

/** Another name or role, or works here no more. A shop keeps a lead: nobody else could change anything of this. */
export async function changePerson(tx: Transaction, id: string, now: ChangePerson): Promise<Told> {
  await tx.query('lock table person in share row exclusive mode')
  const people = await listPeople(tx)
  const was = people.find((p) => p.id === id)
  if (!was) throw notFound('Person', id)
  const leads = (p: PersonSaid) => p.role === 'lead' && !p.retired
  if (!people.some((p) => leads(p.id === id ? now : p)))
    throw new Refusal(409, 'last-lead', `${was.name} is the only lead; make somebody else lead first.`, [
      { path: now.retired ? 'retired' : 'role', message: 'would leave the shop without a lead' },
    ])
  await tx.query('update person set name = $2, role = $3, retired = $4 where id = $1', [
    id,
    now.name,
    now.role,
    now.retired,
  ])
  const said = ({ name, role, retired }: PersonSaid): PersonSaid => ({ name, role, retired })
  return {
    kind: 'shop',
    subject: `person:${id}`,
    data: { about: 'person-changed', was: said(was), now: said(now) },
  }
}
