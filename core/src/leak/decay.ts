/** What a leak through a small path does: the gauge pressure falls by the same share in the same time. */
export interface Decay {
  /** Time in which the gauge pressure falls to 1/e. */
  tauMin: number
  /** Leak rate at the first reading, standard ml/min; it only falls from there. */
  leakAtStartMlPerMin: number
  /** Root mean square of what the curve leaves. */
  rmsKpa: number
}

/** Share of the gauge pressure that has to be lost before a curve can be told from a line. */
const LARGE_DROP = 0.05
const MOST_STEPS = 20

/**
 * Fits p(t) = p₀ e^(−t/τ) to gauge pressures by Gauss-Newton, started from the first and last readings.
 * Stops when τ changes by less than one part in 10⁶, or after 20 steps.
 * @param minutes rising, minutes[0] = 0
 * @param absolute compensated absolute pressures, kPa, same length
 * @returns undefined with fewer than four readings, a drop below 5 % of the gauge pressure, a pressure that crosses the
 *   atmosphere's, or a fit that runs off
 */
export function fitDecay(
  minutes: Float64Array,
  absolute: Float64Array,
  atmosphere: number,
): { startKpa: number; tauMin: number; rmsKpa: number } | undefined {
  const n = minutes.length
  if (n < 4) return undefined
  const first = absolute[0]! - atmosphere
  const last = absolute[n - 1]! - atmosphere
  if (first === 0 || last / first <= 0 || last / first > 1 - LARGE_DROP) return undefined
  for (let i = 0; i < n; i++) if ((absolute[i]! - atmosphere) * first <= 0) return undefined

  let start = first
  let rate = Math.log(first / last) / minutes[n - 1]!
  for (let step = 0; step < MOST_STEPS; step++) {
    let [aa, ab, bb, ar, br] = [0, 0, 0, 0, 0]
    for (let i = 0; i < n; i++) {
      const e = Math.exp(-rate * minutes[i]!)
      const byRate = -start * minutes[i]! * e
      const rest = absolute[i]! - atmosphere - start * e
      aa += e * e
      ab += e * byRate
      bb += byRate * byRate
      ar += e * rest
      br += byRate * rest
    }
    const determinant = aa * bb - ab * ab
    if (!(determinant > 1e-12 * aa * bb)) return undefined
    const change = (br * aa - ar * ab) / determinant
    start += (ar * bb - br * ab) / determinant
    rate += change
    if (!(rate > 0) || !Number.isFinite(start)) return undefined
    if (Math.abs(change) < 1e-6 * rate) break
  }
  let squares = 0
  for (let i = 0; i < n; i++)
    squares += (absolute[i]! - atmosphere - start * Math.exp(-rate * minutes[i]!)) ** 2
  return { startKpa: start, tauMin: 1 / rate, rmsKpa: Math.sqrt(squares / n) }
}
