import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import type { Edges, Sure } from '@moray/core/drives/graph/edges'
import Papa from 'papaparse'
import { guarded, unguarded } from '../csv.ts'
import { factsOfClass, type Class, type FieldFacts } from '../fields/describe.ts'
import { Problems } from '../fields/instantiate.ts'
import { validate } from '../fields/validate.ts'

/** A column of a table: a field of the row's class, or one of a small object in it (`torqueNm.min`). */
interface Column {
  name: string
  path: [string] | [string, string]
  facts: FieldFacts
}

/** Lists of rows within a row have no place in a table. */
const IN_A_TABLE = ([, facts]: readonly [string, FieldFacts]) => facts.type !== 'objects'

function columnsOf(owner: Class): Column[] {
  return [...factsOfClass(owner)].filter(IN_A_TABLE).flatMap(([name, facts]): Column[] =>
    facts.type === 'object'
      ? [...factsOfClass(facts.of!())].map(([inner, f]): Column => ({
          name: `${name}.${inner}`,
          path: [name, inner],
          facts: f,
        }))
      : [{ name, path: [name], facts }],
  )
}

const LIST = '; '

/** Ids of edges, each with how sure it is where it was not said. */
const edgesAsText = (edges: Edges) =>
  Object.entries(edges)
    .map(([id, sure]) => (sure === true ? id : `${id} (${sure})`))
    .join(LIST)

function edgesFromText(text: string): Edges {
  return Object.fromEntries(
    text
      .split(';')
      .map((t) => t.trim())
      .filter(Boolean)
      .map((t) => {
        const [, id = t, sure] = /^(\S+)\s*\((assumed|unknown)\)$/.exec(t) ?? []
        return [id, (sure ?? true) as Sure]
      }),
  )
}

/** Rows as a table of comma-separated values, one column for each field of their class. */
export function toCsv<T extends object>(owner: new () => T, rows: readonly T[]): string {
  const columns = columnsOf(owner as Class)
  const data = rows.map((row) =>
    columns.map(({ path, facts }) => {
      const [first, second] = path
      const outer = (row as Record<string, unknown>)[first]
      const value = second === undefined ? outer : (outer as Record<string, unknown> | undefined)?.[second]
      const text =
        value === undefined
          ? ''
          : Array.isArray(value)
            ? value.join(LIST)
            : facts.type === 'edges'
              ? edgesAsText(value as Edges)
              : typeof value === 'boolean'
                ? value
                  ? 'yes'
                  : 'no'
                : String(value as string | number)
      return facts.type === 'number' || facts.type === 'whole' ? text : guarded(text)
    }),
  )
  return Papa.unparse({ fields: columns.map((c) => c.name), data }, { newline: '\n' })
}

/** Rows of a table, and where each of them stands in it. */
export interface TableRows<T> {
  rows: T[]
  /** For each row, its number as a table program counts it: the heading is row 1, and empty lines count. */
  numbers: number[]
}

/**
 * Rows out of such a table. Columns may stand in any order, and those that are optional may be missing; empty lines are passed over.
 * @param most rows that are taken; a longer table is refused before its rows are looked at
 * @throws InputError naming row and column of what is wrong, at most 50 problems
 */
export function fromCsv<T extends object>(owner: new () => T, csv: string, most: number): TableRows<T> {
  const all = columnsOf(owner as Class)
  const { data } = Papa.parse<string[]>(csv, { skipEmptyLines: false })
  const numbered = data
    .map((cells, i) => ({ cells, number: i + 1 }))
    .filter(({ cells }) => cells.some((cell) => cell.trim() !== ''))
  const [head, ...lines] = numbered
  const columns = readHeading(all, head?.cells ?? [], head?.number ?? 1)
  if (lines.length > most)
    throw new InputError('invalid-input', [
      { path: 'table', message: `has ${lines.length} rows; at most ${most} are taken` },
    ])
  const problems = new Problems()
  const rows = lines.map(({ cells, number }) => readRow(owner, columns, cells, number, problems))
  if (problems.list.length) throw new InputError('invalid-input', problems.list)
  return { rows, numbers: lines.map((l) => l.number) }
}

