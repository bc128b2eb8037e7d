import type { SheetDraft } from '@moray/contract/replies'
import type { CheckFigures, PutFurther, PutRemarks, PutRow, SetFigure } from '@moray/contract/requests/sheets'
import { bodyProblems, mostRows } from '@moray/contract/sheet/body-problems'
import { InputError, refuse } from '@moray/core/checks/input-error'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { fastenerProblems } from '@moray/core/drives/own/fastener-problems'
import { same } from '@moray/core/drives/own/differences'
import { readEntry, variantPath, withEntry, withVariantEntry } from '@moray/core/drives/own/entry'
import { furtherRow, withFurther, withFurtherRow } from '@moray/core/drives/own/further-rows'
import { withoutRow, type RowList } from '@moray/core/drives/own/rows'
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
  const at = variant ? variantPath(variant.id, entry.path) : entry.path
  const now = figureAt(shown, entry.path)
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
    ? withVariantEntry(body, variant.id, entry.path, value, source)
    : withEntry(body, entry.path, value, source)
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

type Rows = { id: string; label?: string; name?: string; what?: string }[]
const FIELD: Record<RowList, keyof PutRow> = {
  adjusters: 'adjuster',
  bearings: 'bearing',
  measures: 'measure',
  parts: 'part',
  fasteners: 'fastener',
  service: 'interval',
  variants: 'variant',
}

/** A row of a list put in place, added, or taken out with what only made sense with it. Somebody else's row is not written over unseen. */
export async function putRow(tx: Transaction, { body }: SheetDraft, put: PutRow, who: Who): Promise<Told> {
  const rows = (body[put.list] ?? []) as Rows
  const before = rows.find((r) => r.id === put.id)
  if (put.remove) {
    if (!before) refuse('id', `"${put.id}" is not in the list`)
    notChanged(before, put.was, undefined)
    await keepDraft(tx, body.id, withoutRow(body, put.list, put.id), who)
    return told(body.id, {
      act: 'row',
      name: body.name,
      row: before.label ?? before.name ?? before.what ?? put.id,
      out: true,
    })
  }
  const given = put[FIELD[put.list]] as Rows[number] | undefined
  if (!given) refuse(FIELD[put.list], `is missing: the row for ${put.list}`)
  if (given.id !== put.id) refuse('id', `is "${put.id}", and the row says "${given.id}"`)
  notChanged(before, put.was, asStored(given))
  const at = Math.min(put.at ?? rows.length, rows.length)
  const next = before
    ? rows.map((r) => (r.id === put.id ? given : r))
    : [...rows.slice(0, at), given, ...rows.slice(at)]
  const changed = { ...body, [put.list]: next } as SheetBody
  if (next.length > mostRows(put.list)) refuse('id', `the list holds at most ${mostRows(put.list)} rows`)
  const mine = put.list === 'fasteners' ? fastenerProblems(given as never, 'fastener') : []
  if (mine.length) throw new InputError('bad-row', mine)
  // what was wrong before is no fault of this row
  const old = new Set(bodyProblems(body).map((w) => `${w.path} ${w.message}`))
  const fresh = bodyProblems(changed).filter((w) => !old.has(`${w.path} ${w.message}`))
  if (fresh.length) throw new InputError('bad-row', fresh)
  await keepDraft(tx, body.id, changed, who)
  return told(body.id, {
    act: 'row',
    name: body.name,
    row: given.label ?? given.name ?? given.what ?? given.id,
    out: false,
  })
}

/** A row of seals, tools, propellers and the like, put in place, added, or taken out. Somebody else's row is not written over unseen. */
export async function putFurther(
  tx: Transaction,
  { body }: SheetDraft,
  put: PutFurther,
  who: Who,
): Promise<Told> {
  const before = furtherRow(body, put.list, put.id)
  const given = put.now?.[put.list] as
    | { id: string; name?: string; act?: string; place?: string }[]
    | undefined
  if (put.now && given?.length !== 1) refuse(`now.${put.list}`, 'holds one row, the one that is put')
  const row = given?.[0]
  if (row && row.id !== put.id) refuse('id', `is "${put.id}", and the row says "${row.id}"`)
  if (!row && !before) refuse('id', `"${put.id}" is not in the list`)
  notChanged(before, put.was, row && asStored(row))
  await keepDraft(tx, body.id, withFurtherRow(body, put.list, put.id, row), who)
  const named = (row ?? before) as { name?: string; act?: string; place?: string }
  return told(body.id, {
    act: 'row',
    name: body.name,
    row: named.name ?? named.act ?? named.place ?? put.id,
    out: !row,
  })
}

const REMARKS = ['cautions', 'trimTab', 'partner', 'plateAt', 'stampsAt'] as const

/** What the sheet says in single lines: cautions, where the plate is, the other half. */
export async function putRemarks(
  tx: Transaction,
  { body }: SheetDraft,
  put: PutRemarks,
  who: Who,
): Promise<Told> {
  const now = asStored(put.now)
  notChanged(
    Object.fromEntries(REMARKS.flatMap((k) => (body.further?.[k] ? [[k, body.further[k]]] : []))),
    put.was,
    now,
  )
  const lists = Object.fromEntries(
    Object.entries(body.further ?? {}).filter(([k]) => !REMARKS.some((r) => r === k)),
  )
  await keepDraft(tx, body.id, withFurther(body, { ...lists, ...put.now }), who)
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
  const known = new Set(paths)
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
