import { refuse } from '@moray/core/checks/input-error'
import { shimAdjusters } from '@moray/core/drives/sheet'
import type { Told } from '@moray/core/job/event'
import { showBoth } from '@moray/core/units/format'
import { PLAUSIBLE, POSSIBLE } from '@moray/core/units/plausible'
import type { EnterStack } from '@moray/contract/requests/setting'
import type { Transaction } from '../db/database.ts'
import { typedFigure } from '@moray/core/units/typed-figure'
import { Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

interface Piece {
  mm: number
  text: string
}

/**
 * Records a stack as it was found. The pieces become the case's own: they can be built in again and do not
 * touch the drawer's stock. An earlier entry of the same stack is superseded and needs a reason.
 */
export async function enterStack({ tx, job, who }: At, body: EnterStack): Promise<Told> {
  const stack = shimAdjusters(job.sheet).find((a) => a.id === body.location)
  if (!stack) refuse('location', `"${body.location}" is no stack of ${job.sheet.name}`)
  if (job.builds.length > 1)
    throw new Refusal(
      409,
      'too-late',
      'Trials have been built from what was found; the found stacks can no longer change.',
    )
  const found = job.builds[0]!
  if (found.acceptance)
    throw new Refusal(
      409,
      'accepted',
      'What was found is accepted as built; go round again before its stacks change.',
    )

  const pieces = await readPieces(tx, body)
  const total = pieces.reduce((sum, p) => sum + p.mm, 0)
  const most = body.confirmed ? POSSIBLE['shim-stack'].max : PLAUSIBLE['shim-stack'].max
  if (total > most)
    refuse(
      'pieces',
      `add up to ${showBoth(total, 3)}; a stack is at most ${most} mm. Check the units`,
      'implausible',
    )

  const earlier = found.stacks.find((s) => s.location === stack.id && !s.superseded)
  if (earlier && !body.reason)
    throw new Refusal(
      409,
      'reason-needed',
      `${stack.label} are entered already; say why the entry changes.`,
      [{ path: 'reason', message: 'is missing; the earlier entry stays in the record' }],
    )
  await tx.query(
    `with stacked as (
       insert into stack (build_id, location, by_person, at) values ($1, $2, $3, $4) returning id
     ), gone as (
       insert into stack_superseded (stack_id, reason, by_person, at)
       select $6, $7, $3, $4 where $6::bigint is not null returning 1
     )
     insert into stack_piece (stack_id, position, thickness_mm, text)
     select s.id, p.n - 1, (p.piece ->> 'mm')::float8, p.piece ->> 'text'
     from stacked s, jsonb_array_elements($5::jsonb) with ordinality p (piece, n)`,
    [
      found.id,
      stack.id,
      who.id,
      who.at,
      JSON.stringify(pieces),
      earlier?.id ?? null,
      earlier ? body.reason! : null,
    ],
  )
  return {
    kind: 'stack',
    subject: `stack:${stack.id}`,
    data: {
      label: stack.label,
      pieces: pieces.length,
      mm: total,
      ...(earlier ? { wasMm: earlier.thicknessMm, reason: body.reason! } : {}),
    },
  }
}

async function readPieces(tx: Transaction, body: EnterStack): Promise<Piece[]> {
  const wanted = body.pieces.flatMap((p) => p.lineId ?? [])
  const lines = wanted.length
    ? await tx.query<{ id: string; thickness_mm: number; text: string }>(
        'select id, thickness_mm, text from shim_line where id = any($1)',
        [wanted],
      )
    : []
  return body.pieces.map((p, i) => {
    const path = `pieces[${i}]`
    if ((p.text === undefined) === (p.lineId === undefined))
      refuse(path, 'needs either a thickness or a drawer line, one of the two')
    if (p.lineId !== undefined) {
      const line = lines.find((l) => l.id === p.lineId)
      if (!line) refuse(`${path}.lineId`, `"${p.lineId}" is no line of the drawer`)
      return { mm: line.thickness_mm, text: line.text }
    }
    const { value: mm } = typedFigure(`${path}.text`, p.text!, body.unit, 'shim-piece', {
      confirmed: body.confirmed ?? false,
    })
    if (mm <= 0) refuse(`${path}.text`, `"${p.text}" is no thickness; a piece is thicker than 0`)
    return { mm, text: p.text! }
  })
}
