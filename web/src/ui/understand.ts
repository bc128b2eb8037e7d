import { InputError } from '@moray/core/checks/input-error'
import { CANONICAL_UNIT } from '@moray/core/units/factors'
import type { ReadingUnit } from '@moray/contract/requests/setting'
import { inWords } from '@moray/core/units/format'
import { parseReading } from '@moray/core/units/notation'
import { isPlausible, PLAUSIBLE, quantityOf, type PlausibleKind } from '@moray/core/units/plausible'

export type Understood =
  | { state: 'empty' }
  | { state: 'value'; value: number }
  | { state: 'doubtful'; value: number; why: string }
  | { state: 'not'; why: string }

/** What a text in bench notation means, in mm or Nm, before it is entered. */
export function understand(
  text: string,
  unit: ReadingUnit,
  kind: PlausibleKind,
  dialPerTurnMm?: number | null,
): Understood {
  if (text.trim() === '') return { state: 'empty' }
  try {
    const quantity = quantityOf(kind)
    const { value } = parseReading({
      text,
      quantity,
      unit,
      ...(dialPerTurnMm && quantity === 'length' ? { dialPerTurnMm } : {}),
    })
    if (isPlausible(kind, value)) return { state: 'value', value }
    const { min, max } = PLAUSIBLE[kind]
    const [least, most] = [min, max].map((v) => inWords(v, CANONICAL_UNIT[quantity]))
    return {
      state: 'doubtful',
      value,
      why: `Expected between ${least} and ${most}. Check the unit${quantity === 'length' ? ' and the turn counter' : ''}.`,
    }
  } catch (e) {
    if (e instanceof InputError) return { state: 'not', why: e.fields[0]?.message ?? e.message }
    throw e
  }
}

/** A bare number with the unit that it was typed in, so that it stays what it was when another unit is chosen afterwards. */
export const withUnit = (text: string, unit: ReadingUnit): string =>
  /^[-+]?[\d.,]+$/.test(text.trim()) ? `${text.trim()}${unit}` : text
