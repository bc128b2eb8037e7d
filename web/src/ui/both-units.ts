import { InputError } from '@moray/core/checks/input-error'
import { fixed, showBoth, showOther, type UnitSystem } from '@moray/core/units/format'
import { CANONICAL_UNIT, type Quantity } from '@moray/core/units/factors'
import { numberExample, numberIn, plainNumber } from '@moray/core/units/plain-number'
import type { TorqueUnit } from '@moray/core/units/torque-unit'
import { parseReading } from '@moray/core/units/notation'

export type Typed =
  | { state: 'empty' }
  | { state: 'value'; value: number; shown: string }
  | { state: 'not'; why: string }

/** Decimals that a canonical value is worth to the eye, from small values to large ones. */
const DECIMALS: Record<string, readonly [small: number, large: number, from: number]> = {
  mm: [3, 3, 0],
  'mm/mm': [4, 4, 0],
  deg: [1, 1, 0],
  C: [1, 1, 0],
  K: [1, 1, 0],
  kPa: [1, 0, 100],
  'kPa/min': [3, 3, 0],
  Nm: [2, 1, 15],
  kN: [1, 1, 0],
  'Nm/mm': [2, 2, 0],
  'ml/min': [2, 2, 0],
  ml: [0, 0, 0],
  min: [0, 0, 0],
  s: [0, 0, 0],
  h: [1, 1, 0],
  '%': [1, 1, 0],
  turns: [2, 2, 0],
  bits: [2, 2, 0],
}
const NAMES: Record<string, string> = { C: '°C', deg: '°' }

/** A share as percent, without promising what it cannot: never 0 or 100 of what is only near it. */
export function percent(share: number): string {
  const p = 100 * share
  if (p > 99.9 && p < 100) return '> 99.9 %'
  if (p > 0 && p < 0.1) return '< 0.1 %'
  return `${Number(p.toFixed(p < 10 || p > 90 ? 1 : 0))} %`
}

/** A canonical value in both systems, the reader's own first; digits by what the unit is worth. */
export function inBoth(
  value: number,
  unit: string,
  first: UnitSystem = 'metric',
  torqueUnit?: TorqueUnit,
): string {
  if (unit === 'mm') return showBoth(value, 3, first)
  if (unit === 'share') return percent(value)
  const worth = DECIMALS[unit]
  const digits = worth
    ? fixed(value, Math.abs(value) >= worth[2] && worth[2] > 0 ? worth[1] : worth[0])
    : String(Number(value.toPrecision(4)))
  const own = unit === 'deg' ? `${digits}°` : unit ? `${digits} ${NAMES[unit] ?? unit}` : digits
  const other = showOther(value, unit, torqueUnit)
  if (!other) return own
  return first === 'metric' ? `${own} · ${other}` : `${other} · ${own}`
}

/** A range in both systems, its unit said once in each: `0.38 to 0.56 mm · 15.0 to 22.0 t`. A side that is open is said in words. */
export function rangeInBoth(
  { min, max }: { min?: number; max?: number },
  unit: string,
  first: UnitSystem = 'metric',
  torqueUnit?: TorqueUnit,
): string {
  const shown = (v: number) => inBoth(v, unit, first, torqueUnit)
  if (min === undefined) return max === undefined ? '' : `at most ${shown(max)}`
  if (max === undefined) return `at least ${shown(min)}`
  if (min === max) return shown(min)
  const [low, high] = [shown(min).split(' · '), shown(max).split(' · ')]
  return low
    .map((a, i) => {
      const b = high[i] ?? ''
      const [, number, spelled] = /^(\S+) (.+)$/.exec(a) ?? []
      return number !== undefined && b.endsWith(` ${spelled}`) ? `${number} to ${b}` : `${a} to ${b}`
    })
    .join(' · ')
}

/** Unit of a bare number of somebody who reads inches first; metric readers type in canonical units. */
const BARE: Record<Quantity, string> = {
  length: 'in',
  torque: 'ft-lb',
  pressure: 'psi',
  temperature: 'F',
  angle: 'deg',
}

/** The unit that a bare number is in, for a reader of that system. */
export const bareUnit = (quantity: Quantity, first: UnitSystem): string =>
  first === 'imperial' ? BARE[quantity] : (NAMES[CANONICAL_UNIT[quantity]] ?? CANONICAL_UNIT[quantity])

/** What was typed with its unit said, so that it means the same to everybody who reads it later. */
export function withUnit(text: string, quantity: Quantity | undefined, first: UnitSystem): string {
  const bare = first === 'imperial' && quantity !== undefined && plainNumber(text.trim()) !== undefined
  return bare ? `${text.trim()} ${BARE[quantity]}` : text
}

/** What a number typed at a step is understood as. */
export function readTyped(
  text: string,
  unit: string,
  quantity?: Quantity,
  first: UnitSystem = 'metric',
): Typed {
  const trimmed = withUnit(text, quantity, first).trim()
  if (trimmed === '') return { state: 'empty' }
  if (quantity) {
    try {
      const { value } = parseReading({ text: trimmed, quantity })
      return { state: 'value', value, shown: inBoth(value, unit, first) }
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      return { state: 'not', why: e.fields[0]?.message ?? e.message }
    }
  }
  const value = numberIn(trimmed, unit)
  if (value === undefined)
    return { state: 'not', why: `"${trimmed}" is not understood; ${numberExample(unit)} is` }
  return { state: 'value', value, shown: inBoth(value, unit, first) }
}
