import { EDGE_FIELDS, rowsOf } from '../graph/edge-fields.ts'
import { edgeQuestion } from '../graph/edge-question.ts'
import type { Edges } from '../graph/edges.ts'
import { rowName } from '../graph/row-name.ts'
import type { GraphList } from '../graph/rows.ts'
import { figureAt, withFigure, type SheetBody } from './body.ts'
import { comparedFields } from './differences.ts'
import { withMissingFigure } from './entry.ts'
import type { Source } from './source.ts'
import { ofVariant } from './variants.ts'

/** An edge of a row to another one. */
export interface EdgeAt {
  list: GraphList
  row: string
  field: string
  to: string
}

/** Path of an edge, as sources name it. */
export const edgePath = ({ list, row, field, to }: EdgeAt): string => `${list}.${row}.${field}.${to}`

/** Whether somebody once said that nobody knows whether this edge is there. */
export const isUnknown = (body: SheetBody, edge: EdgeAt): boolean => edgeOf(body, edge) === 'unknown'

const edgeOf = (body: SheetBody, { list, row, field, to }: EdgeAt) =>
  EDGE_FIELDS[list]?.[field]
    ? ((rowsOf(body, list).find((r) => r.id === row)?.[field] ?? {}) as Edges)[to]
    : undefined

/** The body with an edge that was not known, as it was seen at the bench. The source says who saw it. */
export function withEdgeSeen(body: SheetBody, edge: EdgeAt, there: boolean, source: Source): SheetBody {
  const path = edgePath(edge)
  const next = withFigure(body, path, there || undefined)
  return { ...next, sources: [...(body.sources ?? []).filter((s) => s.path !== path), { ...source, path }] }
}

/** A figure of a variant, as sources name it; differences name it within its patch. */
const VARIANT = /^(variants\.[^.]+)\./

/** What was entered at the bench and nobody has confirmed yet: its path, what it is called or asks, and what was entered. */
export function enteredAtBench(body: SheetBody): { path: string; label: string; as: string }[] {
  const labels = new Map(comparedFields(body).map((f) => [f.path, f.label]))
  const named = (lists: readonly GraphList[], id: string) =>
    rowName(lists.flatMap((l) => rowsOf(body, l)).find((r) => r.id === id)) ?? id
  return (body.sources ?? []).flatMap(({ path, kind, atBench, as = '' }) => {
    if (!atBench) return []
    if (kind !== 'seen') return [{ path, label: labels.get(path.replace(VARIANT, '$1.patch.')) ?? path, as }]
    const [list, row, field, to] = path.split('.') as [GraphList, string, string, string]
    const lists = EDGE_FIELDS[list]?.[field] ?? []
    return [{ path, label: edgeQuestion(field, named([list], row), named(lists, to)), as }]
  })
}

/**
 * The published body with what was entered at the bench since: the next job works with it at once, and it stays marked until somebody confirms it. What
 * the published one knows by itself stays as it is.
 */
export function withBenchFigures(published: SheetBody, draft: SheetBody): SheetBody {
  return (draft.sources ?? [])
    .filter((s) => s.atBench)
    .reduce((body, s) => {
      if (s.kind === 'seen') {
        const [list, row, field, to] = s.path.split('.') as [GraphList, string, string, string]
        const edge = { list, row, field, to }
        return isUnknown(body, edge) ? withEdgeSeen(body, edge, s.as === 'yes', s) : body
      }
      const [, variantId, path = s.path] = /^variants\.([^.]+)\.(.+)$/.exec(s.path) ?? []
      const variant = draft.variants?.find((v) => v.id === variantId)
      if (variantId !== undefined && !variant) return body
      const value = figureAt(variant ? ofVariant(draft, variant) : draft, path)
      if (value === undefined) return body
      return withMissingFigure(body, variantId, { path, value, source: { ...s, path } })
    }, published)
}
