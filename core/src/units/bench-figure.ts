import { CANONICAL_UNIT } from './factors.ts'
import { parseReading, type ParsedReading } from './notation.ts'
import { isPlausible, isPossible, quantityOf, type PlausibleKind } from './plausible.ts'

export interface BenchFigure extends ParsedReading {
  quantity: 'length' | 'torque'
  canonical: string
  /** Taken as it is, asked about first, or never taken. */
  standing: 'plausible' | 'doubtful' | 'impossible'
}

/**
 * A figure in bench notation, a length in mm or a torque in Nm, and how it stands to what such a thing can be. The browser shows with it what the server
 * will make of the same text.
 * @param unit of a bare number
 * @param dialPerTurnMm travel of one turn of the dial that it was read on; a length with turns needs it
 * @throws InputError when it is not understood
 */
export function benchFigure(
  text: string,
  unit: string,
  kind: PlausibleKind,
  dialPerTurnMm?: number | null,
): BenchFigure {
  const quantity = quantityOf(kind)
  const parsed = parseReading({
    text,
    quantity,
    unit,
    ...(dialPerTurnMm && quantity === 'length' ? { dialPerTurnMm } : {}),
  })
  const standing = !isPossible(kind, parsed.value)
    ? 'impossible'
    : isPlausible(kind, parsed.value)
      ? 'plausible'
      : 'doubtful'
  return { ...parsed, quantity, canonical: CANONICAL_UNIT[quantity], standing }
}
