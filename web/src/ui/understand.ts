import { InputError } from '@moray/core/checks/input-error'
import type { LengthUnit } from '@moray/contract/requests/setting'
import { showMm, showThou } from '@moray/core/units/format'
import { parseReading } from '@moray/core/units/notation'
import { isPlausible, PLAUSIBLE_MM, type PlausibleKind } from '@moray/core/units/plausible'

export type Understood =
  | { state: 'empty' }
  | { state: 'value'; mm: number; inMm: string; inThou: string }
  | { state: 'doubtful'; mm: number; inMm: string; inThou: string; why: string }
  | { state: 'not'; why: string }

/** What a text in bench notation means, in both unit systems, before it is entered. */
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
    const shown = { mm, inMm: showMm(mm, 3), inThou: showThou(mm) }
    if (isPlausible(kind, mm)) return { state: 'value', ...shown }
    const { min, max } = PLAUSIBLE_MM[kind]
    return {
      state: 'doubtful',
      ...shown,
      why: `Expected between ${min} and ${max} mm. Check the unit and the turn counter.`,
    }
  } catch (e) {
    if (e instanceof InputError) return { state: 'not', why: e.fields[0]?.message ?? e.message }
    throw e
  }
}
