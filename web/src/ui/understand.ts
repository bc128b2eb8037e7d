import { InputError } from '@moray/core/checks/input-error'
import { benchFigure } from '@moray/core/units/bench-figure'
import type { LengthUnit, ReadingUnit } from '@moray/contract/requests/reading-units'
import { inWords } from '@moray/core/units/format'
import { PLAUSIBLE, POSSIBLE, quantityOf, type PlausibleKind } from '@moray/core/units/plausible'

export type Understood =
  | { state: 'empty' }
  | { state: 'value'; value: number }
  | { state: 'doubtful'; value: number; why: string }
  | { state: 'not'; why: string }

/**
 * What a text in bench notation means, in mm or Nm, before it is entered.
 * @param limits what the place can hold; a value outside is asked about
 */
export function understand(
  text: string,
  unit: ReadingUnit,
  kind: PlausibleKind,
  dialPerTurnMm?: number | null,
  limits?: { min: number; max: number },
): Understood {
  if (text.trim() === '') return { state: 'empty' }
  try {
    const { value, quantity, canonical, standing } = benchFigure(text, unit, kind, dialPerTurnMm)
    const words = ({ min, max }: { min: number; max: number }) => [min, max].map((v) => inWords(v, canonical))
    if (standing === 'impossible') {
      const [least, most] = words(POSSIBLE[kind])
      return { state: 'not', why: `is ${inWords(value, canonical)}; from ${least} to ${most} can be` }
    }
    if (limits && (value < limits.min || value > limits.max)) {
      const [least, most] = words(limits)
      return { state: 'doubtful', value, why: `This place takes ${least} to ${most}.` }
    }
    if (standing === 'plausible') return { state: 'value', value }
    const [least, most] = words(PLAUSIBLE[kind])
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

/**
 * What a bare length most likely means that cannot be meant in the unit it was taken in: the other unit of the same system, where it fits the place in that.
 * Undefined where it does not.
 */
export function likelyMeant(
  text: string,
  unit: ReadingUnit,
  kind: PlausibleKind,
  limits: { min: number; max: number },
): LengthUnit | undefined {
  if (quantityOf(kind) !== 'length' || !BARE.test(text.trim())) return undefined
  const other = OF_SYSTEM.find((pair) => pair.some((u) => u === unit))?.find((u) => u !== unit)
  if (!other) return undefined
  const said = understand(text, other, kind, null, limits)
  return said.state === 'value' && said.value > 0 ? other : undefined
}

/** Units in which one and the same hand writes lengths. */
const OF_SYSTEM: readonly (readonly LengthUnit[])[] = [
  ['mm', 'h'],
  ['in', 't'],
]

const BARE = /^[-+]?[\d.,]+$/

/** A bare number with the unit that it was typed in, so that it stays what it was when another unit is chosen afterwards. */
export const withUnit = (text: string, unit: ReadingUnit): string =>
  BARE.test(text.trim()) ? `${text.trim()}${unit}` : text
