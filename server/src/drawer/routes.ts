import { showBoth } from '@moray/core/units/format'
import { AddLine, AddPieces, CorrectThickness, CountLine } from '@moray/contract/requests/drawer'
import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { readLength } from '../http/lengths.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { write } from '../http/write.ts'
import { findLine, listLines, listMovements, move } from './drawer.ts'

export function mountDrawer(app: Hono, deps: Deps) {
  const { db } = deps
  app.get(routes.drawer, async (c) => c.json(await listLines(db)))

  app.get('/api/drawer/:id/movements', async (c) => {
    await mustExist(db, c.req.param('id'))
    return c.json(await listMovements(db, c.req.param('id')))
  })

  app.post(routes.drawer, async (c) => {
    const body = await readBody(c, AddLine)
    const { mm } = readLength('text', body.text, body.unit, 'shim-piece')
    return write(c, deps, async (tx, who) => {
      const [twin] = await tx.query<{ id: string; place: string }>(
        'select id, place from shim_line where abs(thickness_mm - $1) < 0.0000001 and place = $2',
        [mm, body.place ?? ''],
      )
      if (twin)
        throw new Refusal(
          409,
          'line-exists',
          `The drawer has a line of ${showBoth(mm, 3)} there already; add pieces to it.`,
          [{ path: 'text', message: 'there is a line of this thickness already' }],
        )
      const [row] = await tx.query<{ id: string }>(
        `insert into shim_line (id, place, thickness_mm, text, count, touched_at)
         select 's' || lpad((coalesce(max(substring(id from 2)::int), 0) + 1)::text, 3, '0'), $1, $2, $3, 0, $4 from shim_line
         returning id`,
        [body.place ?? '', mm, body.text.trim(), who.at],
      )
      const id = row!.id
      if (body.count > 0)
        await move(tx, { lineId: id, kind: 'add', delta: body.count, reason: 'new line' }, who)
      return written(tx, id, `New drawer line ${showBoth(mm, 3)}, ${body.count} pieces`)
    })
  })

  app.post('/api/drawer/:id/add', async (c) => {
    const id = c.req.param('id')
    const body = await readBody(c, AddPieces)
    return write(c, deps, async (tx, who) => {
      const line = await mustExist(tx, id)
      await move(tx, { lineId: id, kind: 'add', delta: body.pieces, reason: body.reason ?? 'put in' }, who)
      return written(tx, id, `${body.pieces} pieces of ${showBoth(line.thicknessMm, 3)} put into the drawer`)
    })
  })

  app.post('/api/drawer/:id/count', async (c) => {
    const id = c.req.param('id')
    const body = await readBody(c, CountLine)
    return write(c, deps, async (tx, who) => {
      const line = await mustExist(tx, id)
      await move(tx, { lineId: id, kind: 'count', delta: body.count - line.count, reason: body.reason }, who)
      return written(
        tx,
        id,
        `Counted ${body.count} of ${showBoth(line.thicknessMm, 3)}, was ${line.count}: ${body.reason}`,
      )
    })
  })

  app.post('/api/drawer/:id/thickness', async (c) => {
    const id = c.req.param('id')
    const body = await readBody(c, CorrectThickness)
    const { mm } = readLength('text', body.text, body.unit, 'shim-piece')
    return write(c, deps, async (tx, who) => {
      const line = await mustExist(tx, id)
      const was = showBoth(line.thicknessMm, 3)
      await tx.query('update shim_line set thickness_mm = $2, text = $3 where id = $1', [
        id,
        mm,
        body.text.trim(),
      ])
      const reason = `${body.reason} (was ${was})`
      await move(tx, { lineId: id, kind: 'correct', delta: 0, reason }, who)
      return written(
        tx,
        id,
        `Thickness of a drawer line corrected from ${was} to ${showBoth(mm, 3)}: ${body.reason}`,
      )
    })
  })
}

async function mustExist(db: Pick<Transaction, 'query'>, id: string) {
  const line = await findLine(db, id)
  if (!line) throw notFound('Drawer line', id)
  return line
}

function written(tx: Transaction, id: string, text: string) {
  return { reply: () => mustExist(tx, id), event: { kind: 'drawer', jobId: null, text } }
}
