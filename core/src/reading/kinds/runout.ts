import { refuse } from '../../checks/input-error.ts'
import type { ReadingKind } from '../kind.ts'
import { plain } from './plain.ts'

/** A figure at a place round a shaft, and perhaps along it: without the place round it a runout means nothing. */
export const runout: ReadingKind = {
  ...plain,
  extras: ['alongMm'],
  parse(measure, typed, dialPerTurnMm) {
    if (typed.clockDeg === undefined)
      refuse('clockDeg', 'is missing: where round the shaft, in degrees from the mark')
    const shown = plain.parse(measure, typed, dialPerTurnMm)
    return { ...shown, how: typed.alongMm === undefined ? {} : { atMm: typed.alongMm } }
  },
  explain: () => [],
}
