import type { SheetBody } from './body.ts'
import type { Patch, PatchValue, Variant } from './variant.ts'

type Plain = Record<string, unknown>
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v)
const isRows = (v: unknown): v is { id: string }[] =>
  Array.isArray(v) && v.every((r) => isPlain(r) && typeof r.id === 'string')

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
      : [[name, merged(Object.hasOwn(before, name) ? before[name] : undefined, change)] as const],
  )
  return Object.fromEntries([...kept, ...changed])
}

/** The sheet as it is of one of its variants. */
export function ofVariant(body: SheetBody, variant: Variant): SheetBody {
  const { variants: _variants, ...rest } = body
  return {
    ...(merged(rest, variant.patch) as SheetBody),
    id: body.id,
    format: body.format,
    variant: { id: variant.id, label: variant.label },
  }
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
