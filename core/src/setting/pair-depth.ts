import { InputError, refuse } from '../checks/input-error.ts'
import type { DepthMeasure, DriveSheet } from '../drives/sheet.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { Mesh } from '../gears/mesh.ts'
import type { Window } from '../checks/window.ts'
import { rideHeight, type RideHeight } from '../measuring/ride-height.ts'
import { lowerFirst } from '../units/words.ts'
import { worstGauge, type ReadingHow, type TakenReading } from './taken.ts'

/**
 * The depth that this very pair of gears wants, where no manual prints one: found by a ride-height search in the case, or on the loose pair on a
 * surface plate. It is no setting; it says what the depth beside it is judged against.
 */
export interface PairDepthMeasure {
  kind: 'pair-depth'
  /** `pair:` and the id of the depth. */
  id: string
  label: string
  /** Nothing to be held against. */
  window: Window
  target?: undefined
  readings: number
  before: string[]
  by?: undefined
  /** Id of the depth that it is wanted for. */
  depth: string
  /** The pair; its cone angles say how the ride falls. */
  mesh: Mesh
}

/** So near to what the pair wants a depth is right, mm. Our own; the pattern has the last word. */
export const PAIR_DEPTH_TOLERANCE_MM = 0.05

/** Depths that nobody prints; a gear that meshes with nothing has none. */
export const pairDepthMeasures = perSheet((sheet): PairDepthMeasure[] =>
  sheet.measures.flatMap((m) => {
    if (m.kind !== 'depth' || m.nominal !== 'of-the-pair') return []
    const pair = sheet.meshes.find((x) => x.pinion === m.gear || x.gear === m.gear)
    if (!pair) return []
    return [
      {
        kind: 'pair-depth' as const,
        id: `pair:${m.id}`,
        label: `Wanted by this pair: ${lowerFirst(m.label)}`,
        window: {},
        readings: 1,
        before: ['Both gears of the set that goes in', 'Teeth clean and dry, bearings seated'],
        depth: m.id,
        mesh: pair.mesh,
      },
    ]
  }),
)

/** What was found for a depth, if anything was. */
export const pairDepthOf = (sheet: DriveSheet, depth: DepthMeasure): PairDepthMeasure | undefined =>
  pairDepthMeasures(sheet).find((p) => p.depth === depth.id)

/** Window of a depth by what its pair wants, and the standard uncertainty of that, mm. Several findings: their mean, as doubtful as their gauge. */
export function wantedBy(taken: readonly TakenReading[]): { window: Window; u: number } | undefined {
  if (!taken.length) return undefined
  const mean = taken.reduce((sum, r) => sum + r.value, 0) / taken.length
  const gauge = worstGauge(taken)
  return {
    window: { min: mean - PAIR_DEPTH_TOLERANCE_MM, max: mean + PAIR_DEPTH_TOLERANCE_MM },
    u: Math.hypot(gauge.resolution / Math.sqrt(12), gauge.mpe / Math.sqrt(3), gauge.repeatability),
  }
}

/** The fit, with its refusals said of the rides. */
function fitted(mesh: Mesh, rides: NonNullable<ReadingHow['rides']>): RideHeight {
  try {
    return rideHeight({ mesh, points: rides.map(([pinionMm, rideMm]) => ({ pinionMm, rideMm })) })
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    throw new InputError(
      e.code,
      e.fields.map((f) => ({ ...f, path: f.path.replace(/^points/, 'rides') })),
    )
  }
}

/**
 * The depth that a ride-height search finds: pinion places and how far out the gear rode, both outward positive, mm. Source: {@link rideHeight}.
 * @returns the place where the flanks fit best, and the standard uncertainty that the points leave, mm
 * @throws InputError where the points show no best fit, or one outside of them
 */
export function rideDepth(
  { mesh }: Pick<PairDepthMeasure, 'mesh'>,
  rides: NonNullable<ReadingHow['rides']>,
): { depthMm: number; u: number } {
  const found = fitted(mesh, rides)
  if (!found.minimum)
    refuse(
      'rides',
      'rise to a highest point, not a lowest: are both read outward positive?',
      'ride-no-minimum',
    )
  if (!found.inside)
    refuse(
      'rides',
      `fit best at ${found.vertexMm.toFixed(2)} mm, outside of the places that were tried: try places on both sides of it`,
      'ride-outside',
    )
  return { depthMm: found.vertexMm, u: found.vertexUMm / 2 }
}
