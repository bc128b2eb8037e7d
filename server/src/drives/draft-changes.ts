import type { SheetDraft } from '@moray/contract/replies'
import type { CheckFigures, PutRemarks, PutRow, SetFigure } from '@moray/contract/requests/sheets'
import { bodyProblems, mostRows } from '@moray/contract/sheet/body-problems'
import { InputError, refuse } from '@moray/core/checks/input-error'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { groupProblems } from '@moray/core/drives/graph/check-graph'
import { rowName } from '@moray/core/drives/graph/row-name'
import type { Group } from '@moray/core/drives/graph/rows'
import { same } from '@moray/core/drives/own/same'
import { readEntry, variantPath, withEntry, withVariantEntry } from '@moray/core/drives/own/entry'
import { remarksOf, withRemarks } from '@moray/core/drives/own/remarks'
import { rowsAt, withoutRow, withRow } from '@moray/core/drives/own/rows'
import { movedPath, movesOf } from '@moray/core/drives/upgrade/paths'
import { ofVariant } from '@moray/core/drives/own/variants'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { asStored, keepDraft, nameOf, told } from './drafts.ts'

/** One figure of a draft, or of one of its variants. Somebody else may have typed another one there meanwhile: then his stands, and is shown. */
export async function setFigure(
  tx: Transaction,
  { body }: SheetDraft,
  entry: SetFigure,
  who: Who,
): Promise<Told> {
  const variant = entry.variant === undefined ? undefined : body.variants?.find((v) => v.id === entry.variant)
  if (entry.variant !== undefined && !variant)
    refuse('variant', `"${entry.variant}" is no variant of this sheet`)
  const shown = variant ? ofVariant(body, variant) : body
  const name = await nameOf(tx, who)
  const { field, value, source } = readEntry(shown, entry, { at: who.at, ...(name ? { name } : {}) })
  const at = variant ? variantPath(variant.id, field.path) : field.path
  const now = figureAt(shown, field.path)
  if (!same(now, seenOf(entry.was)) && !same(now, value)) {
    const by = body.sources?.find((s) => s.path === at)
    throw new Refusal(
      409,
      'changed-meanwhile',
      `${field.label}: ${by?.by ?? 'somebody'} has entered ${by?.as ?? 'another figure'} meanwhile. Look at it, then enter yours again.`,
      [{ path: 'text', message: `is ${by?.as ?? 'something else'} by now` }],
    )
  }
  const changed = variant
    ? withVariantEntry(body, variant.id, field.path, value, source)
    : withEntry(body, field.path, value, source)
  await keepDraft(tx, body.id, changed, who)
  const label = variant ? `${variant.label}: ${field.label}` : field.label
  return told(body.id, { act: 'figure', name: body.name, label, as: source?.as ?? null })
}

function seenOf(was: string): unknown {
  if (was === '') return undefined
  try {
    return JSON.parse(was)
  } catch {
    return refuse('was', 'is not JSON')
  }
}

type Row = { id: string }
const titleOf = (row: Row) => rowName(row) ?? row.id

/** A row of a list put in place, added, or taken out with what only made sense with it. Somebody else's row is not written over unseen. */
export async function putRow(tx: Transaction, { body }: SheetDraft, put: PutRow, who: Who): Promise<Told> {
  const rows = rowsAt(body, put.list)
  const before = rows.find((r) => r.id === put.id) as Row | undefined
  if (!put.now) {
    if (!before) refuse('id', `"${put.id}" is not in the list`)
    notChanged(before, put.was, undefined)
    await keepDraft(tx, body.id, withoutRow(body, put.list, put.id), who)
    return told(body.id, { act: 'row', name: body.name, row: titleOf(before), out: true })
  }
  const given = put.now[put.list] as Row[] | undefined
  if (given?.length !== 1) refuse(`now.${put.list}`, 'holds one row, the one that is put')
  const row = given[0]!
  if (row.id !== put.id) refuse('id', `is "${put.id}", and the row says "${row.id}"`)
  notChanged(before, put.was, asStored(row))
  if (!before && rows.length >= mostRows(put.list))
    refuse('id', `the list holds at most ${mostRows(put.list)} rows`)
  const changed = asStored(withRow(body, put.list, row, put.at)) as SheetBody
  const mine = put.list === 'groups' ? groupProblems(row as unknown as Group, `now.groups[0]`) : []
  if (mine.length) throw new InputError('bad-row', mine)
  // what was wrong before is no fault of this row
  const old = new Set(bodyProblems(body).map((w) => `${w.path} ${w.message}`))
  const fresh = bodyProblems(changed).filter((w) => !old.has(`${w.path} ${w.message}`))
  if (fresh.length) throw new InputError('bad-row', fresh)
  await keepDraft(tx, body.id, changed, who)
  return told(body.id, { act: 'row', name: body.name, row: titleOf(row), out: false })
}

/** What the sheet says in single lines: cautions, where the plate is, the other half. */
export async function putRemarks(
  tx: Transaction,
  { body }: SheetDraft,
  put: PutRemarks,
  who: Who,
): Promise<Told> {
  notChanged(remarksOf(body), put.was, asStored(put.now))
  await keepDraft(tx, body.id, withRemarks(body, put.now), who)
  return told(body.id, { act: 'row', name: body.name, row: 'Cautions and places', out: false })
}

/** @throws Refusal 409 where what stands there is neither what the writer saw nor what he writes */
function notChanged(stands: unknown, was: string, now: unknown) {
  if (same(stands, seenOf(was)) || same(stands, now)) return
  throw new Refusal(
    409,
    'changed-meanwhile',
    'Somebody has changed this row meanwhile. Look at it, then enter yours again.',
  )
}

/** Figures of a sheet from elsewhere that were now held against the own manual. */
export async function checkFigures(
  tx: Transaction,
  { body }: SheetDraft,
  { paths }: CheckFigures,
  who: Who,
): Promise<Told> {
  const moves = movesOf(body)
  const known = new Set(paths.map((p) => movedPath(p, moves)))
  const open = (body.sources ?? []).filter((s) => s.unchecked && known.has(s.path))
  if (!open.length) refuse('paths', 'name no figure that is still to be checked')
  const sources = body.sources!.map((s) => {
    if (!s.unchecked || !known.has(s.path)) return s
    const { unchecked: _unchecked, ...checked } = s
    return checked
  })
  await keepDraft(tx, body.id, { ...body, sources }, who)
  return told(body.id, { act: 'checked', name: body.name, figures: open.length })
}
