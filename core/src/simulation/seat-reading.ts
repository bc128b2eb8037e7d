import type { ReadingHow } from '../setting/taken.ts'
import type { SeatMeasure } from '../setting/measures.ts'

/** A case and a mounting distance as they may be marked, mm; which ones is of no matter to the stack. */
const [LONG_MM, SHORT_MM] = [120, 40]

/** What is read of a gear's assembly, and how, when its seat asks for this stack: shim = case − gear − nominal, or nominal − case − gear. mm */
export function seatReading({ effect }: SeatMeasure, neededMm: number): { raw: number; how: ReadingHow } {
  const [caseMm, nominalMm] = effect === -1 ? [LONG_MM, SHORT_MM] : [SHORT_MM, LONG_MM]
  return { raw: LONG_MM - SHORT_MM - neededMm, how: { as: 'case-and-gear', seat: { caseMm, nominalMm } } }
}
