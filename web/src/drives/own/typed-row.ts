import { InputError } from '@moray/core/checks/input-error'
import { edgesOf, said, type Edges } from '@moray/core/drives/graph/edges'
import type { Piece } from '@moray/core/drives/graph/rows'
import { readFigure } from '@moray/core/drives/own/read-figure'
import { torqueUnitIn } from '@moray/core/units/torque-unit'
import { plainNumber } from '@moray/core/units/plain-number'
import type { useOwn } from '../../stores/own.ts'
import { SHAPES, type Column } from '../forms/column.ts'
import type { ShownRow } from '../show-rows.ts'
import { figureUnit, torqueAsTyped } from './show-figure.ts'

export type Typed = string | boolean | string[] | Piece[]

/** A value as it may be typed again. */
export function asTyped(c: Column, row: ShownRow | undefined): Typed {
  const value = row?.[c.key]
  switch (c.is) {
    case 'flag':
      return value === true
    case 'choices':
      return (value as string[] | undefined) ?? []
    case 'edges':
      return edgesOf(value as Edges | undefined)
    case 'pieces':
      return ((value as Piece[] | undefined) ?? []).map((p) => ({ ...p }))
    case 'lines':
      return ((value as string[] | undefined) ?? []).join('\n')
    case 'length':
      return value === undefined ? '' : `${String(value)} mm`
    case 'window':
      return value === undefined ? '' : windowAsTyped(value as { min?: number; max?: number })
    case 'torque':
      return value === undefined
        ? ''
        : torqueAsTyped(value as { min?: number; max?: number }, row!.torqueUnit as never)
    default:
      return value === undefined ? '' : String(value as string | number)
  }
}

const windowAsTyped = ({ min, max }: { min?: number; max?: number }) =>
  min === undefined ? `≤ ${max} mm` : max === undefined ? `≥ ${min} mm` : `${min} to ${max} mm`

type Read = { value?: unknown; also?: Record<string, unknown>; why?: string }

/** What was typed for a column, understood; or why it was not. What nothing was typed for is left out; edges that are not known stay so until somebody picks them. */
export function readTyped(
  c: Column,
  typed: Typed | undefined,
  first: ReturnType<typeof useOwn>['first'],
  before?: ShownRow,
): Read {
  switch (c.is) {
    case 'flag':
      return typed ? { value: true } : {}
    case 'choices':
      return (typed as string[]).length ? { value: typed } : {}
    case 'edges': {
      const unknown = Object.entries((before?.[c.key] ?? {}) as Edges).filter(
        ([, sure]) => sure === 'unknown',
      )
      const edges = { ...Object.fromEntries(unknown), ...said(...(typed as string[])) }
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
      try {
        const field = { shape: SHAPES[c.is] }
        const bare = figureUnit(field as never, first)
        const { value } = readFigure(field, text, bare)
        // a torque is shown again in the unit in which the manual prints it
        return c.is === 'torque' ? { value, also: { torqueUnit: torqueUnitIn(text) ?? bare } } : { value }
      } catch (e) {
        if (e instanceof InputError) return { why: e.fields[0]?.message ?? e.message }
        throw e
      }
    default:
      return { value: text }
  }
}
