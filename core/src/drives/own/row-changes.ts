import type { SheetBody } from './body.ts'
import { same } from './same.ts'

/**
 * One thing that a change of a draft has changed: a row of a list, named by its id (sources by their path), the order of a list, or a value that is
 * no list.
 */
export interface RowChange {
  /** Name in the body; a list of the unit as `unit.levers`. */
  at: string
  /** Id of the row; without one the change is about the whole of it. */
  id?: string
  /** What stood there; left out where nothing did. */
  before?: unknown
  /** What stands there now; left out where nothing does. */
  after?: unknown
  /** Place of the row in its list before it was taken out. */
  place?: number
  /** The rows are the same, in another order: ids before and after. */
  order?: { before: string[]; after: string[] }
}

type Row = Record<string, unknown>
type Rows = readonly Row[]

const keyOf = (at: string) => (at === 'sources' ? 'path' : 'id')
const isRows = (at: string, v: unknown): v is Rows =>
  Array.isArray(v) && v.every((r) => typeof (r as Row | null)?.[keyOf(at)] === 'string')
const idOf = (at: string, row: Row) => row[keyOf(at)] as string

/** The values of a body by name; the unit's own one by one, so that two people can change two of them. */
function values(body: SheetBody): Map<string, unknown> {
  const { unit, ...rest } = body as SheetBody & { unit?: Row }
  return new Map([
    ...Object.entries(rest),
    ...Object.entries(unit ?? {}).map(([name, v]): [string, unknown] => [`unit.${name}`, v]),
  ])
}

/** What has to be done to one body to come to the other, row by row. */
export function changesBetween(from: SheetBody, to: SheetBody): RowChange[] {
  const [before, after] = [values(from), values(to)]
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((at): RowChange[] => {
    const [a, b] = [before.get(at), after.get(at)]
    if (same(a, b)) return []
    const rows = isRows(at, a ?? []) && isRows(at, b ?? []) && (Array.isArray(a) || Array.isArray(b))
    return rows ? rowChanges(at, (a ?? []) as Rows, (b ?? []) as Rows) : [changeOf({ at }, a, b)]
  })
}

const changeOf = (where: RowChange, before: unknown, after: unknown): RowChange => ({
  ...where,
  ...(before === undefined ? {} : { before }),
  ...(after === undefined ? {} : { after }),
})

function rowChanges(at: string, a: Rows, b: Rows): RowChange[] {
  const [was, is] = [new Map(a.map((r) => [idOf(at, r), r])), new Map(b.map((r) => [idOf(at, r), r]))]
  const changed = [...new Set([...was.keys(), ...is.keys()])].flatMap((id): RowChange[] => {
    const [x, y] = [was.get(id), is.get(id)]
    if (same(x, y)) return []
    const place = x && !y ? { place: a.indexOf(x) } : {}
    return [changeOf({ at, id, ...place }, x, y)]
  })
  const [before, after] = [[...was.keys()], [...is.keys()]]
  const stayed = before.filter((id) => is.has(id))
  const moved = !same(
    stayed,
    after.filter((id) => was.has(id)),
  )
  return moved ? [...changed, { at, order: { before, after } }] : changed
}

/** A change that cannot be undone, since somebody has changed the very same thing after it. */
export interface Overtaken {
  at: string
  id?: string
}

/**
 * The body without a change that was made to it; what others have changed meanwhile stays.
 * @returns the body, or what was changed again after that change, so that undoing it would take something away that nobody asked to lose
 */
export function undone(body: SheetBody, changes: readonly RowChange[]): SheetBody | Overtaken[] {
  const now = values(body)
  const overtaken = changes.flatMap(({ at, id, after, order }): Overtaken[] => {
    if (order) return []
    const stands = now.get(at)
    const found = id === undefined ? stands : ((stands ?? []) as Rows).find((r) => idOf(at, r) === id)
    return same(found, after) ? [] : [{ at, ...(id === undefined ? {} : { id }) }]
  })
  if (overtaken.length) return overtaken
  for (const change of changes) now.set(change.at, backIn(now.get(change.at), change))
  return assembled(body, now)
}

function backIn(stands: unknown, { at, id, before, place, order }: RowChange): unknown {
  if (id === undefined && !order) return before
  const rows = (stands ?? []) as Rows
  if (order) {
    const wanted = (r: Row) => order.before.indexOf(idOf(at, r))
    // a row that came after that keeps its place behind the one that it followed
    const known = rows.filter((r) => wanted(r) >= 0).toSorted((a, b) => wanted(a) - wanted(b))
    let next = 0
    return rows.map((r) => (wanted(r) >= 0 ? known[next++]! : r))
  }
  const others = rows.filter((r) => idOf(at, r) !== id)
  if (before === undefined) return others
  const there = rows.findIndex((r) => idOf(at, r) === id)
  const index = there >= 0 ? there : Math.min(place ?? others.length, others.length)
  return [...others.slice(0, index), before as Row, ...others.slice(index)]
}

/** Lists that stay when they are empty, as they do when their last row is struck out. */
const ALWAYS = new Set(['axes', 'gears', 'meshes', 'adjusters', 'bearings', 'seals', 'measures', 'parts'])

function assembled(body: SheetBody, now: ReadonlyMap<string, unknown>): SheetBody {
  const next: Row = {}
  const unit: Row = {}
  for (const [name, value] of now) {
    if (value === undefined || (Array.isArray(value) && !value.length && !ALWAYS.has(name))) continue
    if (name.startsWith('unit.')) unit[name.slice(5)] = value
    else next[name] = value
  }
  if (body.sources && !next.sources) next.sources = []
  return { ...next, ...(Object.keys(unit).length ? { unit } : {}) } as unknown as SheetBody
}
