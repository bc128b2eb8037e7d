import type { SheetDraft } from '@moray/contract/replies'
import type { MoveRow, PutRow, PutRows, UndoChange } from '@moray/contract/requests/sheets'
import { bodyProblems, mostRows } from '@moray/contract/sheet/body-problems'
import { InputError, refuse, type FieldProblem } from '@moray/core/checks/input-error'
import { lostEdges } from '@moray/core/drives/graph/edge-fields'
import { groupProblems } from '@moray/core/drives/graph/check-graph'
import { rowName } from '@moray/core/drives/graph/row-name'
import type { Group } from '@moray/core/drives/graph/rows'
import type { SheetBody } from '@moray/core/drives/own/body'
import { undone, type RowChange } from '@moray/core/drives/own/row-changes'
import { movedRow, rowsAt, withoutRow, withRow } from '@moray/core/drives/own/rows'
import type { Source } from '@moray/core/drives/own/source'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { asStored, changeDraft, nameOf, told } from './drafts.ts'
import { notChanged } from './seen.ts'

type Row = { id: string }
const titleOf = (row: Row) => rowName(row) ?? row.id

/** A row of a list put in place, added, or taken out with what only made sense with it. Somebody else's row is not written over unseen. */
export async function putRow(tx: Transaction, { body }: SheetDraft, put: PutRow, who: Who): Promise<Told> {
  const rows = rowsAt(body, put.list)
  const before = rows.find((r) => r.id === put.id) as Row | undefined
  if (!put.now) {
    if (!before) refuse('id', `"${put.id}" is not in the list`)
    notChanged(before, put.was, undefined)
    await changeDraft(tx, body, withoutRow(body, put.list, put.id), who)
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
  const fresh = newProblems(body, changed)
  if (fresh.length) throw new InputError('bad-row', fresh)
  await changeDraft(tx, body, changed, who)
  return told(body.id, { act: 'row', name: body.name, row: titleOf(row), out: false })
}

/** Rows of a list typed or pasted at once: all of them are put in place, or none, and everything that is wrong with them is said. */
export async function putRows(tx: Transaction, { body }: SheetDraft, put: PutRows, who: Who): Promise<Told> {
  const { list } = put
  const given = put.now[list] as Row[] | undefined
  if (!given?.length) refuse(`now.${list}`, 'holds the rows that are put')
  const seen = new Map(put.seen.map((s) => [s.id, s.was]))
  for (const row of given)
    notChanged(
      rowsAt(body, list).find((r) => r.id === row.id),
      seen.get(row.id) ?? '',
      asStored(row),
    )
  const fresh = given.filter((row) => !rowsAt(body, list).some((r) => r.id === row.id))
  const most = mostRows(list)
  if (rowsAt(body, list).length + fresh.length > most)
    refuse(
      `now.${list}`,
      `would make ${rowsAt(body, list).length + fresh.length} rows; the list holds at most ${most}`,
    )
  const twice = given.findIndex((row, i) => given.findIndex((r) => r.id === row.id) < i)
  if (twice >= 0) refuse(`now.${list}[${twice}].id`, `"${given[twice]!.id}" is used twice`)
  const withAll = given.reduce<SheetBody>((b, row) => {
    const at = put.at === undefined ? undefined : put.at + Math.max(0, fresh.indexOf(row))
    return withRow(b, list, row, at)
  }, body)
  const changed = asStored(withPrinted(withAll, put, await nameOf(tx, who), who)) as SheetBody
  const mine =
    list === 'groups' ? given.flatMap((g, i) => groupProblems(g as unknown as Group, `now.groups[${i}]`)) : []
  if (mine.length) throw new InputError('bad-row', mine)
  const wrong = newProblems(body, changed).map((w) => asGiven(w, changed, list, given))
  if (wrong.length) throw new InputError('bad-row', wrong)
  await changeDraft(tx, body, changed, who)
  return told(body.id, { act: 'rows', name: body.name, list, rows: given.length })
}

/** What is wrong by now and was not before: that is no fault of these rows. */
function newProblems(before: SheetBody, after: SheetBody): FieldProblem[] {
  const old = new Set(bodyProblems(before).map((w) => `${w.path} ${w.message}`))
  return bodyProblems(after).filter((w) => !old.has(`${w.path} ${w.message}`))
}

/** A problem of a row by its place among the rows that were sent. */
function asGiven(
  { path, message }: FieldProblem,
  body: SheetBody,
  list: PutRows['list'],
  given: readonly Row[],
) {
  const [, index, rest = ''] = new RegExp(`^${list}\\[(\\d+)\\](.*)$`).exec(path) ?? []
  const row = index === undefined ? undefined : rowsAt(body, list)[Number(index)]
  const at = given.findIndex((r) => r.id === row?.id)
  return { path: at < 0 ? path : `now.${list}[${at}]${rest}`, message }
}

/** Figures of rows, each with the source that it was typed from. */
function withPrinted(body: SheetBody, put: PutRows, by: string | undefined, who: Who): SheetBody {
  if (!put.printed?.length || !put.source) return body
  const ids = new Set((put.now[put.list] as Row[]).map((r) => r.id))
  const on = who.at.toISOString().slice(0, 10)
  const fresh = put.printed.map(({ path, text }, i): Source => {
    const [list, id] = path.split('.')
    if (list !== put.list || !ids.has(id!)) refuse(`printed[${i}].path`, 'names a figure of another row')
    return {
      path,
      kind: put.source!,
      as: text,
      on,
      ...(put.where ? { where: put.where } : {}),
      ...(by ? { by } : {}),
    }
  })
  const paths = new Set(fresh.map((s) => s.path))
  return { ...body, sources: [...(body.sources ?? []).filter((s) => !paths.has(s.path)), ...fresh] }
}

/** A row goes before another one of its list, or to the end. */
export async function moveRow(tx: Transaction, { body }: SheetDraft, move: MoveRow, who: Who): Promise<Told> {
  const ids = rowsAt(body, move.list).map((r) => r.id)
  if (!ids.includes(move.id)) refuse('id', `"${move.id}" is not in the list`)
  if (move.before && !ids.includes(move.before)) refuse('before', `"${move.before}" is not in the list`)
  await changeDraft(tx, body, movedRow(body, move.list, move.id, move.before || undefined), who)
  return told(body.id, { act: 'moved', name: body.name, list: move.list, rows: 1 })
}

/**
 * Takes a change of the draft back. What was changed after it stays; where that is the very same row, it is refused. Of two who take it back at once the
 * second waits for the draft, and is told.
 */
export async function undoChange(
  tx: Transaction,
  { body }: SheetDraft,
  { change }: UndoChange,
  who: Who,
): Promise<Told> {
  const [found] = await tx.query<{ changes: RowChange[]; undone: boolean }>(
    `select changes, exists (select 1 from sheet_draft_change u where u.undoes = c.id) as undone
     from sheet_draft_change c where id = $1 and drive = $2`,
    [change, body.id],
  )
  if (!found) throw notFound('Change of the draft', String(change))
  if (found.undone) throw new Refusal(409, 'undone-already', 'That is undone already.')
  const before = undone(body, found.changes)
  if (Array.isArray(before)) {
    const { at, id } = before[0]!
    const row = id === undefined ? undefined : (rowsNamed(body, at).find((r) => r.id === id) ?? undefined)
    throw new Refusal(
      409,
      'changed-meanwhile',
      `${row ? titleOf(row) : 'That'} was changed again after this. Undo the newer change first, or type it over.`,
    )
  }
  const lost = lostEdges(before)[0]
  if (lost)
    throw new Refusal(
      409,
      'still-led-to',
      'Another row leads to this one by now. Take that out first, or strike the row out of its list.',
    )
  const wrong = newProblems(body, before)
  if (wrong.length) throw new InputError('bad-row', wrong)
  await changeDraft(tx, body, before, who, change)
  const rows = found.changes.filter((c) => c.at !== 'sources')
  return told(body.id, {
    act: 'undone',
    name: body.name,
    list: rows[0]?.at ?? 'sources',
    rows: rows.length || 1,
  })
}

const rowsNamed = (body: SheetBody, name: string): readonly Row[] => {
  const rows = (body as unknown as Record<string, unknown>)[name]
  return Array.isArray(rows) ? (rows as Row[]) : []
}
