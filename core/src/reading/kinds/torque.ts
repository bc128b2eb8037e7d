import { refuse } from '../../checks/input-error.ts'
import { isNoPreload } from '../../setting/assess.ts'
import { typedFigure, saidBack } from '../../units/typed-figure.ts'
import type { ReadingKind } from '../kind.ts'
import { asTyped, plain, readOne } from './plain.ts'

/** The torque that turns a bearing slowly; the drag of lips that are in already comes off. */
export const torque: ReadingKind = {
  ...plain,
  extras: ['drag', 'runIn'],
  figure: () => 'rolling-torque',
  parse(_, typed, dialPerTurnMm) {
    const { drag, runIn, unit } = typed
    const dragNm = drag === undefined ? 0 : typedFigure('drag', drag, unit, 'rolling-torque').value
    return {
      ...readOne('rolling-torque', typed, dialPerTurnMm),
      how: { ...(dragNm ? { dragNm } : {}), ...(runIn ? { runIn } : {}) },
    }
  },
  value: (_, { raw, how }) => raw - (how.dragNm ?? 0),
  check(measure, shown, value) {
    plain.check(measure, shown, value)
    // where the sheet has no slope, play has no figure: there the torque is kept, and is out
    if (measure.kind === 'rolling-torque' && measure.nmPerMm && isNoPreload({ value, how: shown.how }))
      refuse(
        'text',
        `${asTyped(shown.text, shown.raw, 'rolling-torque')}, not above the drag of the lips of ${saidBack(shown.how.dragNm ?? 0, 'rolling-torque')}: that is no preload, and a torque says nothing about play. Read the play instead, and enter it as play`,
        'no-preload',
      )
  },
  explain: ({ how }, show) => [
    ...(how.dragNm === undefined ? [] : [`lips ${show(how.dragNm, 'Nm')} taken off`]),
    ...(how.runIn ? ['bearings run in'] : []),
  ],
}
