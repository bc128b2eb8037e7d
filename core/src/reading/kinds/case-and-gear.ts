import { refuse } from '../../checks/input-error.ts'
import { depth } from '../../measuring/depth.ts'
import type { ReadingKind } from '../kind.ts'
import { plain, readOne } from './plain.ts'
import { seatFigures, seatWords } from './seat-figures.ts'

/** A gear that is set to its case: the height of the gear with its bearing, and from case and nominal the stack that it asks for. */
export const caseAndGear: ReadingKind = {
  ...plain,
  extras: ['seat'],
  figure: () => 'dimension',
  parse(_, typed, dialPerTurnMm) {
    return { ...readOne('dimension', typed, dialPerTurnMm), how: seatFigures(typed) }
  },
  value(measure, { raw, how: { seat = {} } }) {
    if (measure.kind !== 'seat') refuse('as', `is no way of reading ${measure.label}`)
    const { caseMm, nominalMm } = seat
    if (caseMm === undefined)
      refuse('seat.caseMm', 'is missing: the dimension of the case, from its mark or measured')
    if (nominalMm === undefined)
      refuse('seat.nominalMm', 'is missing: the nominal mounting distance of the gear')
    const { effect } = measure
    const result = depth({ method: 'case-and-gear', caseMm, assemblyMm: raw, nominalMm, effect })
    if (!('shimMm' in result) || result.shimMm < 0)
      refuse('seat.caseMm', `leaves no room for shims: case, gear and nominal do not go together`)
    return result.shimMm
  },
  explain: ({ raw, how }, show) =>
    how.as === 'case-and-gear'
      ? [`read as gear assembly ${show(raw, 'mm')}`, ...seatWords(how.seat, show)]
      : [],
}
