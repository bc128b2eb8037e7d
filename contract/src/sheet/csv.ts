import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import Papa from 'papaparse'
import { factsOfClass, type Class, type FieldFacts } from '../fields/describe.ts'
import { validate } from '../fields/validate.ts'

/** A column of a table: a field of the row's class, or one of a small object in it (`torqueNm.min`). */
interface Column {
  name: string
  path: [string] | [string, string]
  facts: FieldFacts
}

function columnsOf(owner: Class): Column[] {
  return [...factsOfClass(owner)].flatMap(([name, facts]): Column[] =>
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
/** What a table program would take for a formula is written with an apostrophe before it, and read without. */
const FORMULA = /^[=+\-@]/

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
            : typeof value === 'boolean'
              ? value
                ? 'yes'
                : 'no'
              : String(value as string | number)
      return FORMULA.test(text) && facts.type !== 'number' && facts.type !== 'whole' ? `'${text}` : text
    }),
  )
  return Papa.unparse({ fields: columns.map((c) => c.name), data }, { newline: '\n' })
}

/**
 * Rows out of such a table. Columns may stand in any order, and those that are optional may be missing.
 * @throws InputError naming row and column of everything that is wrong; rows are counted as a table program shows them, the heading being row 1
 */
export function fromCsv<T extends object>(owner: new () => T, csv: string): T[] {
  const { data } = Papa.parse<string[]>(csv.trim(), { skipEmptyLines: 'greedy' })
  const [head, ...lines] = data
  const problems: FieldProblem[] = []
  const all = columnsOf(owner as Class)
  const names = (head ?? []).map((n) => n.trim())
  const columns = names.map((n) => all.find((c) => c.name === n))
  names.forEach((n, i) => {
    if (!columns[i])
      problems.push({
        path: `row 1, column ${i + 1}`,
        message: `"${n.slice(0, 40)}" is no column here; known are ${all.map((c) => c.name).join(', ')}`,
      })
  })
  for (const c of all)
    if (!c.facts.optional && c.path.length === 1 && !names.includes(c.name))
      problems.push({ path: 'row 1', message: `the column ${c.name} is missing` })
  if (problems.length) throw new InputError('invalid-input', problems)
  const rows = lines.map((cells, i) => {
    const at = (column: string) => `row ${i + 2}, column ${column}`
    const raw: Record<string, unknown> = {}
    cells.forEach((cell, k) => {
      const column = columns[k]
      const text =
        FORMULA.test(cell.trim().slice(1)) && cell.trim().startsWith("'") ? cell.trim().slice(1) : cell.trim()
      if (text === '') return
      if (!column)
        return void problems.push({ path: at(`${k + 1}`), message: 'stands beyond the last column' })
      const value = cellOf(column.facts, text)
      if (value === undefined)
        return void problems.push({
          path: at(column.name),
          message: `"${text.slice(0, 40)}" is not understood; ${EXPECTED[column.facts.type] ?? 'write it otherwise'}`,
        })
      const [first, second] = column.path
      if (second === undefined) raw[first] = value
      else raw[first] = { ...(raw[first] as object | undefined), [second]: value }
    })
    try {
      return validate(owner, raw)
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      for (const f of e.fields)
        if (!problems.some((p) => p.path === at(f.path)))
          problems.push({ path: at(f.path), message: f.message })
      return raw as T
    }
  })
  if (problems.length) throw new InputError('invalid-input', problems.slice(0, 50))
  return rows
}

const EXPECTED: Partial<Record<FieldFacts['type'], string>> = {
  number: 'a number is needed',
  whole: 'a whole number is needed',
  flag: 'yes or no is needed',
  numbers: 'numbers with ; between are needed',
}

function cellOf(facts: FieldFacts, text: string): unknown {
  const number = (t: string) => {
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
    case 'choice':
      return facts.values?.find((v) => String(v) === text) ?? text
    default:
      return text
  }
}
