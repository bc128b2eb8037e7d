import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import { endpoints } from '@moray/contract/endpoints'
import type { Gauge } from '@moray/contract/replies'
import type { Told } from '@moray/core/job/event'
import type { Hono } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { write } from '../http/write.ts'
import type { Who } from '../http/who.ts'
import { addGauge, calibrateGauge, changeGauge, retireGauge } from './change-gauges.ts'
import { gaugeHistory, listGauges, theGauge } from './gauges.ts'

export function mountGauges(app: Hono, deps: Deps) {
  const { db, now } = deps
  onRead(app, endpoints.gauges, () => listGauges(db, now()))
  onRead(app, endpoints.gaugeHistory, (_, { id }) => gaugeHistory(db, id, now()))
  onWrite(app, endpoints.addGauge, (c, _, body) =>
    write<Gauge>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const { id, told } = await addGauge(tx, body.checked, who)
        return { told, subject: id, reply: () => theGauge(tx, id, who.at) }
      },
      again: (tx, id) => theGauge(tx, id, now()),
    }),
  )

  /** A change of one gauge, which is held until the commit: of two changes the second sees the first. */
  const onGauge = <E extends Endpoint<`/api/gauges/:id/${string}`, object, Gauge>>(
    endpoint: E,
    change: (tx: Transaction, gauge: Gauge, body: BodyOf<E>, who: Who) => Promise<Told>,
  ) =>
    onWrite(app, endpoint, async (c, params, body) => {
      const { id } = params as unknown as { id: string }
      const reply = await write<Gauge>(c, deps, {
        body: body.text,
        async work(tx, who) {
          await tx.query('select id from gauge where id = $1 for update', [id])
          const told = await change(tx, await theGauge(tx, id, who.at), body.checked, who)
          return { told, subject: id, reply: () => theGauge(tx, id, who.at) }
        },
        again: (tx) => theGauge(tx, id, now()),
      })
      return reply as never
    })
  onGauge(endpoints.changeGauge, changeGauge)
  onGauge(endpoints.calibrateGauge, calibrateGauge)
  onGauge(endpoints.retireGauge, retireGauge)
}
