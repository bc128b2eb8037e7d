import { lineFit } from '../numbers/least-squares.ts'
import { InputError, refuse } from '../checks/input-error.ts'
import { finite, positive } from '../checks/numbers.ts'
import { fitDecay, type Decay } from './decay.ts'
import { settledFrom } from './settling.ts'

export interface LeakTestInput {
  /** In rising time. Temperatures on all readings or on none. */
  readings: { s: number; gaugeKpa: number; tempC?: number }[]
  atmosphereKpa: number
  /** Free volume of the case. */
  volumeMl: number
  /** Standard ml/min (0 °C, 101.325 kPa). */
  allowedMlPerMin: number
  gaugeResolutionKpa: number
  /** Judge only from where the pressure has settled (seals seat, pumped air cools). @default false */
  skipSettling?: boolean
}

export type LeakVerdict = 'tight' | 'leaks' | 'too-short' | 'invalid'

export interface LeakTest {
  /** First reading minus last, the last carried to the first one's temperature; positive is a loss. */
  compensatedDropKpa: number
  /** Slope of the compensated pressure. */
  slopeKpaPerMin: number
  /** Positive is a leak, in the direction of the test. */
  leakMlPerMin: number
  leakUMlPerMin: number
  verdict: LeakVerdict
  /** How far two readings must lie apart for this gauge and volume to resolve half the allowed rate. */
  holdNeededMin: number
  /** How many degrees (of cooling) would explain the compensated drop. */
  temperatureExplainsC: number
  compensated: boolean
  /** Seconds after the first reading at which the pressure has settled; 0 when it had from the start. */
  settledAfterS: number
  /** Readings that were judged. */
  readingsUsed: number
  /** The exponential decay of a leak through a small path; tried when the drop is large. */
  decay?: Decay
  /** Which of the two describes the readings better. */
  better: 'line' | 'decay'
}

const STANDARD_KPA = 101.325
const ZERO_C = 273.15
/** Taken for the first reading when nobody looked at a thermometer. */
const ASSUMED_C = 20

/**
 * Leak rate of a closed case from its pressure over time.
 * Compensation at constant P_abs/T to the first reading's temperature; slope b by least squares (centred), its
 * standard error from the residuals (n − 2) or from the gauge's u_p = resolution/√12, the larger;
 * k = V / 101.325 × 273.15 / T(0); leak = −k b for a first gauge pressure ≥ 0, +k b for a vacuum; U = 2 k se(b).
 * leaks when leak − U > allowed; invalid when leak + U < −allowed; tight when leak + U ≤ allowed; else too-short.
 * holdNeeded = 2 √2 u_p k / (allowed / 2). ΔT that explains a drop = T Δp / P_abs.
 * The verdict always follows the line. A leak through a small path slows as the pressure falls; where the drop is large the
 * decay is fitted too, and `leakAtStartMlPerMin` is then the honester figure (decay.ts). Settling: see settling.ts.
 * @throws InputError on fewer than two readings, times that do not rise, or pressures below absolute zero
 */
export function leakTest(input: LeakTestInput): LeakTest {
  const { readings } = input
  if (!Array.isArray(readings) || readings.length < 2)
    throw new InputError('invalid-input', [
      { path: 'readings', message: `holds ${readings?.length ?? 0}; at least 2 are needed` },
    ])
  const atmosphere = positive('atmosphereKpa', input.atmosphereKpa)
  const volume = positive('volumeMl', input.volumeMl)
  const allowed = positive('allowedMlPerMin', input.allowedMlPerMin)
  const resolution = positive('gaugeResolutionKpa', input.gaugeResolutionKpa)
  const compensated = readings[0]!.tempC !== undefined
  readings.forEach((r, i) => {
    finite(`readings[${i}].s`, r.s)
    if (i > 0 && r.s <= readings[i - 1]!.s)
      refuse(`readings[${i}].s`, `is ${r.s} s, not later than the reading before`)
    if (finite(`readings[${i}].gaugeKpa`, r.gaugeKpa) <= -atmosphere)
      refuse(
        `readings[${i}].gaugeKpa`,
        `is ${r.gaugeKpa} kPa; below absolute zero pressure at ${atmosphere} kPa`,
      )
    if ((r.tempC !== undefined) !== compensated)
      refuse(`readings[${i}].tempC`, 'must be given with all readings or with none')
    if (r.tempC !== undefined && finite(`readings[${i}].tempC`, r.tempC) <= -ZERO_C)
      refuse(`readings[${i}].tempC`, `is ${r.tempC} °C, below absolute zero`)
  })

  const first = readings[0]!
  const kelvin = (first.tempC ?? ASSUMED_C) + ZERO_C
  const n = readings.length
  const minutes = new Float64Array(n)
  const pressure = new Float64Array(n)
  readings.forEach((r, i) => {
    minutes[i] = (r.s - first.s) / 60
    const absolute = r.gaugeKpa + atmosphere
    pressure[i] = compensated ? absolute * (kelvin / (r.tempC! + ZERO_C)) : absolute
  })
  const up = resolution / Math.sqrt(12)
  const { slope, standardError, rms } = slopeOf(minutes, pressure, up)
  const decay = fitDecay(minutes, pressure, atmosphere)
  const settledAt = decay && decay.rmsKpa <= 1.2 * up ? 0 : settledFrom(minutes, pressure, up)
  if (input.skipSettling && settledAt > 0)
    return {
      ...leakTest({ ...input, readings: readings.slice(settledAt), skipSettling: false }),
      settledAfterS: 60 * minutes[settledAt]!,
    }

  const k = (volume / STANDARD_KPA) * (ZERO_C / kelvin)
  const direction = first.gaugeKpa >= 0 ? -1 : 1
  const leak = direction * k * slope
  const U = 2 * k * standardError
  const drop = pressure[0]! - pressure[n - 1]!
  return {
    compensatedDropKpa: drop,
    slopeKpaPerMin: slope,
    leakMlPerMin: leak,
    leakUMlPerMin: U,
    verdict:
      leak - U > allowed
        ? 'leaks'
        : leak + U < -allowed
          ? 'invalid'
          : leak + U <= allowed
            ? 'tight'
            : 'too-short',
    holdNeededMin: (2 * Math.SQRT2 * up * k) / (allowed / 2),
    temperatureExplainsC: (kelvin * drop) / pressure[0]!,
    compensated,
    settledAfterS: 60 * minutes[settledAt]!,
    readingsUsed: n,
    ...(decay
      ? {
          decay: {
            tauMin: decay.tauMin,
            leakAtStartMlPerMin: (k * Math.abs(decay.startKpa)) / decay.tauMin,
            rmsKpa: decay.rmsKpa,
          },
        }
      : {}),
    better: decay && decay.rmsKpa < rms ? 'decay' : 'line',
  }
}

interface SlopeFit {
  slope: number
  standardError: number
  /** Root mean square of what the line leaves. */
  rms: number
}

/** Slope by least squares; its standard error from the residuals or from `floor`, the larger. */
function slopeOf(x: Float64Array, y: Float64Array, floor: number): SlopeFit {
  const n = x.length
  const line = lineFit(x, y)
  if (!line) return refuse('readings', 'were all taken at the same moment')
  const scatter = n > 2 ? Math.sqrt(line.squares / (n - 2)) : 0
  return {
    slope: line.slope,
    standardError: Math.max(scatter, floor) / Math.sqrt(line.xx),
    rms: Math.sqrt(line.squares / n),
  }
}
