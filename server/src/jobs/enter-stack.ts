import { refuse } from '@moray/core/checks/input-error'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { shimAdjusters } from '@moray/core/drives/sheet'
import { showBoth } from '@moray/core/units/format'
import { PLAUSIBLE_MM } from '@moray/core/units/plausible'
import type { EnterStack } from '@moray/contract/requests/setting'
import type { Transaction } from '../db/database.ts'
import { findLine } from '../drawer/drawer.ts'
import { readLength } from '../http/lengths.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../http/write.ts'
import type { LoadedBuild } from './builds.ts'

interface Piece {
  mm: number
  text: string
}

/**
 * Records a stack as it was found. The pieces become the case's own: they can be built in again and do not
 * touch the drawer's stock. An earlier entry of the same stack is superseded and needs a reason.
 * @returns a sentence for the job's history
 */
export async function enterStack(
  tx: Transaction,
  sheet: DriveSheet,
  builds: LoadedBuild[],
  body: EnterStack,
  who: Who,
): Promise<string> {
  const stack = shimAdjusters(sheet).find((a) => a.id === body.location)
  if (!stack) refuse('location', `"${body.location}" is no stack of ${sheet.name}`)
  if (builds.length > 1)
    throw new Refusal(
      409,
      'too-late',
      'Trials have been built from what was found; the found stacks can no longer change.',
    )
  const found = builds[0]
  if (!found) throw new Error('a job always has its as-found build')
  if (found.accepted)
    throw new Refusal(
      409,
      'accepted',
      'What was found is accepted as built; go round again before its stacks change.',
    )

  const pieces: Piece[] = []
  for (const [i, p] of body.pieces.entries()) pieces.push(await readPiece(tx, p, `pieces[${i}]`, body))
  const total = pieces.reduce((sum, p) => sum + p.mm, 0)
  if (total > PLAUSIBLE_MM['shim-stack'].max && !body.confirmed)
    refuse(
      'pieces',
      `add up to ${showBoth(total, 3)}; a stack is at most ${PLAUSIBLE_MM['shim-stack'].max} mm. Check the units`,
      'implausible',
    )

  const earlier = found.stacks.find((s) => s.location === stack.id && !s.superseded)
  if (earlier && !body.reason?.trim())
    throw new Refusal(
      409,
      'reason-needed',
      `${stack.label} are entered already; say why the entry changes.`,
      [{ path: 'reason', message: 'is missing; the earlier entry stays in the record' }],
    )
  const [row] = await tx.query<{ id: number }>(
    'insert into stack (build_id, location, by_person, at) values ($1, $2, $3, $4) returning id',
    [found.rowId, stack.id, who.id, who.at],
  )
  for (const [i, p] of pieces.entries())
    await tx.query(
      'insert into stack_piece (stack_id, position, thickness_mm, text) values ($1, $2, $3, $4)',
      [row!.id, i, p.mm, p.text],
    )
  if (earlier)
    await tx.query('insert into stack_superseded (stack_id, reason, by_person, at) values ($1, $2, $3, $4)', [
      earlier.id,
      body.reason!.trim(),
      who.id,
      who.at,
    ])
  const again = earlier ? ` (was ${showBoth(earlier.thicknessMm, 3)}: ${body.reason!.trim()})` : ''
  return `${stack.label} as found: ${pieces.length} pieces, ${showBoth(total, 3)}${again}`
}

async function readPiece(
  tx: Transaction,
  p: { text?: string; lineId?: string },
  path: string,
  body: EnterStack,
): Promise<Piece> {
  if ((p.text === undefined) === (p.lineId === undefined))
    refuse(path, 'needs either a thickness or a drawer line, one of the two')
  if (p.lineId !== undefined) {
    const line = await findLine(tx, p.lineId)
    if (!line) refuse(`${path}.lineId`, `"${p.lineId}" is no line of the drawer`)
    return { mm: line.thicknessMm, text: line.text }
  }
  const { mm } = readLength(`${path}.text`, p.text!, body.unit, 'shim-piece', {
    confirmed: body.confirmed ?? false,
  })
  if (mm <= 0) refuse(`${path}.text`, `"${p.text}" is no thickness; a piece is thicker than 0`)
  return { mm, text: p.text!.trim() }
}
