import type { Further } from '../further.ts'
import type { SheetBody } from './body.ts'

/** Lists of what a sheet says besides its figures; every row has an id. */
export const FURTHER_LISTS = [
  'closures',
  'sealDetails',
  'shiftStates',
  'tools',
  'propellers',
  'anodes',
  'attitudes',
] as const satisfies (keyof Further)[]
export type FurtherList = (typeof FURTHER_LISTS)[number]

type Rows = readonly { id: string }[]

/** The row of that list, or undefined. */
export function furtherRow(body: SheetBody, list: FurtherList, id: string): { id: string } | undefined {
  return (body.further?.[list] as Rows | undefined)?.find((r) => r.id === id)
}

/**
 * The body with a row in the place of the one with its id, or added at the end; undefined takes it out. A list without rows leaves no trace, so
 * that a sheet of which everything was taken out again equals the one that it was.
 */
export function withFurtherRow(
  body: SheetBody,
  list: FurtherList,
  id: string,
  row: { id: string } | undefined,
): SheetBody {
  const rows = (body.further?.[list] ?? []) as Rows
  const has = rows.some((r) => r.id === id)
  const next = row
    ? has
      ? rows.map((r) => (r.id === id ? row : r))
      : [...rows, row]
    : rows.filter((r) => r.id !== id)
  return withFurther(body, { ...body.further, [list]: next })
}

/** The body with what it says besides its figures; what is empty leaves no trace. */
export function withFurther(body: SheetBody, further: Further): SheetBody {
  const said = Object.fromEntries(
    Object.entries(further).filter(
      ([, v]) => v !== undefined && v !== '' && !(Array.isArray(v) && v.length === 0),
    ),
  ) as Further
  const { further: _before, ...rest } = body
  return Object.keys(said).length ? { ...rest, further: said } : rest
}
