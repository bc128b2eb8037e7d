import { inWords } from '../units/format.ts'
import { spread } from './reading-set.ts'
import type { Window } from '../checks/window.ts'

/** Why a reading is asked about before it is taken. */
export type Doubt =
  /** It stands this far from the readings before it, more than the gauge can explain, mm. */
  | { kind: 'apart'; byMm: number }
  /** It stands this far outside of a window that is much narrower, mm. */
  | { kind: 'far'; byMm: number }

/** Multiple of the gauge's own error, and of the range of the readings before, that is still explained. Our own. */
const EXPLAINED = 5
/** A first reading may miss its window by so many widths, and by so many mm, before it is asked about. Our own. */
const WIDTHS = 20
const LEAST_FAR_MM = 1.5

/**
 * Whether a reading is a likely blunder: a turn of the dial, another unit, a stop not reached. Asked about before it is taken, never
 * refused: the technician may mean it.
 * @param value what would be judged
 * @param counted readings of the same thing that count already, mm
 * @param gauge its worth, mm
 * @param window of the measure; an open side is never missed
 */
export function doubtOf(
  value: number,
  counted: readonly number[],
  gauge: { resolution: number; mpe: number; repeatability: number },
  window: Window,
): Doubt | undefined {
  if (counted.length) {
    const { min, max, range } = spread(counted)
    const byMm = Math.max(min - value, value - max)
    const gaugeMm = Math.hypot(gauge.resolution, gauge.mpe, gauge.repeatability)
    return byMm > EXPLAINED * Math.max(gaugeMm, range) ? { kind: 'apart', byMm } : undefined
  }
  const { min = -Infinity, max = Infinity } = window
  const byMm = Math.max(min - value, value - max)
  const width = Number.isFinite(max - min) ? max - min : 0
  return byMm > Math.max(LEAST_FAR_MM, WIDTHS * width) ? { kind: 'far', byMm } : undefined
}

/**
 * The question, in words.
 * @param dial whether the gauge has a pointer that goes round: only then can a turn have been miscounted
 * @param show lengths as the reader has them; in both systems where left out
 */
export function doubtWords(
  { kind, byMm }: Doubt,
  dial: boolean,
  show: (mm: number) => string = (mm) => inWords(mm, 'mm'),
): string {
  const turns = dial ? 'the turn counter, ' : ''
  return kind === 'apart'
    ? `Stands ${show(byMm)} apart from the readings before it, more than the gauge explains. Look at ${turns}the unit and the stop`
    : `Stands ${show(byMm)} outside of its window. Look at ${turns}the unit${dial ? ' and the master' : ', and at the figures of the sheet'}`
}
