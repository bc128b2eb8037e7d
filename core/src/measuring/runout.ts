import { InputError, refuse } from '../checks/input-error.ts'
import { finite, notNegative, positive } from '../checks/numbers.ts'
import { judge, type Verdict } from './judge.ts'

export interface RunoutInput {
  /** Readings at equal steps round one full turn, mm; at least 6. The first stands at 0°. */
  readingsMm: number[]
  /** Largest allowed total indicated reading, mm. */
  limitMm?: number
  /** @default 0 */
  resolutionMm?: number
  /** @default 0 */
  mpeMm?: number
  /** Leave blips out of the judged reading, the technician having agreed. @default false */
  leaveOutBlips?: boolean
}

export interface Runout {
  /** max − min of all readings. */
  tirMm: number
  /** max − min of the readings that count. */
  countedTirMm: number
  /** Amplitude of the first harmonic: a bend or an offset. */
  eccentricityMm: number
  /** 2 × eccentricity: the reading that the bend alone would give. */
  sineTirMm: number
  /** Where the fitted sine is highest, degrees in the order of the readings, 0 ≤ angle < 360. */
  highAtDeg: number
  /** Amplitude of the second harmonic: ovality. */
  secondHarmonicMm: number
  /** Indices of readings that stand out like a nick. */
  blips: number[]
  /** Only with a limit. */
  verdict?: Verdict
}

/** A reading whose externally studentized residual is beyond this is a blip. */
const BLIP = 4

/**
 * Runout of one station. First and second harmonic by discrete Fourier sums (at equal angles these are the
 * least-squares fit). Blips: externally studentized residuals of the fit mean + first harmonic,
 * t_i = e_i / (s_(i) √(1 − h)) with leverage h = 3/n; Cook & Weisberg, Residuals and Influence in Regression
 * (1982), section 2.2.1.
 * @throws InputError on fewer than six readings or non-finite values
 */
export function runout(input: RunoutInput): Runout {
  const { readingsMm: y } = input
  if (!Array.isArray(y) || y.length < 6)
    throw new InputError('invalid-input', [
      {
        path: 'readingsMm',
        message: `holds ${y?.length ?? 0} readings; at least 6 at equal angles are needed`,
      },
    ])
  y.forEach((v, i) => finite(`readingsMm[${i}]`, v))
  const resolution = notNegative('resolutionMm', input.resolutionMm ?? 0)
  const mpe = notNegative('mpeMm', input.mpeMm ?? 0)
  if (input.limitMm !== undefined) positive('limitMm', input.limitMm)

  const first = harmonic(y, 1)
  const second = harmonic(y, 2)
  const blips = findBlips(y, first)
  const counted = input.leaveOutBlips ? y.filter((_, i) => !blips.includes(i)) : y
  const countedTirMm = Math.max(...counted) - Math.min(...counted)
  const amplitude = Math.hypot(first.cos, first.sin)
  const high = (Math.atan2(first.sin, first.cos) * 180) / Math.PI
  return {
    tirMm: Math.max(...y) - Math.min(...y),
    countedTirMm,
    eccentricityMm: amplitude,
    sineTirMm: 2 * amplitude,
    highAtDeg: (high + 360) % 360,
    secondHarmonicMm: Math.hypot(second.cos, second.sin),
    blips,
    ...(input.limitMm === undefined
      ? {}
      : {
          verdict: judge({ readings: [countedTirMm], resolution, mpe, window: { max: input.limitMm } })
            .verdict,
        }),
  }
}

function harmonic(y: readonly number[], order: number): { cos: number; sin: number } {
  let cos = 0
  let sin = 0
  y.forEach((v, k) => {
    const angle = (2 * Math.PI * order * k) / y.length
    cos += v * Math.cos(angle)
    sin += v * Math.sin(angle)
  })
  return { cos: (2 * cos) / y.length, sin: (2 * sin) / y.length }
}

