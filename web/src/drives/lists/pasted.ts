import type { SheetDraft } from '@moray/contract/replies'
import { TORQUE_UNITS, torqueUnitIn } from '@moray/core/units/torque-unit'
import Papa from 'papaparse'
import type { Column, RowForm } from '../forms/column.ts'
import { rowsOfForm, shownName, type ShownRow } from '../show-rows.ts'
import { readRow, type Hand, type Typed } from '../own/typed-row.ts'
import { freeId } from '../own/use-draft-write.ts'
import { theOne, type Option } from './matching.ts'
import { withNames } from './piece-names.ts'

/** A table as it came from the clipboard: cells by line, and which column of the list each of its columns is. */
export interface PastedTable {
  cells: string[][]
  /** Key of the column; '' where nothing of it is taken. */
  columns: string[]
  /** Line of the text that each row of cells stands on, counted from 1. */
  lines: number[]
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

/** The column that a heading names: by its label or the beginning of it; a unit in brackets is left aside. */
function columnNamed(heading: string, columns: readonly Column[]): Column | undefined {
  const asked = plain(heading.replace(/[([].*$/, ''))
  if (!asked) return undefined
  const by = (fits: (label: string) => boolean) =>
    columns.filter((c) => fits(plain(c.label)) || fits(plain(c.key)))
  const [exact] = by((l) => l === asked)
  if (exact) return exact
  const fitting = by((l) => l.startsWith(asked) || asked.startsWith(l))
  return fitting.length === 1 ? fitting[0] : undefined
}

/**
 * Splits a table that was copied out of a spreadsheet, or a list of comma-separated values.
 * @param from the columns that its own are taken for, from the first one on, where it has no heading
 */
export function splitTable(text: string, form: RowForm, from: readonly Column[]): PastedTable {
  const parsed = Papa.parse<string[]>(text.replace(/\r\n?/g, '\n'), {
    delimiter: text.includes('\t') ? '\t' : '',
    delimitersToGuess: [',', ';'],
    skipEmptyLines: false,
  })
  const all = parsed.data
    .map((cells, i) => ({ cells: cells.map((c) => c.trim()), line: i + 1 }))
    .filter(({ cells }) => cells.some(Boolean))
  const [head] = all
  const named = (head?.cells ?? []).map((h) => columnNamed(h, form.columns))
  const isHeading = named.filter(Boolean).length >= Math.max(1, Math.ceil((head?.cells.length ?? 0) / 2))
  const body = isHeading ? all.slice(1) : all
  const width = Math.max(0, ...body.map(({ cells }) => cells.length))
  const columns = Array.from({ length: width }, (_, i) =>
    isHeading ? (named[i]?.key ?? '') : (from[i]?.key ?? ''),
  )
  return { cells: body.map((b) => b.cells), lines: body.map((b) => b.line), columns }
}

/** The unit that a heading says for its torques: `Torque (ft-lb)`. */
export function torqueUnitOfHeading(text: string): Hand['torqueUnit'] {
  const [heading = ''] = text.split('\n')
  const inBrackets = /[([]([^)\]]*)[)\]]/.exec(heading)?.[1] ?? heading
  const unit = torqueUnitIn(inBrackets)
  return unit && TORQUE_UNITS.includes(unit) ? unit : undefined
}

/** A row of a table that was pasted, understood: a new one, or one that is there by its name. */
export interface PastedRow {
  before?: ShownRow
  row: Record<string, unknown>
  printed: Record<string, string>
}
export interface PastedProblem {
  line: number
  column: string
  message: string
}

interface Around {
  draft: SheetDraft
  hand: Hand
  optionsFor: (form: RowForm, c: Column, row?: ShownRow) => Option[]
  taken: ReadonlySet<string>
}

/** Everything of a pasted table, understood in the words of a manual; or what is not, line by line. Rows that are there by their name get what is pasted. */
export function readTable(
  table: PastedTable,
  form: RowForm,
  { draft, hand, optionsFor, taken }: Around,
): { rows: PastedRow[]; problems: PastedProblem[] } {
  const columns = table.columns.map((key) => form.columns.find((c) => c.key === key))
  const first = form.columns[0]!
  const nameAt = table.columns.indexOf(first.key)
  const there = new Map(rowsOfForm(draft.body, form).map((r) => [plain(shownName(r)), r]))
  const ids = new Set(taken)
  const own: Option[] = []
  const named = table.cells.map((cells) => {
    const name = cells[nameAt] ?? ''
    const before = there.get(plain(name))
    const id = before?.id ?? freeId(name || form.one, ids)
    ids.add(id)
    own.push({ id, label: name })
    return { before, id }
  })
  const problems: PastedProblem[] = []
  const rows = table.cells.map((cells, i): PastedRow => {
    const { before, id } = named[i]!
    const typed: Record<string, Typed> = {}
    cells.forEach((cell, k) => {
      const c = columns[k]
      if (!c || (cell === '' && before)) return
      const more = c.to?.includes(form.list as never) ? own.filter((o) => o.id !== id) : []
      const word = asTypedFrom(c, cell, [...optionsFor(form, c, before), ...more], ids)
      if ('why' in word) problems.push({ line: table.lines[i]!, column: c.label, message: word.why })
      else typed[c.key] = word.typed
    })
    const read = readRow(form, before, typed, hand)
    for (const [key, message] of Object.entries(read.problems)) {
      const c = form.columns.find((x) => x.key === key)!
      if (!problems.some((p) => p.line === table.lines[i] && p.column === c.label))
        problems.push({ line: table.lines[i]!, column: c.label, message })
    }
    return { ...(before ? { before } : {}), row: { ...read.row, id }, printed: read.printed }
  })
  return { rows, problems }
}

const YES = new Set(['yes', 'y', 'x', 'true', '1', 'ja', '✓'])
const NO = new Set(['', 'no', 'n', 'false', '0', '-', 'nei'])

/** A cell of a manual's table as its column takes it. */
function asTypedFrom(
  c: Column,
  cell: string,
  options: readonly Option[],
  ids: Set<string>,
): { typed: Typed } | { why: string } {
  switch (c.is) {
    case 'flag': {
      const word = cell.toLowerCase()
      if (YES.has(word) || NO.has(word)) return { typed: YES.has(word) }
      return { why: `is "${short(cell)}"; write yes or no` }
    }
    case 'choice':
      return cell === ''
        ? { typed: '' }
        : choiceFrom(
            Object.entries(c.choices!).map(([id, label]) => ({ id, label })),
            cell,
          )
    case 'seal':
    case 'place':
    case 'setting':
      return cell === '' ? { typed: '' } : choiceFrom(options, cell)
    case 'choices':
    case 'edges': {
      const from =
        c.is === 'choices' ? Object.entries(c.choices!).map(([id, label]) => ({ id, label })) : options
      const found = cell
        .split(/[;,]/)
        .map((t) => t.trim())
        .filter(Boolean)
        .map((t) => ({ asked: t, unknown: t.endsWith('?'), is: theOne(t.replace(/\?$/, ''), from) }))
      const lost = found.find((f) => !f.is)
      if (lost) return { why: `"${short(lost.asked)}" is no row that it can lead to, or more than one` }
      return { typed: found.map((f) => f.is!.id + (f.unknown ? '?' : '')) }
    }
    case 'pieces': {
      const pieces = withNames([], cell, ids)
      for (const p of pieces) ids.add(p.id)
      return { typed: pieces }
    }
    case 'lines':
      return { typed: cell.split(/\s*;\s*/).join('\n') }
    default:
      return { typed: cell }
  }
}

/** A choice by its words, their beginning, or their first letters: `left-hand`, `left`, `LH`. */
function choiceFrom(options: readonly Option[], cell: string): { typed: string } | { why: string } {
  const asked = plain(cell)
  const by = (fits: (o: Option) => boolean) => options.filter(fits)
  const initials = (label: string) =>
    plain(label)
      .split(' ')
      .map((w) => w[0])
      .join('')
  for (const fits of [
    (o: Option) => plain(o.label) === asked || plain(o.id) === asked,
    (o: Option) => plain(o.label).startsWith(asked) || plain(o.id).startsWith(asked),
    (o: Option) => initials(o.label) === asked.replace(/ /g, ''),
    (o: Option) =>
      plain(o.label)
        .split(' ')
        .some((w) => w.startsWith(asked)),
  ]) {
    const found = by(fits)
    if (found.length === 1) return { typed: found[0]!.id }
  }
  return {
    why: `is "${short(cell)}"; it takes ${options
      .map((o) => o.label)
      .slice(0, 12)
      .join(', ')}`,
  }
}

const short = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text)
