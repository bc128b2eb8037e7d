import {
  contactTeeth,
  knownFrom,
  pairAfter,
  pairStands,
  type AssumedFigure,
  type PairStands,
} from '@moray/core/contact/as-set'
import type { DriveSheet, GearMesh } from '@moray/core/drives/sheet'
import type { Assessment } from '@moray/core/setting/assess'
import type { PairAsked } from '../../workers/contact-api.ts'

/** A pair of gears of a job whose teeth can be drawn in contact. */
export interface ShownPair {
  pair: GearMesh
  teeth: ReturnType<typeof contactTeeth>
  /** Where it stands by the gauges; undefined while its backlash is not read. */
  stands: PairStands | undefined
}

export function pairsOf(sheet: DriveSheet, assessment: Assessment): ShownPair[] {
  const known = knownFrom(assessment)
  return sheet.meshes.map((pair) => ({
    pair,
    teeth: contactTeeth(pair),
    stands: pairStands(sheet, pair, known),
  }))
}

/** Question for the patches of pairs that stand somewhere. @param change stack id → mm thicker */
export const asked = (
  sheet: DriveSheet,
  pairs: readonly ShownPair[],
  change: Record<string, number> = {},
): PairAsked[] =>
  pairs.flatMap(({ pair, teeth, stands }) =>
    stands
      ? [
          {
            id: pair.id,
            mesh: teeth.mesh,
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
