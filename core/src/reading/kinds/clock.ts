import { refuse } from '../../checks/input-error.ts'
import type { ReadingKind } from '../kind.ts'
import { plain } from './plain.ts'

/** A figure at one of several places round a gear, a cover or a shaft. Backlash and a gap may go without their place, a runout means nothing without it. */
export const clock: ReadingKind = {
  ...plain,
  extras: ['alongMm'],
  parse(measure, typed, dialPerTurnMm) {
    const { clockDeg, alongMm } = typed
    if (measure.kind === 'runout' && clockDeg === undefined)
      refuse('clockDeg', 'is missing: where round the shaft, in degrees from the mark')
    if (measure.kind !== 'runout' && alongMm !== undefined) refuse('alongMm', 'is asked of a runout only')
    const shown = plain.parse(measure, typed, dialPerTurnMm)
    return { ...shown, how: alongMm === undefined ? {} : { atMm: alongMm } }
  },
  explain: ({ raw, how }, show) => (how.as === 'gap' ? [`read as gap ${show(raw, 'mm')}`] : []),
}
