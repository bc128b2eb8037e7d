import type { SheetDraft } from '@moray/contract/replies'
import { CSV_ROWS, type ImportList, type ImportSheet } from '@moray/contract/requests/sheets'
import { bodyProblems, mostRows } from '@moray/contract/sheet/body-problems'
import { fromCsv } from '@moray/contract/sheet/csv'
import { InputError, refuse } from '@moray/core/checks/input-error'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { figureFields } from '@moray/core/drives/own/figures'
import type { Group } from '@moray/core/drives/graph/rows'
import { rowsAt, withoutRow } from '@moray/core/drives/own/rows'
import type { Source } from '@moray/core/drives/own/source'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { asStored, changeDraft, startDraft, told } from './drafts.ts'
import { holdDrive } from './sheets.ts'

/** A sheet from elsewhere, as a draft: every figure of it is somebody else's until it was held against the own manual. */
export async function importSheet(
  tx: Transaction,
  body: ImportSheet,
  who: Who,
): Promise<{ id: string; told: Told }> {
  const { version: _version, demo: _demo, ...sheet } = asStored(body.sheet) as SheetBody
  const wrong = bodyProblems(sheet)
  if (wrong.length)
    throw new InputError(
      'bad-sheet',
      wrong.map((w) => ({ ...w, path: `sheet.${w.path}` })),
    )
  await tx.query('insert into drive (id) values ($1) on conflict do nothing', [sheet.id])
  await holdDrive(tx, sheet.id)
  const [open] = await tx.query('select 1 from sheet_draft where id = $1', [sheet.id])
  if (open && !body.anew)
    throw new Refusal(
      409,
      'draft-open',
      `A draft of ${sheet.name} is open here. Publish it first, or throw it away for the one that comes in.`,
      [{ path: 'anew', message: 'says whether the draft that is open may go' }],
    )
  const sources: Source[] = figureFields(sheet)
    .filter((f) => figureAt(sheet, f.path) !== undefined)
    .map((f) => ({
      ...(sheet.sources?.find((s) => s.path === f.path) ?? { path: f.path, kind: f.usual }),
      unchecked: true,
    }))
  await startDraft(tx, sheet.id, { ...sheet, sources }, who)
  return { id: sheet.id, told: told(sheet.id, { act: 'imported', name: sheet.name }) }
}

/** A list out of a table takes the place of the one that is there. */
export async function importList(
  tx: Transaction,
  { body }: SheetDraft,
  given: ImportList,
  who: Who,
): Promise<Told> {
  const most = mostRows(given.list)
  const { rows, numbers } = fromCsv(CSV_ROWS[given.list], given.csv, most)
  const seen = new Set<string>()
  rows.forEach((r, i) => {
    if (seen.has(r.id)) refuse(`row ${numbers[i]}, column id`, `"${r.id}" is used twice`)
    seen.add(r.id)
  })
  // rows within a row have no place in a table: those that stand stay
  const before = new Map(rowsAt(body, given.list).map((r) => [r.id, r as Group]))
  const whole = rows.map((r) => {
    const { pieces, said } = before.get(r.id) ?? {}
    return { ...r, ...(pieces ? { pieces } : {}), ...(said ? { said } : {}) }
  })
  const kept = new Set(rows.map((r) => r.id))
  const without = rowsAt(body, given.list)
    .filter((r) => !kept.has(r.id))
    .reduce<SheetBody>((b, r) => withoutRow(b, given.list, r.id), body)
  const changed = asStored({ ...without, [given.list]: whole }) as SheetBody
  const column = new RegExp(`^${given.list}\\[(\\d+)\\]\\.?(.*)$`)
  const mine = bodyProblems(changed).map((w) => {
    const [, row, field] = column.exec(w.path) ?? []
    return row === undefined
      ? { path: 'table', message: w.message }
      : { path: `row ${numbers[Number(row)]}, column ${field || 'id'}`, message: w.message }
  })
  if (mine.length) throw new InputError('invalid-input', mine)
  await changeDraft(tx, body, changed, who)
  return told(body.id, { act: 'list', name: body.name, list: given.list, rows: rows.length })
}
