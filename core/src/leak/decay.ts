import { gaussNewton } from '../numbers/least-squares.ts'

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
 *   atmosphere's, or a fit that runs off or has not settled after 20 steps
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

  const fit = gaussNewton(
    [first, Math.log(first / last) / minutes[n - 1]!],
    ([start, rate]) => {
      if (!(rate! > 0) || !Number.isFinite(start!)) return undefined
      const rest: number[] = []
      const rows: number[][] = []
      for (let i = 0; i < n; i++) {
        const e = Math.exp(-rate! * minutes[i]!)
        rest.push(absolute[i]! - atmosphere - start! * e)
        rows.push([e, -start! * minutes[i]! * e])
      }
      return { rest, rows }
    },
    ([, rate], [, change]) => Math.abs(change!) < 1e-6 * rate!,
    MOST_STEPS,
  )
  // a curve that was still moving at the cap describes nothing
  if (fit.status !== 'converged') return undefined
  const [start, rate] = fit.x
  return { startKpa: start!, tauMin: 1 / rate!, rmsKpa: Math.sqrt(fit.squares / n) }
}
