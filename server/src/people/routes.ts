import type { Person } from '@moray/contract/replies'
import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'

export function mountPeople(app: Hono, { db }: Deps) {
  app.get(routes.people, async (c) =>
    c.json(await db.query<Person>('select id, name, role from person order by role desc, name')),
  )
}
