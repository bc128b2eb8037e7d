import { endpoints, SESSION_COOKIE } from '@moray/contract/endpoints'
import type { Person } from '@moray/contract/replies'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { mustBeLead } from '../request/rights.ts'
import { write } from '../request/write.ts'
import { getCookie, setCookie } from 'hono/cookie'
import { atTheMachine, deviceNumber } from '../devices/known-device.ts'
import { Refusal } from '../http/refusal.ts'
import { sayCode, setCode } from './codes.ts'
import { addPerson, changePerson, listPeople, nobodyYet } from './people.ts'

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
  onWrite(app, endpoints.setCode, (c, { id }, body) =>
    write<Person[]>(c, deps, {
      body: body.text,
      work: async (tx, who) => ({
        told: await setCode(tx, id, body.checked.code, who, {
          machine: atTheMachine(c),
          device: deviceNumber(c),
        }),
        subject: id,
        reply: () => listPeople(tx),
      }),
      again: (tx) => listPeople(tx),
    }),
  )
  onWrite(app, endpoints.sayCode, async (c, { id }, body) => {
    const saying = {
      id,
      code: body.checked.code,
      at: deps.now(),
      device: c.get('client'),
      token: getCookie(c, SESSION_COOKIE) ?? '',
    }
    const said = await deps.db.transaction((tx) => sayCode(tx, saying))
    if (said instanceof Refusal) throw said
    setCookie(c, SESSION_COOKIE, said.token, {
      httpOnly: true,
      sameSite: 'Strict',
      path: '/',
      expires: said.until,
      secure: c.req.header('x-forwarded-proto') === 'https',
    })
    return { until: said.until.toISOString() }
  })
  onWrite(app, endpoints.changePerson, (c, { id }, body) =>
    write<Person[]>(c, deps, {
      body: body.text,
      async work(tx, who) {
        mustBeLead(who, 'Who works here, and as what,')
        const told = await changePerson(tx, id, body.checked)
        return { told, subject: id, reply: () => listPeople(tx) }
      },
      again: (tx) => listPeople(tx),
    }),
  )
}
