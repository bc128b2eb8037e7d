import { allEdges, leadsTo, withoutEdges } from '../graph/edge-fields.ts'
import type { Edges } from '../graph/edges.ts'
import { GRAPH_LISTS, type GraphList } from '../graph/rows.ts'
import type { BodyBearing, SheetBody } from './body.ts'

/** Lists of the unit whose rows are put one by one like those of the graph. */
export const UNIT_LISTS = ['levers', 'attitudes'] as const
export type UnitList = (typeof UNIT_LISTS)[number]

/** Lists of a body whose rows are added and taken out one by one. */
export type RowList = 'adjusters' | 'bearings' | 'measures' | 'service' | 'variants' | GraphList | UnitList

type Row = { id: string }
type Rows = readonly Row[]

const isUnitList = (list: RowList): list is UnitList => UNIT_LISTS.some((l) => l === list)
const isGraphList = (list: RowList): list is GraphList => GRAPH_LISTS.some((l) => l === list)

/** The rows of a list, wherever it lies in the body. */
export const rowsAt = (body: SheetBody, list: RowList): Rows =>
  (isUnitList(list) ? body.unit?.[list] : body[list]) ?? []

/** Lists that every sheet has, empty or not. */
const ALWAYS: ReadonlySet<RowList> = new Set(['adjusters', 'bearings', 'measures', 'parts'])

/** The body with another list of rows; a list without rows leaves no trace, so that what was all taken out again equals what was never there. */
export function withRows(body: SheetBody, list: RowList, rows: Rows): SheetBody {
  if (isUnitList(list)) {
    const { [list]: _rows, ...others } = body.unit ?? {}
    const unit = rows.length ? { ...others, [list]: rows } : others
    const { unit: _unit, ...rest } = body
    return Object.keys(unit).length ? ({ ...rest, unit } as SheetBody) : rest
  }
  if (rows.length || ALWAYS.has(list)) return { ...body, [list]: rows } as SheetBody
  const { [list]: _gone, ...rest } = body
  return rest as SheetBody
}

/** The body with a row in the place of the one with its id, or added: at the end, or at a place of its list. */
export function withRow(body: SheetBody, list: RowList, row: Row, at?: number): SheetBody {
  const rows = rowsAt(body, list)
  if (rows.some((r) => r.id === row.id))
    return withRows(
      body,
      list,
      rows.map((r) => (r.id === row.id ? row : r)),
    )
  const place = Math.min(at ?? rows.length, rows.length)
  return withRows(body, list, [...rows.slice(0, place), row, ...rows.slice(place)])
}

/** The body with a row before another one of its list; without one, at the end. */
export function movedRow(body: SheetBody, list: RowList, id: string, before: string | undefined): SheetBody {
  const rows = rowsAt(body, list)
  const row = rows.find((r) => r.id === id)
  if (!row || id === before) return body
  const others = rows.filter((r) => r.id !== id)
  const at = before === undefined ? -1 : others.findIndex((r) => r.id === before)
  const place = at < 0 ? others.length : at
  return withRows(body, list, [...others.slice(0, place), row, ...others.slice(place)])
}

/**
 * The body without a row, and without what only made sense with it: sources of its figures, rules about a measure, shims of a stack, the place
 * of a part on the drawing, edges that led to it. What had to wait for a part or a group that is gone waits for what that one waited for.
 */