function findBlips(y: readonly number[], first: { cos: number; sin: number }): number[] {
  const n = y.length
  const mean = y.reduce((a, b) => a + b, 0) / n
  const residuals = y.map((v, k) => {
    const angle = (2 * Math.PI * k) / n
    return v - mean - first.cos * Math.cos(angle) - first.sin * Math.sin(angle)
  })
  const leverage = 3 / n
  const squares = residuals.reduce((sum, e) => sum + e * e, 0)
  // round-off of the fit itself, relative to the size of the readings
  const noise = 1e-12 * Math.max(...y.map(Math.abs), 1e-300)
  return residuals.flatMap((e, i) => {
    if (Math.abs(e) <= noise) return []
    const others = Math.max(0, squares - (e * e) / (1 - leverage)) / (n - 4)
    const scale = Math.sqrt(others * (1 - leverage))
    return Math.abs(e) > BLIP * scale ? [i] : []
  })
}

/** Runout at one place along a shaft, with the fitted sine as a vector. */
export interface Station {
  atMm: number
  readingsMm: number[]
}

export interface ShaftRunout {
  stations: (Runout & { atMm: number })[]
  /** Change of the eccentricity vector's slope at each inner station, mm per mm; the largest is the kink. */
  kinks: { atMm: number; slopeChange: number }[]
  /** Where the slope changes most beyond what the outer stations do; undefined with fewer than three stations. */
  kinkAtMm?: number
  /** What the shaft looks like: a parallel offset, a skew (straight but not parallel), or a kink. */
  shape: 'straight' | 'offset' | 'skew' | 'kink'
  /** Direction to mark on the shaft: where it stands highest at the station with the largest eccentricity. */
  markAtDeg: number
}

/**
 * Several stations along one shaft, all read from the same 0°. Eccentricity vectors that agree are an offset;
 * vectors on a straight line along the shaft are a skew; where the slope of that line changes, the shaft is bent.
 * @param noiseMm eccentricities and departures up to this are taken for nothing
 * @throws InputError on fewer than two stations or stations that are not in order
 */
export function shaftRunout(stations: Station[], noiseMm: number): ShaftRunout {
  if (stations.length < 2) refuse('stations', `holds ${stations.length}; at least 2 are needed`)
  positive('noiseMm', noiseMm)
  stations.forEach((s, i) => {
    finite(`stations[${i}].atMm`, s.atMm)
    if (i > 0 && s.atMm <= stations[i - 1]!.atMm)
      refuse(`stations[${i}].atMm`, 'must be farther along than the one before')
  })
  const fits = stations.map((s) => ({ atMm: s.atMm, ...runout({ readingsMm: s.readingsMm }) }))
  const vectors = fits.map((f) => {
    const angle = (f.highAtDeg * Math.PI) / 180
    return [f.eccentricityMm * Math.cos(angle), f.eccentricityMm * Math.sin(angle)] as const
  })
  const slope = (i: number) => {
    const length = fits[i + 1]!.atMm - fits[i]!.atMm
    return [
      (vectors[i + 1]![0] - vectors[i]![0]) / length,
      (vectors[i + 1]![1] - vectors[i]![1]) / length,
    ] as const
  }
  const kinks = fits.slice(1, -1).map((f, k) => {
    const [before, after] = [slope(k), slope(k + 1)]
    return { atMm: f.atMm, slopeChange: Math.hypot(after[0] - before[0], after[1] - before[1]) }
  })
  const worst = kinks.reduce<(typeof kinks)[number] | undefined>(
    (a, b) => (a && a.slopeChange >= b.slopeChange ? a : b),
    undefined,
  )
  const span = fits.at(-1)!.atMm - fits[0]!.atMm
  const drift = Math.hypot(vectors.at(-1)![0] - vectors[0]![0], vectors.at(-1)![1] - vectors[0]![1])
  const largest = fits.reduce((a, b) => (b.eccentricityMm > a.eccentricityMm ? b : a))
  const bent = worst !== undefined && (worst.slopeChange * span) / 4 > noiseMm
  const shape = bent
    ? 'kink'
    : drift > noiseMm
      ? 'skew'
      : largest.eccentricityMm > noiseMm
        ? 'offset'
        : 'straight'
  return {
    stations: fits,
    kinks,
    ...(bent ? { kinkAtMm: worst.atMm } : {}),
    shape,
    markAtDeg: largest.highAtDeg,
  }
}
