import { endpoints } from '@moray/contract/endpoints'
import type { Gauge } from '@moray/contract/replies'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { onHeld } from '../request/on-held.ts'
import { write } from '../request/write.ts'
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

  const onGauge = onHeld<Gauge>(app, deps, {
    hold: (tx, id) => tx.query('select id from gauge where id = $1 for update', [id]),
    read: theGauge,
  })
  onGauge(endpoints.changeGauge, changeGauge)
  onGauge(endpoints.calibrateGauge, calibrateGauge)
  onGauge(endpoints.retireGauge, retireGauge)
}