/** The columns that a heading names, in its order. @throws InputError where one is unknown, stands twice, or is missing */
function readHeading(all: readonly Column[], cells: readonly string[], row: number): Column[] {
  if (cells.length > all.length)
    throw new InputError('invalid-input', [
      { path: `row ${row}`, message: `has ${cells.length} columns; there are ${all.length} in all` },
    ])
  const byName = new Map(all.map((c) => [c.name, c]))
  const names = cells.map((n) => n.trim())
  const problems: FieldProblem[] = []
  names.forEach((n, i) => {
    const path = `row ${row}, column ${i + 1}`
    if (!byName.has(n))
      problems.push({
        path,
        message: `"${n.slice(0, 40)}" is no column here; known are ${[...byName.keys()].join(', ')}`,
      })
    else if (names.indexOf(n) !== i) problems.push({ path, message: `the column ${n} stands twice` })
  })
  for (const c of all)
    if (!c.facts.optional && c.path.length === 1 && !names.includes(c.name))
      problems.push({ path: `row ${row}`, message: `the column ${c.name} is missing` })
  if (problems.length) throw new InputError('invalid-input', problems)
  return names.map((n) => byName.get(n)!)
}

function readRow<T extends object>(
  owner: new () => T,
  columns: readonly Column[],
  cells: readonly string[],
  number: number,
  problems: Problems,
): T {
  const at = (column: string) => `row ${number}, column ${column}`
  const raw: Record<string, unknown> = {}
  // a cell that cannot be read is named once, not again by the check of the whole row
  const named = new Set<string>()
  cells.forEach((cell, k) => {
    const column = columns[k]
    const text = unguarded(cell.trim())
    if (text === '') return
    if (!column) return problems.add(at(`${k + 1}`), 'stands beyond the last column')
    const value = cellOf(column.facts, text)
    if (value === undefined) {
      named.add(at(column.name))
      const expected = EXPECTED[column.facts.type] ?? 'write it otherwise'
      return problems.add(at(column.name), `"${text.slice(0, 40)}" is not understood; ${expected}`)
    }
    const [first, second] = column.path
    if (second === undefined) raw[first] = value
    else raw[first] = { ...(raw[first] as object | undefined), [second]: value }
  })
  try {
    return validate(owner, raw)
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    for (const f of e.fields) if (!named.has(at(f.path))) problems.add(at(f.path), f.message)
    return raw as T
  }
}

/** `1,200` is twelve hundred to one reader and one and a fifth to another: neither is guessed. */
const GROUPED = /^[+-]?[1-9]\d{0,2}(?:,\d{3})+(?:\.\d*)?$/

const EXPECTED: Partial<Record<FieldFacts['type'], string>> = {
  number: 'a number is needed, without commas between thousands',
  whole: 'a whole number is needed, without commas between thousands',
  flag: 'yes or no is needed',
  numbers: 'numbers with ; between are needed',
}

function cellOf(facts: FieldFacts, text: string): unknown {
  const number = (t: string) => {
    if (GROUPED.test(t.trim())) return undefined
    const n = Number(t.trim().replace(',', '.'))
    return t.trim() !== '' && Number.isFinite(n) ? n : undefined
  }
  switch (facts.type) {
    case 'number':
    case 'whole':
      return number(text)
    case 'flag':
      return /^(yes|true|1)$/i.test(text) ? true : /^(no|false|0)$/i.test(text) ? false : undefined
    case 'numbers': {
      const list = text.split(';').map(number)
      return list.includes(undefined) ? undefined : list
    }
    case 'texts':
      return text
        .split(';')
        .map((t) => t.trim())
        .filter(Boolean)
    case 'edges':
      return edgesFromText(text)
    case 'choice':
      return facts.values?.find((v) => String(v) === text) ?? text
    default:
      return text
  }
}
