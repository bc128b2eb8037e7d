import { InputError, refuse } from '@moray/core/checks/input-error'
import { parseReading } from '@moray/core/units/notation'
import {
  isPlausible,
  isPossible,
  PLAUSIBLE_MM,
  POSSIBLE_MM,
  type PlausibleKind,
} from '@moray/core/units/plausible'
import { showBoth } from '@moray/core/units/format'
import type { LengthUnit } from '@moray/contract/requests/setting'

/**
 * A length in bench notation, in mm. The browser shows what it understood with the same function before it sends.
 * @param options.confirmed the value was questioned and is meant: what is implausible is taken, what is impossible is not
 * @throws InputError at `path` when it is not understood, is impossible, or is implausible and not confirmed
 */
export function readLength(
  path: string,
  text: string,
  unit: LengthUnit,
  kind: PlausibleKind,
  options: { dialPerTurnMm?: number | null; confirmed?: boolean } = {},
): { mm: number; unit: string } {
  let parsed
  try {
    parsed = parseReading({
      text,
      quantity: 'length',
      unit,
      ...(options.dialPerTurnMm ? { dialPerTurnMm: options.dialPerTurnMm } : {}),
    })
  } catch (e) {
    if (e instanceof InputError)
      throw new InputError(
        e.code,
        e.fields.map((f) => ({ path, message: f.message })),
      )
    throw e
  }
  const what = kind.replace('-', ' ')
  if (!isPossible(kind, parsed.value)) {
    const { min, max } = POSSIBLE_MM[kind]
    refuse(
      path,
      `"${text}" is ${showBoth(parsed.value, 3)}; ${what} lies between ${min} and ${max} mm. Check the unit`,
      'impossible',
    )
  }
  if (!isPlausible(kind, parsed.value) && !options.confirmed) {
    const { min, max } = PLAUSIBLE_MM[kind]
    refuse(
      path,
      `"${text}" is ${showBoth(parsed.value, 3)}; ${what} is expected between ${min} and ${max} mm. Check the unit and the turn counter`,
      'implausible',
    )
  }
  return { mm: parsed.value, unit: parsed.unit }
}
