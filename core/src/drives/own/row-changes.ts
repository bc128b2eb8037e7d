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
  /** Rows were taken out or moved: ids in their order before. */
  order?: string[]
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
    return [changeOf({ at, id }, x, y)]
  })
  const [before, after] = [[...was.keys()], [...is.keys()]]
  const stayed = before.filter((id) => is.has(id))
  const moved =
    stayed.length < before.length ||
    !same(
      stayed,
      after.filter((id) => was.has(id)),
    )
  return moved ? [...changed, { at, order: before }] : changed
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

function backIn(stands: unknown, { at, id, before, order }: RowChange): unknown {
  if (id === undefined && !order) return before
  const rows = (stands ?? []) as Rows
  if (order) return inOrder(at, rows, order)
  if (before === undefined) return rows.filter((r) => idOf(at, r) !== id)
  return rows.some((r) => idOf(at, r) === id)
    ? rows.map((r) => (idOf(at, r) === id ? (before as Row) : r))
    : [...rows, before as Row]
}

/** The rows in an order that they had; one that came after that goes behind the row that it follows now. */
function inOrder(at: string, rows: Rows, order: readonly string[]): Rows {
  const known = new Set(order)
  const next: Row[] = rows
    .filter((r) => known.has(idOf(at, r)))
    .toSorted((a, b) => order.indexOf(idOf(at, a)) - order.indexOf(idOf(at, b)))
  rows.forEach((row, i) => {
    if (known.has(idOf(at, row))) return
    next.splice(i ? next.indexOf(rows[i - 1]!) + 1 : 0, 0, row)
  })
  return next
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
