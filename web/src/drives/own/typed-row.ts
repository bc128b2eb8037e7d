import { InputError } from '@moray/core/checks/input-error'
import type { Edges } from '@moray/core/drives/graph/edges'
import type { Piece } from '@moray/core/drives/graph/rows'
import { readFigure } from '@moray/core/drives/own/read-figure'
import { torqueUnitIn, type TorqueUnit } from '@moray/core/units/torque-unit'
import { plainNumber } from '@moray/core/units/plain-number'
import type { UnitSystem } from '@moray/core/units/format'
import { SHAPES, type Column, type RowForm } from '../forms/column.ts'
import type { ShownRow } from '../show-rows.ts'
import { figureUnit, rangeAsTyped, torqueAsTyped, volumeAsTyped } from './show-figure.ts'

/** What a cell holds while it is typed. Edges are ids; a question mark after one says that nobody knows whether it is there. */
export type Typed = string | boolean | string[] | Piece[]

/** How what is typed is understood. */
export interface Hand {
  first: UnitSystem
  /** Unit of a bare torque, where the page that is typed from has one for all. */
  torqueUnit?: TorqueUnit | undefined
}

/** An edge that is asked about at the bench. */
export const NOT_KNOWN = '?'
export const edgeId = (typed: string): string => (typed.endsWith(NOT_KNOWN) ? typed.slice(0, -1) : typed)

/** A value as it may be typed again. */
export function asTyped(c: Column, row: ShownRow | undefined, first: UnitSystem): Typed {
  const value = row?.[c.key]
  switch (c.is) {
    case 'flag':
      return value === true
    case 'choices':
      return (value as string[] | undefined) ?? []
    case 'edges':
      return Object.entries((value ?? {}) as Edges).map(([id, sure]) =>
        sure === 'unknown' ? id + NOT_KNOWN : id,
      )
    case 'pieces':
      return ((value as Piece[] | undefined) ?? []).map((p) => ({ ...p }))
    case 'lines':
      return ((value as string[] | undefined) ?? []).join('\n')
    case 'length':
      return value === undefined ? '' : rangeAsTyped({ min: value as number, max: value as number }, first)
    case 'window':
      return value === undefined ? '' : rangeAsTyped(value as { min?: number; max?: number }, first)
    case 'volume':
      return value === undefined ? '' : volumeAsTyped(value as number, first)
    case 'torque':
      return value === undefined
        ? ''
        : torqueAsTyped(value as { min?: number; max?: number }, row!.torqueUnit as never)
    default:
      return value === undefined ? '' : String(value as string | number)
  }
}

/** What was typed for a column, understood; `as` is a figure as the manual prints it, with its unit. */
interface Read {
  value?: unknown
  also?: Record<string, unknown>
  as?: string
  why?: string
}

/** What was typed for a column, understood; or why it was not. What nothing was typed for is left out. */
export function readTyped(c: Column, typed: Typed | undefined, hand: Hand): Read {
  switch (c.is) {
    case 'flag':
      return typed ? { value: true } : {}
    case 'choices':
      return (typed as string[]).length ? { value: typed } : {}
    case 'edges': {
      const edges: Edges = Object.fromEntries(
        (typed as string[]).map((t) => [edgeId(t), t.endsWith(NOT_KNOWN) ? 'unknown' : true]),
      )
      return Object.keys(edges).length ? { value: edges } : {}
    }
    case 'pieces': {
      const pieces = (typed as Piece[]).map((p) => ({ ...p, name: p.name.trim() }))
      if (pieces.some((p) => !p.name)) return { why: 'each piece needs a name' }
      return pieces.length ? { value: pieces } : {}
    }
  }
  const text = String((typed as string | undefined) ?? '').trim()
  if (!text) return c.needed ? { why: 'is needed' } : {}
  switch (c.is) {
    case 'lines':
      return {
        value: text
          .split('\n')
          .map((l) => l.trim())
          .filter(Boolean),
      }
    case 'count':
    case 'number': {
      const n = plainNumber(text)
      const least = c.is === 'count' ? 1 : 0
      return n !== undefined && (c.is === 'number' || Number.isInteger(n)) && n >= least && n <= c.most!
        ? { value: n }
        : {
            why: `is "${text}"; a ${c.is === 'count' ? 'whole number' : 'number'} from ${least} to ${c.most}`,
          }
    }
    case 'torque':
    case 'length':
    case 'window':
    case 'volume':
      return readQuantity(c.is, text, hand)
    default:
      return c.most !== undefined && text.length > c.most
        ? { why: `has ${text.length} characters; at most ${c.most}` }
        : { value: text }
  }
}

function readQuantity(is: keyof typeof SHAPES, text: string, { first, torqueUnit }: Hand): Read {
  try {
    const field = { shape: SHAPES[is] }
    const bare = (is === 'torque' && torqueUnit) || figureUnit(field as never, first)
    const { value, as } = readFigure(field, text, bare)
    // a torque is shown again in the unit in which the manual prints it
    return is === 'torque' ? { value, as, also: { torqueUnit: torqueUnitIn(text) ?? bare } } : { value, as }
  } catch (e) {
    if (e instanceof InputError) return { why: e.fields[0]?.message ?? e.message }
    throw e
  }
}

/** A row as it is sent, or what is wrong with it, by column. */
export interface ReadRow {
  row: Record<string, unknown>
  problems: Record<string, string>
  /** Figures as they are printed, by column. */
  printed: Record<string, string>
}

/**
 * A row with what was typed for some of its columns; what was not typed stays as it is, assumed edges too.
 * @param before the row as it is; undefined for a new one, of which everything needed has to be typed
 */
export function readRow(
  form: RowForm,
  before: ShownRow | undefined,
  typed: Readonly<Record<string, Typed>>,
  hand: Hand,
): ReadRow {
  const row: Record<string, unknown> = { ...before }
  const problems: Record<string, string> = {}
  const printed: Record<string, string> = {}
  for (const c of form.columns) {
    if (!Object.hasOwn(typed, c.key) && (before || !c.needed)) continue
    const read = readTyped(c, typed[c.key], hand)
    if (read.why) problems[c.key] = read.why
    delete row[c.key]
    if (c.is === 'torque') delete row.torqueUnit
    if (read.value === undefined) continue
    row[c.key] = stillAssumed(c, before, read.value)
    Object.assign(row, read.also)
    if (read.as !== undefined) printed[c.key] = read.as
  }
  return { row, problems, printed }
}

/** An edge that was only assumed, and that nobody touched while he typed another one beside it, stays assumed. */
function stillAssumed(c: Column, before: ShownRow | undefined, value: unknown): unknown {
  if (c.is !== 'edges') return value
  const was = (before?.[c.key] ?? {}) as Edges
  return Object.fromEntries(
    Object.entries(value as Edges).map(([id, sure]) => [
      id,
      sure === true && was[id] === 'assumed' ? 'assumed' : sure,
    ]),
  )
}
