import { refuse } from '../../checks/input-error.ts'
import type { ReadingKind } from '../kind.ts'
import { plain, readOne } from './plain.ts'

/**
 * The play of a bearing that has no preload: it stands as far below no torque as its stack would have to be changed to take the play up, by the sheet's
 * slope. Source: preload from end play.
 */
export const play: ReadingKind = {
  ...plain,
  extras: ['runIn'],
  figure: () => 'end-play',
  parse(_, typed, dialPerTurnMm) {
    return {
      ...readOne('end-play', typed, dialPerTurnMm),
      how: typed.runIn ? { runIn: true } : {},
    }
  },
  value(measure, { raw }) {
    if (measure.kind !== 'rolling-torque' || !measure.nmPerMm)
      refuse('as', 'is play, and the sheet does not say what a change of the stack does to the torque')
    return -Math.abs(measure.nmPerMm) * raw
  },
  explain: ({ raw, how }, show) => (how.as === 'play' ? [`read as play ${show(raw, 'mm')}`] : []),
}
