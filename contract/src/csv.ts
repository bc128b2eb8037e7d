import Papa from 'papaparse'

/** A cell of a table; null where nothing is known. */
export type Cell = string | number | boolean | null | undefined

/** A column: its heading, with the unit in it, and what stands in it. Numbers stand with a point, times in ISO 8601. */
export interface CsvColumn<T> {
  name: string
  of: (row: T) => Cell
}

/** What a table program would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/
const GUARDED = /^'[=+\-@\t\r']/

/** A text that no table program runs: one that begins like a formula, or with an apostrophe, gets an apostrophe before it. {@link unguarded} takes it off. */
export const guarded = (text: string): string =>
  FORMULA.test(text) || GUARDED.test(text) ? `'${text}` : text
export const unguarded = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell)

function cellText(cell: Cell): string {
  if (cell === null || cell === undefined) return ''
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no'
  return typeof cell === 'number' ? String(cell) : guarded(cell)
}

/** Rows as comma-separated values (RFC 4180). @param options.bom for table programs that do not see otherwise that it is UTF-8 */
export function csvText<T>(
  columns: readonly CsvColumn<T>[],
  rows: readonly T[],
  { bom = false }: { bom?: boolean } = {},
): string {
  const data = rows.map((row) => columns.map((c) => cellText(c.of(row))))
  const text = Papa.unparse([columns.map((c) => c.name), ...data], { newline: '\r\n' })
  return `${bom ? '\uFEFF' : ''}${text}\r\n`
}
