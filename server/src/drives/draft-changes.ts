import type { SheetDraft } from '@moray/contract/replies'
import type { CheckFigures, PutRemarks, SetFigure } from '@moray/contract/requests/sheets'
import { refuse } from '@moray/core/checks/input-error'
import { figureAt } from '@moray/core/drives/own/body'
import { same } from '@moray/core/drives/own/same'
import { readEntry, variantPath, withEntry, withVariantEntry } from '@moray/core/drives/own/entry'
import { remarksOf, withRemarks } from '@moray/core/drives/own/remarks'
import { movedPath, movesOf } from '@moray/core/drives/upgrade/paths'
import { ofVariant } from '@moray/core/drives/own/variants'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { asStored, changeDraft, nameOf, told } from './drafts.ts'
import { notChanged, seenOf } from './seen.ts'

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
  await changeDraft(tx, body, changed, who)
  const label = variant ? `${variant.label}: ${field.label}` : field.label
  return told(body.id, { act: 'figure', name: body.name, label, as: source?.as ?? null })
}

/** What the sheet says in single lines: cautions, where the plate is, the other half. */
export async function putRemarks(
  tx: Transaction,
  { body }: SheetDraft,
  put: PutRemarks,
  who: Who,
): Promise<Told> {
  notChanged(remarksOf(body), put.was, asStored(put.now))
  await changeDraft(tx, body, withRemarks(body, put.now), who)
  return told(body.id, { act: 'row', name: body.name, row: 'Cautions and places', out: false })
}

/** Figures of a sheet from elsewhere, or entered at the bench, that were now held against the own manual. */
export async function checkFigures(
  tx: Transaction,
  { body }: SheetDraft,
  { paths }: CheckFigures,
  who: Who,
): Promise<Told> {
  const moves = movesOf(body)
  const known = new Set(paths.map((p) => movedPath(p, moves)))
  const open = (body.sources ?? []).filter((s) => (s.unchecked || s.atBench) && known.has(s.path))
  if (!open.length) refuse('paths', 'name no figure that is still to be checked')
  const sources = body.sources!.map((s) => {
    if (!known.has(s.path)) return s
    const { unchecked: _unchecked, atBench: _atBench, ...checked } = s
    return checked
  })
  await changeDraft(tx, body, { ...body, sources }, who)
  return told(body.id, { act: 'checked', name: body.name, figures: open.length })
}