export function withoutRow(body: SheetBody, list: RowList, id: string): SheetBody {
  const row = rowsAt(body, list).find((r) => r.id === id)
  const gone = withRows(
    body,
    list,
    rowsAt(body, list).filter((r) => r.id !== id),
  )
  const sources = gone.sources?.filter((s) => !s.path.startsWith(`${list}.${id}.`))
  const clean: SheetBody = { ...gone, ...(sources ? { sources } : {}) }
  if (isGraphList(list)) {
    const { after } = (row ?? {}) as { after?: Edges }
    // what held a part holds what waited for it
    const holders = list === 'parts' ? (body.groups ?? []).filter((g) => g.holds?.[id] !== undefined) : []
    const waited = { ...after, ...Object.fromEntries(holders.map((g) => [g.id, g.holds![id]!])) }
    return withoutEdgesTo(clean, list, id, waited)
  }
  switch (list) {
    case 'adjusters':
      return withoutSetting(withoutPlace(clean, list, id), `seat:${id}`)
    case 'bearings':
      return withoutSetting(withoutPlace(clean, list, id), `bearing:${id}`)
    case 'measures':
      return {
        ...withoutSetting(clean, id),
        ...(sources ? { sources: sources.filter((s) => !s.path.endsWith(`.rules.${id}`)) } : {}),
        adjusters: clean.adjusters.map((a) => {
          if (!a.rules || !(id in a.rules)) return a
          const { [id]: _rule, ...rules } = a.rules
          return { ...a, rules }
        }),
      }
    default:
      return clean
  }
}

function withoutEdgesTo(body: SheetBody, list: GraphList, id: string, waited: Edges): SheetBody {
  const lost = allEdges(body).filter((e) => leadsTo(e, list, id))
  const waiting = new Set(lost.filter((e) => e.field === 'after').map((e) => `${e.list} ${e.row}`))
  const inherit = <T extends { id: string; after?: Edges }>(of: GraphList, rows: readonly T[]): T[] =>
    rows.map((r) =>
      waiting.has(`${of} ${r.id}`) ? { ...r, after: { ...waited, ...withoutId(r.after, id) } } : r,
    )
  const inherited = {
    ...body,
    parts: inherit('parts', body.parts),
    ...(body.groups ? { groups: inherit('groups', body.groups) } : {}),
  }
  return withoutEdges(
    inherited,
    allEdges(inherited).filter((e) => leadsTo(e, list, id)),
  )
}

/** What was said of a setting that is gone. */
const withoutSetting = (body: SheetBody, id: string): SheetBody =>
  body.settings?.some((s) => s.id === id)
    ? withRows(
        body,
        'settings',
        body.settings.filter((s) => s.id !== id),
      )
    : body

function withoutId(edges: Edges | undefined, id: string): Edges {
  const { [id]: _gone, ...left } = edges ?? {}
  return left
}

/** Without the shims that lay at a place of the drawing; what else was there has none any more. */
function withoutPlace(body: SheetBody, list: 'adjusters' | 'bearings', id: string): SheetBody {
  const place = list === 'adjusters' ? `stack:${id}` : `bearing:${id}`
  const shims = body.parts.filter((p) => p.place === place && p.kind === 'shim')
  const left = shims.reduce((b, p) => withoutRow(b, 'parts', p.id), body)
  return {
    ...left,
    ...(list === 'adjusters' ? { bearings: left.bearings.map((b) => unset(b, id)) } : {}),
    parts: left.parts.map((p) => withoutPlaceOf(p, place)),
    ...(left.groups
      ? {
          groups: left.groups.map((g) => ({
            ...withoutPlaceOf(g, place),
            ...(g.pieces ? { pieces: g.pieces.map((p) => withoutPlaceOf(p, place)) } : {}),
          })),
        }
      : {}),
  }
}

function withoutPlaceOf<T extends { place?: string }>(row: T, gone: string): T {
  if (row.place !== gone) return row
  const { place: _place, ...rest } = row
  return rest as T
}

/** A bearing whose stack is gone knows no stack, and no change of torque by it. */
function unset(b: BodyBearing, stack: string): BodyBearing {
  if (b.setting?.by !== stack) return b
  if (b.setting.kind === 'crush') {
    const { by: _by, ...setting } = b.setting
    return { ...b, setting }
  }
  const { by: _by, nmPerMm: _slope, ...setting } = b.setting
  return { ...b, setting }
}
