import { EDGE_FIELDS, idsIn, lostEdges, withoutEdges, type Edge } from '../graph/edge-fields.ts'
import { GRAPH_LISTS } from '../graph/rows.ts'
import type { SheetBody } from './body.ts'
import { same } from './same.ts'
import type { Patch, PatchValue, Variant } from './variant.ts'

type Plain = Record<string, unknown>
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v)
const isRows = (v: unknown): v is { id: string }[] =>
  Array.isArray(v) && v.every((r) => isPlain(r) && typeof r.id === 'string')

/** Lists of rows: one that is missing is empty, and a patch adds to it. */
const LISTS: ReadonlySet<string> = new Set([
  ...GRAPH_LISTS,
  'belts',
  'runoutLimits',
  'service',
  'pieces',
  'levers',
  'attitudes',
])

/**
 * A merge patch applied (RFC 7396), with lists of rows patched row by row: a row of the list is named by its id, null takes it out, and one that is not
 * there yet is added at the end.
 */
function merged(target: unknown, patch: PatchValue): unknown {
  if (!isPlain(patch)) return patch
  if (isRows(target)) {
    const left = target.flatMap((row) => {
      if (!Object.hasOwn(patch, row.id)) return [row]
      const change = patch[row.id]!
      return change === null ? [] : [{ ...(merged(row, change) as object), id: row.id }]
    })
    const added = Object.entries(patch).flatMap(([id, row]) =>
      row === null || target.some((r) => r.id === id) ? [] : [{ ...(merged({}, row) as object), id }],
    )
    return [...left, ...added]
  }
  const before = isPlain(target) ? target : {}
  const kept = Object.entries(before).filter(([name]) => !Object.hasOwn(patch, name))
  const changed = Object.entries(patch).flatMap(([name, change]) =>
    change === null
      ? []
      : [
          [
            name,
            merged(Object.hasOwn(before, name) ? before[name] : LISTS.has(name) ? [] : undefined, change),
          ] as const,
        ],
  )
  return Object.fromEntries([...kept, ...changed])
}

/** The sheet as it is of one of its variants. An edge to a row that the variant has not got lapses. */
export function ofVariant(body: SheetBody, variant: Variant): SheetBody {
  const patched = asPatched(body, variant)
  const lapsed = lapsedIn(body, patched)
  return lapsed.length ? withoutEdges(patched, lapsed) : patched
}

/** Edges of a variant that lapse, since it strikes out the rows that they lead to. */
export const lapsedEdges = (body: SheetBody, variant: Variant): Edge[] =>
  lapsedIn(body, asPatched(body, variant))

function asPatched(body: SheetBody, variant: Variant): SheetBody {
  const { variants: _variants, ...rest } = body
  return {
    ...(merged(rest, variant.patch) as SheetBody),
    id: body.id,
    format: body.format,
    variant: { id: variant.id, label: variant.label },
  }
}

/** A patch can make anything of a list: what is no list of rows any more has no edges that could lapse. */
function lapsedIn(body: SheetBody, patched: SheetBody): Edge[] {
  if (!GRAPH_LISTS.every((l) => patched[l] === undefined || isRows(patched[l]))) return []
  return lostEdges(patched).filter((e) => idsIn(body, EDGE_FIELDS[e.list]![e.field]!).has(e.to))
}

/** The patch with another value at a path; a range is replaced whole, also where it is open at a side now. */
export function withPatched(patch: Patch, path: string, value: PatchValue | undefined): Patch {
  const [name, ...rest] = path.split('.') as [string, ...string[]]
  const { [name]: before, ...others } = patch
  if (!rest.length) return value === undefined ? others : { ...others, [name]: value }
  const inner = withPatched(isPlain(before) ? (before as Patch) : {}, rest.join('.'), value)
  return Object.keys(inner).length ? { ...others, [name]: inner } : others
}

/** A range as it stands in a patch: the sides that it leaves open are taken from what was there. */
export const wholeRange = (v: { min?: number; max?: number }): Patch => ({
  min: v.min ?? null,
  max: v.max ?? null,
})

/** The patch that makes the one sheet out of the other; lists of rows row by row, everything else that differs whole. */
export function patchBetween(from: SheetBody, to: SheetBody): Patch {
  const { variants: _a, variant: _b, sources: _c, ...before } = from
  const { variants: _d, variant: _e, sources: _f, ...after } = to
  return difference(before, after) as Patch
}

function difference(from: unknown, to: unknown): PatchValue {
  if (isRows(from) && isRows(to)) {
    const gone = from.filter((r) => !to.some((x) => x.id === r.id)).map((r) => [r.id, null] as const)
    const changed = to.flatMap((row) => {
      const before = from.find((r) => r.id === row.id)
      const { id: _id, ...rest } = row
      if (!before) return [[row.id, rest as PatchValue] as const]
      return same(before, row) ? [] : [[row.id, difference(before, row)] as const]
    })
    return Object.fromEntries([...gone, ...changed])
  }
  if (isPlain(from) && isPlain(to)) {
    const gone = Object.keys(from)
      .filter((k) => to[k] === undefined)
      .map((k) => [k, null] as const)
    const changed = Object.entries(to).flatMap(([k, v]) =>
      v === undefined || same(from[k], v)
        ? []
        : [[k, difference(from[k] ?? (LISTS.has(k) && isRows(v) ? [] : undefined), v)] as const],
    )
    return Object.fromEntries([...gone, ...changed])
  }
  return to as PatchValue
}

/** The number at the end of a serial number, and what stands before it. */
const parted = (serial: string) => {
  const [, head, digits] = /^(.*?)(\d+)\D*$/.exec(serial.trim().toLowerCase()) ?? []
  return digits === undefined
    ? undefined
    : { head: head!.replace(/[^\p{L}\p{N}]/gu, ''), number: Number(digits) }
}

/** Whether a serial number falls into the range of a variant; undefined where that cannot be told. */
export function holdsSerial(
  variant: Pick<Variant, 'fromSerial' | 'toSerial'>,
  serial: string,
): boolean | undefined {
  const own = parted(serial)
  const limits = [variant.fromSerial, variant.toSerial].map((s) => (s === undefined ? undefined : parted(s)))
  if (!own || limits.every((l) => l === undefined)) return undefined
  if (limits.some((l) => l !== undefined && l.head !== own.head)) return undefined
  const [from, to] = limits
  return (from === undefined || own.number >= from.number) && (to === undefined || own.number <= to.number)
}
