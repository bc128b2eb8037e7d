import { refuse } from '../checks/input-error.ts'
import type { Measured } from '../setting/measured.ts'
import type { ReadingHow } from '../setting/taken.ts'
import type { PlausibleKind } from '../units/plausible.ts'
import type { Extra, ReadingKind, ShowFigure, TypedReading } from './kind.ts'
import { caseAndGear } from './kinds/case-and-gear.ts'
import { clock } from './kinds/clock.ts'
import { float } from './kinds/float.ts'
import { plain } from './kinds/plain.ts'
import { play } from './kinds/play.ts'
import { rideHeight } from './kinds/ride-height.ts'
import { runout } from './kinds/runout.ts'
import { swing } from './kinds/swing.ts'
import { torque } from './kinds/torque.ts'

type Way = NonNullable<ReadingHow['as']>

/** How a measure can be read. */
interface Ways {
  /** Where nothing else is said; a measure without one asks which of its ways it was. */
  usual?: ReadingKind
  /** Instead of one figure, where a swing was read. */
  swung?: ReadingKind
  ways?: Partial<Record<Way, ReadingKind>>
  /** What is asked where the way is missing. */
  ask?: string
}

const WAYS: Record<Measured['kind'], Ways> = {
  depth: { usual: plain, swung: swing },
  'end-play': { usual: plain },
  backlash: { usual: clock },
  runout: { usual: runout },
  'rolling-torque': { usual: torque, ways: { play } },
  crush: { ways: { gap: clock, float }, ask: 'is it the gap under the cover, or the float of the ring?' },
  seat: {
    ways: { 'case-and-gear': caseAndGear, float },
    ask: 'is it worked out from case and gear, or from a float?',
  },
  'pair-depth': {
    ways: { 'ride-height': rideHeight, 'loose-pair': plain },
    ask: 'was it found by a ride-height search, or on the loose pair?',
  },
}

/** All kinds, once each, in the order in which a record tells of them. */
const KINDS: ReadonlySet<ReadingKind> = new Set([
  clock,
  runout,
  float,
  play,
  caseAndGear,
  plain,
  torque,
  rideHeight,
  swing,
])

/** Of what a part of a request is asked, for whoever sends it with something else. */
const EXTRAS: Record<Extra, string> = {
  seat: 'is asked of a seat only',
  drag: 'is asked of a rolling torque only: nothing else has lips that drag',
  runIn: 'is asked of a rolling torque only',
  alongMm: 'is asked of a runout only',
  swing: 'is a way of reading a depth only',
  rides: 'belong to a ride-height search only',
}

/**
 * Of which kind a reading is: by its measure, the way it was read, and whether it is a swing.
 * @throws InputError where the measure has no such way, or several and none is named
 */
export function kindOf(
  measure: Measured,
  { as, swing: swung }: Pick<TypedReading, 'as' | 'swing'>,
): ReadingKind {
  const { usual, swung: ofSwing, ways = {}, ask } = WAYS[measure.kind]
  if (as !== undefined) return ways[as] ?? refuse('as', `"${as}" is no way of reading ${measure.label}`)
  return (swung && ofSwing) || usual || refuse('as', `is missing: ${ask}`)
}

/** @throws InputError for a part of the request that belongs to another kind */
export function checkExtras(kind: ReadingKind, typed: TypedReading): void {
  for (const [extra, words] of Object.entries(EXTRAS) as [Extra, string][])
    if (typed[extra] !== undefined && typed[extra] !== false && !kind.extras.includes(extra))
      refuse(extra, words)
}

/** Which plausibility range a figure of the measure belongs to; of one with several ways the first where none is named. */
export function figureKind(measure: Measured, as?: Way): PlausibleKind {
  const { usual, ways = {} } = WAYS[measure.kind]
  const kind = (as && ways[as]) ?? usual ?? Object.values(ways)[0]!
  return kind.figure(measure)
}

/**
 * The judged value of what a gauge showed.
 * @param raw what the gauge showed, mm or Nm
 * @param masterMm see {@link ReadingKind.value}
 * @throws InputError where it says nothing: a play without the sheet's slope, figures that do not go together
 */
export const valueOf = (measure: Measured, raw: number, masterMm?: number, how: ReadingHow = {}): number =>
  kindOf(measure, how.as === undefined ? {} : { as: how.as }).value(measure, { raw, how }, masterMm)

/** How a reading was taken, in parts of a sentence; empty where there is nothing to say. */
export const howWords = (reading: { raw: number; how: ReadingHow | null }, show: ShowFigure): string[] =>
  reading.how === null
    ? []
    : [...KINDS].flatMap((k) => k.explain({ raw: reading.raw, how: reading.how! }, show))
