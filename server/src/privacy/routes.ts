import { endpoints } from '@moray/contract/endpoints'
import type { Shop } from '@moray/contract/replies'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { atOneMoment } from '../db/at-one-moment.ts'
import { zipAnswer } from '../exchange/zip-answer.ts'
import { onWrite } from '../http/endpoint.ts'
import { mustBeLead } from '../request/rights.ts'
import { write } from '../request/write.ts'
import { loadShop } from '../shop/shop.ts'
import { ownerZip } from './owner-zip.ts'
import { removeOwner } from './remove-owner.ts'

export function mountPrivacy(app: Hono, deps: Deps) {
  app.get(endpoints.ownerZip.path, async (c) => {
    const owner = c.req.query('owner') ?? ''
    return zipAnswer(
      c,
      await atOneMoment(deps.db, (tx) => ownerZip(tx, deps.files, owner, deps.now())),
      'owner.zip',
    )
  })
  onWrite(app, endpoints.removeOwner, (c, _, body) =>
    write<Shop>(c, deps, {
      body: body.text,
      async work(tx, who) {
        mustBeLead(who, 'To take an owner’s name out')
        return { told: await removeOwner(tx, body.checked), subject: '', reply: () => loadShop(tx) }
      },
      again: (tx) => loadShop(tx),
    }),
  )
}
