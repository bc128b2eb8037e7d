import { endpoints } from '@moray/contract/endpoints'
import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { Shop } from '@moray/contract/replies'
import type { Told } from '@moray/core/job/event'
import type { Context, Hono } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { setLikelihood } from '../faults/faults.ts'
import { atTheMachine } from '../devices/known-device.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { Refusal } from '../http/refusal.ts'
import { mustBeLead } from '../request/rights.ts'
import { write } from '../request/write.ts'
import type { Who } from '../request/who.ts'
import { onJob } from '../job/on-job.ts'
import { chooseJobSchool } from './job-schools.ts'
import { leaveDemo } from './leave-demo.ts'
import { chooseShopSchool, loadShop, setShopRules } from './shop.ts'

export function mountShop(app: Hono, deps: Deps) {
  /** What belongs to the whole shop is changed by its lead. */
  const byLead = <E extends Endpoint<string, object, Shop>>(
    endpoint: E,
    what: string,
    change: (tx: Transaction, body: BodyOf<E>, who: Who, c: Context) => Promise<Told>,
  ) =>
    onWrite(app, endpoint, async (c, _, body) => {
      const reply = await write<Shop>(c, deps, {
        body: body.text,
        work: async (tx, who) => {
          mustBeLead(who, what)
          const told = await change(tx, body.checked, who, c)
          // whoever left the demo is gone with it, and so is the history
          const left = told.kind === 'shop' && told.data.about === 'left-demo'
          return { told: left ? null : told, subject: '', reply: () => loadShop(tx) }
        },
        again: (tx) => loadShop(tx),
      })
      return reply as never
    })
  onRead(app, endpoints.shop, () => loadShop(deps.db))
  byLead(endpoints.chooseShopSchool, 'How the shop works', chooseShopSchool)
  byLead(endpoints.setShopRules, 'The rules of the shop', setShopRules)
  byLead(endpoints.setLikelihood, 'A likelihood of the fault table', setLikelihood)
  byLead(endpoints.leaveDemo, 'To leave the demo', (tx, _, who, c) => {
    if (!atTheMachine(c) && who.code !== 'now')
      throw new Refusal(
        403,
        'machine-only',
        'The demo is left on the machine itself, or by a lead who has a code and has just said it.',
      )
    return leaveDemo(tx)
  })
  onJob(app, deps, endpoints.chooseJobSchool, chooseJobSchool)
}
