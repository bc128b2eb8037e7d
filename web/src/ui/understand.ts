import { InputError } from '@moray/core/checks/input-error'
import type { LengthUnit } from '@moray/contract/requests/setting'
import { showInch } from '@moray/core/units/format'
import { parseReading } from '@moray/core/units/notation'
import { isPlausible, PLAUSIBLE_MM, type PlausibleKind } from '@moray/core/units/plausible'

export type Understood =
  | { state: 'empty' }
  | { state: 'value'; mm: number }
  | { state: 'doubtful'; mm: number; why: string }
  | { state: 'not'; why: string }

/** What a text in bench notation means, in mm, before it is entered. */
export function understand(
  text: string,
  unit: LengthUnit,
  kind: PlausibleKind,
  dialPerTurnMm?: number | null,
): Understood {
  if (text.trim() === '') return { state: 'empty' }
  try {
    const { value: mm } = parseReading({
      text,
      quantity: 'length',
      unit,
      ...(dialPerTurnMm ? { dialPerTurnMm } : {}),
    })
    if (isPlausible(kind, mm)) return { state: 'value', mm }
    const { min, max } = PLAUSIBLE_MM[kind]
    return {
      state: 'doubtful',
      mm,
      why: `Expected between ${min} and ${max} mm (${showInch(min, 1)} and ${showInch(max, 1)}). Check the unit and the turn counter.`,
    }
  } catch (e) {
    if (e instanceof InputError) return { state: 'not', why: e.fields[0]?.message ?? e.message }
    throw e
  }
}
