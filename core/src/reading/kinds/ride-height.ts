import { refuse } from '../../checks/input-error.ts'
import { rideDepth } from '../../setting/pair-depth.ts'
import { typedFigure } from '../../units/typed-figure.ts'
import type { ReadingKind } from '../kind.ts'
import { plain } from './plain.ts'

/** Longest text that is kept of what was typed. */
const MOST_TEXT = 400

/** A search for the depth that a pair wants: the pinion at several places, and how far out the gear rode at each. */
export const rideHeight: ReadingKind = {
  ...plain,
  extras: ['rides'],
  parse(measure, { rides, unit, confirmed = false }) {
    if (!rides) refuse('rides', 'are missing: places of the pinion, and rides')
    if (measure.kind !== 'pair-depth')
      refuse('rides', `belong to the depth of a pair, not to ${measure.label}`)
    const read = rides.map((s, i) => ({
      place: typedFigure(`rides[${i}].place`, s.place, unit, 'depth', { confirmed }),
      ride: typedFigure(`rides[${i}].ride`, s.ride, unit, 'ride', { confirmed }),
    }))
    const points = read.map((s): [number, number] => [s.place.value, s.ride.value])
    const { depthMm, u } = rideDepth(measure, points)
    return {
      raw: depthMm,
      unit: read[0]!.place.unit,
      text: rides
        .map((s) => `${s.place} ${s.ride}`)
        .join(', ')
        .slice(0, MOST_TEXT),
      u,
      how: { rides: points },
    }
  },
  explain: ({ raw, how }, show) => [
    ...(how.as === 'ride-height' ? [`read as best of a ride-height search ${show(raw, 'mm')}`] : []),
    ...(how.rides ? [`${how.rides.length} places`] : []),
  ],
}
