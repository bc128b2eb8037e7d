import { leastSquares } from '../numbers/least-squares.ts'
import { InputError } from '../checks/input-error.ts'
import { finite } from '../checks/numbers.ts'
import { checkWindow, type Window } from '../checks/window.ts'
import { uncertaintyOfMean, verdictOf, type Verdict } from './judge.ts'
import { spread } from './reading-set.ts'

export interface BacklashRoundInput {
  /** Backlash at three or more places round the gear, each with one or more readings, all read at one radius, mm. */
  places: { deg: number; readings: number[] }[]
  resolution: number
  mpe: number
  /** @default 0 */
  repeatability?: number
  window: Window
  /** Largest allowed difference between the places, mm. */
  variationLimitMm?: number
}

export interface BacklashRound {
  /** Mean of the places' means, mm: what a shim would move. */
  meanMm: number
  smallestMm: number
  smallestAtDeg: number
  largestMm: number
  /** Largest minus smallest: the gear's runout as backlash. */
  variationMm: number
  /** Amplitude of the sine through the places, and where it is tightest; with at least three different angles. */
  runoutMm: number
  tightAtDeg: number
  /** Expanded uncertainty (k = 2) of one place. */
  UMm: number
  /** Of the smallest place against the lower limit and of the largest against the upper one; the worse. */
  verdict: Verdict
  variationVerdict?: Verdict
}

const RANK: Record<Verdict, number> = { in: 0, 'too-close': 1, out: 2 }

/**
 * Backlash at several angular positions. Its variation is the gear's runout; it is the smallest value that must stay above
 * the minimum, and the largest that must stay below the maximum, so each is judged by itself (ISO 14253-1, U = 2u of the
 * place's own readings). The sine a + b cos φ + c sin φ is fitted by least squares; places need not be evenly spaced.
 * The variation has U = 2√2 u: the gauge's own error is the same at both places and is counted all the same.
 * @throws InputError on fewer than three places, places twice at one angle, or a place without readings
 */
export function backlashRound(input: BacklashRoundInput): BacklashRound {
  const { places } = input
  if (!Array.isArray(places) || places.length < 3)
    throw new InputError('invalid-input', [
      { path: 'places', message: `holds ${places?.length ?? 0}; take at least three places round the gear` },
    ])
  checkWindow('window', input.window)
  const seen = new Map<number, number>()
  const rows = places.map((p, i) => {
    const deg = ((finite(`places[${i}].deg`, p.deg) % 360) + 360) % 360
    if (!p.readings.length)
      throw new InputError('invalid-input', [{ path: `places[${i}].readings`, message: 'is empty' }])
    p.readings.forEach((r, k) => finite(`places[${i}].readings[${k}]`, r))
    const twin = seen.get(deg)
    if (twin !== undefined)
      throw new InputError('invalid-input', [
        { path: `places[${i}].deg`, message: `is ${p.deg}, the same place as places[${twin}]` },
      ])
    seen.set(deg, i)
    const s = spread(p.readings)
    return { deg, mean: s.mean, u: uncertaintyOfMean(s.sd, s.count, input) }
  })
  const low = rows.reduce((a, b) => (b.mean < a.mean ? b : a))
  const high = rows.reduce((a, b) => (b.mean > a.mean ? b : a))
  const { min, max } = input.window
  const verdicts = [
    verdictOf(low.mean, 2 * low.u, min === undefined ? { max: Infinity } : { min }),
    verdictOf(high.mean, 2 * high.u, max === undefined ? { min: -Infinity } : { max }),
  ]
  const sine = sineThrough(rows)
  const variationMm = high.mean - low.mean
  const UMm = 2 * Math.max(...rows.map((r) => r.u))
  return {
    meanMm: spread(rows.map((r) => r.mean)).mean,
    smallestMm: low.mean,
    smallestAtDeg: low.deg,
    largestMm: high.mean,
    variationMm,
    runoutMm: sine.amplitude,
    tightAtDeg: (sine.highAtDeg + 180) % 360,
    UMm,
    verdict: verdicts.reduce((a, b) => (RANK[b] > RANK[a] ? b : a)),
    ...(input.variationLimitMm === undefined
      ? {}
      : {
          variationVerdict: verdictOf(variationMm, Math.SQRT2 * UMm, {
            max: finite('variationLimitMm', input.variationLimitMm),
          }),
        }),
  }
}

/** Least squares of mean + b cos φ + c sin φ, on columns that are centred. */
function sineThrough(rows: { deg: number; mean: number }[]): { amplitude: number; highAtDeg: number } {
  const rad = Math.PI / 180
  const columns = [
    rows.map((r) => Math.cos(r.deg * rad)),
    rows.map((r) => Math.sin(r.deg * rad)),
    rows.map((r) => r.mean),
  ].map((column) => {
    const mean = column.reduce((s, v) => s + v, 0) / column.length
    return column.map((v) => v - mean)
  })
  const [cos, sin, y] = columns as [number[], number[], number[]]
  const fit = leastSquares(
    cos.map((c, i) => [c, sin[i]!]),
    y,
  )
  // three different angles on a circle are never in one line, but two of them may nearly coincide
  const spread = determinant(cos, sin)
  if (!fit || spread < 1e-9 * rows.length ** 2) return { amplitude: 0, highAtDeg: 0 }
  const [b, c] = fit.x as [number, number]
  return { amplitude: Math.hypot(b, c), highAtDeg: (((Math.atan2(c, b) / rad) % 360) + 360) % 360 }
}

/** Of the normal equations of two columns: how well they can be told apart. */
function determinant(a: number[], b: number[]): number {
  const dot = (x: number[], y: number[]) => x.reduce((s, v, i) => s + v * y[i]!, 0)
  return dot(a, a) * dot(b, b) - dot(a, b) ** 2
}
