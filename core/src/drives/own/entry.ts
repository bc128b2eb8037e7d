import { refuse } from '../../checks/input-error.ts'
import { movedPath, movesOf } from '../upgrade/paths.ts'
import { figureAt, withFigure, type SheetBody } from './body.ts'
import { figureFields } from './figures.ts'
import type { FigureField } from './figure-field.ts'
import { readFigure } from './read-figure.ts'
import type { Source, SourceKind } from './source.ts'
import type { PatchValue } from './variant.ts'
import { ofVariant, wholeRange, withPatched } from './variants.ts'

/** A figure as somebody typed it for a sheet. */
export interface Entry {
  path: string
  text: string
  /** Unit of a bare number. */
  unit?: string
  source: SourceKind
  /** Page of the manual, or what it was measured with. */
  where?: string
}

/**
 * A typed figure, understood: the field that it belongs to, its value in canonical units, and its source. An empty text takes the figure away.
 * @throws InputError at `path` when the sheet has no such figure, at `text` when it is not understood
 */
export function readEntry(
  body: SheetBody,
  entry: Entry,
  who: { name?: string; at: Date },
): { field: FigureField; value: unknown; source: Source | undefined } {
  // a page that was opened before the sheet was brought up names the figure as it was
  const path = movedPath(entry.path, movesOf(body))
  const field = figureFields(body).find((f) => f.path === path)
  if (!field) refuse('path', `"${entry.path}" is no figure of this sheet`)
  if (entry.text === '') return { field, value: undefined, source: undefined }
  const { value, as } = readFigure(field, entry.text, entry.unit)
  return {
    field,
    value,
    source: {
      path,
      kind: entry.source,
      as,
      on: who.at.toISOString().slice(0, 10),
      ...(entry.where ? { where: entry.where } : {}),
      ...(who.name ? { by: who.name } : {}),
    },
  }
}

/** The body with a figure and its source. Undefined takes both away. */
export function withEntry(
  body: SheetBody,
  path: string,
  value: unknown,
  source: Source | undefined,
): SheetBody {
  return withSource(withFigure(body, path, value), path, source)
}

/** The body with a figure that is true for one variant only. Undefined, and that variant has the same figure as all others again. */
export function withVariantEntry(
  body: SheetBody,
  variantId: string,
  path: string,
  value: unknown,
  source: Source | undefined,
): SheetBody {
  const at = variantPath(variantId, path)
  const isRange = typeof value === 'object' && value !== null && !Array.isArray(value)
  const patched = (isRange ? wholeRange(value) : value) as PatchValue | undefined
  const variants = (body.variants ?? []).map((v) =>
    v.id === variantId ? { ...v, patch: withPatched(v.patch, path, patched) } : v,
  )
  return withSource({ ...body, variants }, at, source && { ...source, path: at })
}

/** Path of a figure of one variant, as sources name it. */
export const variantPath = (variantId: string, path: string): string => `variants.${variantId}.${path}`

/**
 * The body with a figure that a job was missing, unless the body knows better: it has that figure already, has no place for it, or no longer has the
 * variant that the job works on.
 * @param variantId the variant of the job's sheet; undefined for a sheet without variants, or a job on none of them
 */
export function withMissingFigure(
  body: SheetBody,
  variantId: string | undefined,
  { path, value, source }: { path: string; value: unknown; source: Source | undefined },
): SheetBody {
  const variant = body.variants?.find((v) => v.id === variantId)
  if (variantId !== undefined && !variant) return body
  const shown = variant ? ofVariant(body, variant) : body
  const hasPlace = figureFields(shown).some((f) => f.path === path)
  if (!hasPlace || figureAt(shown, path) !== undefined) return body
  return variant
    ? withVariantEntry(body, variant.id, path, value, source)
    : withEntry(body, path, value, source)
}

function withSource(body: SheetBody, path: string, source: Source | undefined): SheetBody {
  const others = (body.sources ?? []).filter((s) => s.path !== path)
  return { ...body, sources: source ? [...others, source] : others }
}
