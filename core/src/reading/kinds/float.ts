import { refuse } from '../../checks/input-error.ts'
import { floatStack } from '../../bearings/float-stack.ts'
import type { Measured } from '../../setting/measured.ts'
import type { PlausibleKind } from '../../units/plausible.ts'
import type { ReadingKind } from '../kind.ts'
import { plain, readOne } from './plain.ts'
import { seatFigures, seatWords } from './seat-figures.ts'

/** What moves from stop to stop where it shall not: a ring that its cover does not hold, or a gear on a trial stack, which says how thick the stack must be. */
export const float: ReadingKind = {
  ...plain,
  extras: ['seat'],
  figure: floatFigure,
  parse(measure, typed, dialPerTurnMm) {
    if (measure.kind !== 'seat' && typed.seat) refuse('seat', 'is asked of a seat only')
    return { ...readOne(floatFigure(measure), typed, dialPerTurnMm), how: seatFigures(typed) }
  },
  value(measure, { raw, how: { seat = {} } }) {
    if (measure.kind !== 'seat') return -raw
    const { trialMm, clearanceMm = 0, preloadMm = 0 } = seat
    if (trialMm === undefined) refuse('seat.trialMm', 'is missing: the stack that the float was read with')
    return floatStack({ trialMm, floatMm: raw, clearanceMm, preloadMm }).stackMm
  },
  explain: ({ raw, how }, show) =>
    how.as === 'float' ? [`read as float ${show(raw, 'mm')}`, ...seatWords(how.seat, show)] : [],
}

function floatFigure(measure: Measured): PlausibleKind {
  return measure.kind === 'seat' ? 'end-play' : 'clearance'
}
