import { InputError } from '../../checks/input-error.ts'
import { swing as turningPoint } from '../../measuring/swing.ts'
import { typedFigure } from '../../units/typed-figure.ts'
import type { ReadingKind } from '../kind.ts'
import { plain, plainFigure } from './plain.ts'

/** A gauge that is swung over a crown or through a bore: its turning point counts, with what the scatter of the samples leaves in doubt. */
export const swing: ReadingKind = {
  ...plain,
  extras: ['swing'],
  parse(measure, { swing: samples = [], extreme = 'lowest', unit, confirmed = false }, dialPerTurnMm) {
    const kind = plainFigure(measure)
    const read = samples.map((s, i) => ({
      at: s.at,
      ...typedFigure(`swing[${i}].text`, s.text, unit, kind, { dialPerTurnMm, confirmed }),
    }))
    const found = turningPoint({ samples: read.map((s) => ({ at: s.at, readingMm: s.value })), extreme })
    if (!found.trusted)
      throw new InputError('swing-not-turned', [
        {
          path: 'swing',
          message: `has not passed its ${extreme} reading: swing on until the readings come back, and choose highest where the plunger is pressed in`,
        },
      ])
    return {
      raw: found.valueMm,
      unit: read[0]!.unit,
      text: samples.map((s) => s.text).join(' '),
      u: (found.valueUMm ?? 0) / 2,
      how: { swing: { extreme, samples: read.map((s) => [s.at, s.value]) } },
    }
  },
  explain: ({ how }) => (how.swing ? [`${how.swing.extreme} of a swing of ${how.swing.samples.length}`] : []),
}
