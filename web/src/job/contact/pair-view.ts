import { pairAfter, type AssumedFigure, type ContactPair } from '@moray/core/contact/as-set'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { PairAsked } from '../../workers/contact-api.ts'

/** Question for the patches of pairs that stand somewhere. @param change stack id → mm thicker */
export const asked = (
  sheet: DriveSheet,
  pairs: readonly ContactPair[],
  change: Record<string, number> = {},
): PairAsked[] =>
  pairs.flatMap(({ pair, teeth, stands }) =>
    stands
      ? [
          {
            id: pair.id,
            mesh: teeth.mesh,
            pushed: teeth.pushed,
            setting: { ...pairAfter(sheet, pair, stands, change), offsetMm: 0, shaftAngleErrorDeg: 0 },
          },
        ]
      : [],
  )

const ASSUMED: Record<AssumedFigure, string> = {
  addenda: 'addenda by the usual proportions',
  cutter: 'the cutter',
  angles: 'spiral and pressure angle',
  crowning: 'crowning',
}

/** What of the teeth nobody has given, in words. */
export const assumedText = (assumed: readonly AssumedFigure[]): string =>
  `Assumed: ${assumed.map((a) => ASSUMED[a]).join(', ')}. Where it moves is surer than where it lies.`
