import type { Told } from '@moray/core/job/event'
import { endpoints } from '@moray/contract/endpoints'
import type { DrawerLine } from '@moray/contract/replies'
import type { AddLine, LineCut } from '@moray/contract/requests/drawer'
import type { LengthUnit } from '@moray/contract/requests/reading-units'
import { refuse } from '@moray/core/checks/input-error'
import { LEAST_CUT_MM, MOST_CUTS_OF_A_PIECE, type PieceCut } from '@moray/core/setting/shim-problem'
import { showBoth } from '@moray/core/units/format'
import type { Hono } from 'hono'
import type { Queryable, Transaction } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { typedFigure } from '@moray/core/units/typed-figure'
import { notFound } from '../http/refusal.ts'
import { onHeld } from '../request/on-held.ts'
import { write } from '../request/write.ts'
import type { Who } from '../request/who.ts'
import { findLine, listLines, listMovements, moveAll } from './drawer.ts'

export function mountDrawer(app: Hono, deps: Deps) {
  const { db } = deps
  onRead(app, endpoints.drawer, () => listLines(db))
  onRead(app, endpoints.movements, async (_, { id }) => {
    await mustExist(db, id)
    return listMovements(db, id)
  })

  onWrite(app, endpoints.addLine, (c, _, body) =>
    write<DrawerLine>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const { id, told } = await addLine(tx, body.checked, who)
        return { told, subject: id, reply: () => mustExist(tx, id) }
      },
      again: mustExist,
    }),
  )

  const onLine = onHeld<DrawerLine>(app, deps, {
    hold: (tx, id) => tx.query('select id from shim_line where id = $1 for update', [id]),
    read: mustExist,
  })
  onLine(endpoints.addPieces, async (tx, line, body, who) => {
    await moveAll(
      tx,
      [{ lineId: line.id, kind: 'add', delta: body.pieces, reason: body.reason || 'put in' }],
      who,
    )
    return told(line.id, { act: 'add', mm: line.thicknessMm, pieces: body.pieces })
  })
  onLine(endpoints.countLine, async (tx, line, body, who) => {
    await moveAll(
      tx,
      [{ lineId: line.id, kind: 'count', delta: body.count - line.count, reason: body.reason }],
      who,
    )
    return told(line.id, {
      act: 'count',
      mm: line.thicknessMm,
      pieces: body.count,
      was: line.count,
      reason: body.reason,
    })
  })
  onLine(endpoints.correctThickness, async (tx, line, body, who) => {
    const { value: mm } = typedFigure('text', body.text, body.unit, 'shim-piece')
    if (line.cut && mm < line.cut.minMm)
      refuse(
        'text',
        `is ${showBoth(mm, 3)}, thinner than what may be left of these pieces, ${showBoth(line.cut.minMm, 3)}`,
      )
    await tx.query('update shim_line set thickness_mm = $2, text = $3 where id = $1', [
      line.id,
      mm,
      body.text,
    ])
    const reason = `${body.reason} (was ${line.thicknessMm} mm)`
    await moveAll(tx, [{ lineId: line.id, kind: 'correct', delta: 0, reason }], who)
    return told(line.id, { act: 'thickness', mm, wasMm: line.thicknessMm, reason: body.reason })
  })
}

/** A new line under the next number. A twin at the same place meets the constraint shim_line_once. */
async function addLine(tx: Transaction, body: AddLine, who: Who): Promise<{ id: string; told: Told }> {
  // a blank that is ground to a spacer is thicker than any shim
  const { value: mm } = typedFigure('text', body.text, body.unit, 'shim-piece', { confirmed: !!body.cut })
  const cut = body.cut && cutOf(body.cut, body.unit, mm)
  const [row] = await tx.query<{ id: string }>(
    `with next as (
       insert into counter (name, last) values ('line', 1)
       on conflict (name) do update set last = counter.last + 1 returning last
     )
     insert into shim_line (id, place, thickness_mm, text, count, touched_at, cut)
     select 's' || lpad(last::text, greatest(3, length(last::text)), '0'), $1, $2, $3, 0, $4, $5::jsonb from next returning id`,
    [body.place ?? '', mm, body.text, who.at, cut ? JSON.stringify(cut) : null],
  )
  const { id } = row!
  if (body.count > 0)
    await moveAll(tx, [{ lineId: id, kind: 'add', delta: body.count, reason: 'new line' }], who)
  return { id, told: told(id, { act: 'line', mm, pieces: body.count, ...(cut ? { cut } : {}) }) }
}

/** @throws InputError for a step that takes nothing off, or a rest that is thicker than the piece */
function cutOf({ kind, step, least }: LineCut, unit: LengthUnit, mm: number): PieceCut {
  const by = typedFigure('cut.step', step, unit, 'shim-piece', { confirmed: true }).value
  const minMm = typedFigure('cut.least', least, unit, 'shim-piece', { confirmed: true }).value
  if (minMm <= 0 || minMm > mm)
    refuse(
      'cut.least',
      `is ${showBoth(minMm, 3)}; what is left is thicker than 0 and at most the piece itself, ${showBoth(mm, 3)}`,
    )
  if (by < LEAST_CUT_MM || by > mm)
    refuse(
      'cut.step',
      `is ${showBoth(by, 3)}; ${showBoth(LEAST_CUT_MM, 3)} to ${showBoth(mm, 3)} comes off at a time`,
    )
  if ((mm - minMm) / by > MOST_CUTS_OF_A_PIECE)
    refuse(
      'cut.step',
      `makes ${Math.floor((mm - minMm) / by)} thicknesses of one piece; at most ${MOST_CUTS_OF_A_PIECE}. Take a coarser step`,
    )
  return kind === 'laminated' ? { kind, layerMm: by, minMm } : { kind, stepMm: by, minMm }
}

const told = (id: string, data: Extract<Told, { kind: 'drawer' }>['data']): Told => ({
  kind: 'drawer',
  subject: `line:${id}`,
  data,
})

async function mustExist(db: Queryable, id: string): Promise<DrawerLine> {
  const line = await findLine(db, id)
  if (!line) throw notFound('Drawer line', id)
  return line
}
