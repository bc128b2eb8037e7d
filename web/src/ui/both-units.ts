import { InputError } from '@moray/core/checks/input-error'
import { fixed, showMm, showOther } from '@moray/core/units/format'
import type { Quantity } from '@moray/core/units/factors'
import { plainNumber } from '@moray/core/units/plain-number'
import { parseReading } from '@moray/core/units/notation'

export type Typed =
  { state: 'empty' } | { state: 'value'; value: number; shown: string } | { state: 'not'; why: string }

/** A canonical value in both systems, for the eye. */
export function inBoth(value: number, unit: string): string {
  const own =
    unit === 'mm'
      ? showMm(value, 3)
      : unit === 'C'
        ? `${fixed(value, 1)} °C`
        : `${Number(value.toPrecision(6))}${unit ? ` ${unit}` : ''}`
  const other = showOther(value, unit)
  return other ? `${own} · ${other}` : own
}

/** What a number typed at a step is understood as. */
export function readTyped(text: string, unit: string, quantity?: Quantity): Typed {
  const trimmed = text.trim()
  if (trimmed === '') return { state: 'empty' }
  if (quantity) {
    try {
      const { value } = parseReading({ text: trimmed, quantity })
      return { state: 'value', value, shown: inBoth(value, unit) }
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      return { state: 'not', why: e.fields[0]?.message ?? e.message }
    }
  }
  const value = plainNumber(trimmed)
  if (value === undefined) return { state: 'not', why: `"${trimmed}" is not a number` }
  return { state: 'value', value, shown: inBoth(value, unit) }
}
