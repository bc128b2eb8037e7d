import { lineFit } from '../numbers/least-squares.ts'
import { InputError, refuse } from '../checks/input-error.ts'
import { finite, positive } from '../checks/numbers.ts'
import { fitDecay, type Decay } from './decay.ts'
import { settledFrom } from './settling.ts'
import { holdNeeded, temperatureU, weatherU, type Unknown } from './unknown.ts'

export interface LeakTestInput {
  /** In rising time. Temperatures on none, or on the first and the last at least; between them the case is taken to change evenly. */
  readings: { s: number; gaugeKpa: number; tempC?: number }[]
  atmosphereKpa: number
  /** Pressure of the air at the last reading, where the barometer was looked at again. */
  atmosphereEndKpa?: number
  /** Free volume of the case. */
  volumeMl: number
  /** Standard ml/min (0 °C, 101.325 kPa). This or `allowedDrop`, or both. */
  allowedMlPerMin?: number
  /** What a manual prints: not more than so much in so many minutes. */
  allowedDrop?: AllowedDrop
  /** Smallest step of the gauge. */
  gaugeResolutionKpa: number
  /** Judge only from where the pressure has settled (seals seat, pumped air cools). @default false */
  skipSettling?: boolean
}

export interface AllowedDrop {
  /** 0: no drop. */
  kpa: number
  minutes: number
  /** Step that this criterion is judged by: that of the needle that the manual means. @default the gauge's own */
  needleKpa?: number
}

export type LeakVerdict = 'tight' | 'leaks' | 'too-short' | 'invalid'
/** What the manual's criterion says. */
export type ManualVerdict = 'passes' | 'fails' | 'too-close' | 'too-short'

export interface LeakTest {
  /** First reading minus last, the last carried to the first one's temperature; positive is a loss. */
  compensatedDropKpa: number
  /** Slope of the compensated pressure. */
  slopeKpaPerMin: number
  /** Positive is a leak, in the direction of the test. */
  leakMlPerMin: number
  /** With all that is not known in it: the gauge, the case's temperature where nobody measured it, the weather of a long hold. */
  leakUMlPerMin: number
  /** By the rate; only where one is allowed. */
  verdict?: LeakVerdict
  /** By the manual's drop; only where one is allowed. */
  byManual?: ManualVerdict
  /** After how many minutes half the allowed rate can be told; null when not within a day. Only with a rate. */
  holdNeededMin?: number | null
  /** How many degrees (of cooling) would explain the compensated drop. */
  temperatureExplainsC: number
  /** How much pressure one degree hides or feigns. */
  hidesKpaPerC: number
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
 * Leak rate of a closed case from its pressure over time, and what a manual's criterion says of it.
 * Compensation at constant P_abs/T to the first reading's temperature; slope b by least squares (centred), its
 * standard error from the residuals (n − 2) or from the gauge's u_p = resolution/√12, the larger;
 * k = V / 101.325 × 273.15 / T(0); leak = −k b for a first gauge pressure ≥ 0, +k b for a vacuum; U = 2 k se(b), in quadrature with what an unknown
 * temperature (unknown.ts) and an unwatched barometer may do.
 * leaks when leak − U > allowed; invalid when leak + U < −allowed; tight when leak + U ≤ allowed; else too-short. By the manual: see {@link byManual}.
 * ΔT that explains a drop = T Δp / P_abs.
 * The verdicts always follow the line. A leak through a small path slows as the pressure falls; where the drop is large the
 * decay is fitted too, and `leakAtStartMlPerMin` is then the honester figure (decay.ts). Settling: see settling.ts.
 * @throws InputError on fewer than two readings, times that do not rise, pressures below absolute zero, or no criterion
 */
export function leakTest(input: LeakTestInput): LeakTest {
  checkInput(input)
  const { readings, atmosphereKpa, atmosphereEndKpa = atmosphereKpa, allowedMlPerMin: allowed } = input
  const first = readings[0]!
  const compensated = first.tempC !== undefined
  const kelvin = (first.tempC ?? ASSUMED_C) + ZERO_C
  const n = readings.length
  const minutes = Float64Array.from(readings, (r) => (r.s - first.s) / 60)
  const held = minutes[n - 1]!
  const temperature = compensated
    ? between(
        minutes,
        readings.map((r) => r.tempC),
      )
    : undefined
  const pressure = Float64Array.from(readings, (r, i) => {
    const air = atmosphereKpa + ((atmosphereEndKpa - atmosphereKpa) * minutes[i]!) / (held || 1)
    const absolute = r.gaugeKpa + air
    return temperature ? absolute * (kelvin / (temperature[i]! + ZERO_C)) : absolute
  })
  const up = input.gaugeResolutionKpa / Math.sqrt(12)
  const { slope, standardError, rms } = slopeOf(minutes, pressure, up)
  const decay = fitDecay(minutes, pressure, atmosphereKpa)
  const settledAt = decay && decay.rmsKpa <= 1.2 * up ? 0 : settledFrom(minutes, pressure, up)
  if (input.skipSettling && settledAt > 0)
    return {
      ...leakTest({ ...input, readings: withEnds(input, settledAt, temperature), skipSettling: false }),
      settledAfterS: 60 * minutes[settledAt]!,
    }

  const k = (input.volumeMl / STANDARD_KPA) * (ZERO_C / kelvin)
  const direction = first.gaugeKpa >= 0 ? -1 : 1
  const leak = direction * k * slope
  const unknown: Unknown = { volumeMl: input.volumeMl, absoluteKpa: pressure[0]! }
  const U = Math.hypot(
    2 * k * standardError,
    compensated ? 0 : temperatureU(unknown, held),
    input.atmosphereEndKpa === undefined ? weatherU(k, held) : 0,
  )
  const drop = pressure[0]! - pressure[n - 1]!
  return {
    compensatedDropKpa: drop,
    slopeKpaPerMin: slope,
    leakMlPerMin: leak,
    leakUMlPerMin: U,
    ...(allowed === undefined
      ? {}
      : {
          verdict: byRate(leak, U, allowed),
          holdNeededMin: holdNeeded(2 * Math.SQRT2 * up * k, allowed / 2, compensated ? undefined : unknown),
        }),
    ...(input.allowedDrop
      ? {
          byManual: byManual(
            // the needle itself where nobody measured the temperature
            compensated ? pressure : Float64Array.from(readings, (r) => r.gaugeKpa),
            minutes,
            direction,
            { needleKpa: input.gaugeResolutionKpa, ...input.allowedDrop },
          ),
        }
      : {}),
    temperatureExplainsC: (kelvin * drop) / pressure[0]!,
    hidesKpaPerC: (first.gaugeKpa + atmosphereKpa) / kelvin,
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

function checkInput(input: LeakTestInput): void {
  const { readings } = input
  if (!Array.isArray(readings) || readings.length < 2)
    throw new InputError('invalid-input', [
      { path: 'readings', message: `holds ${readings?.length ?? 0}; at least 2 are needed` },
    ])
  const atmosphere = positive('atmosphereKpa', input.atmosphereKpa)
  if (input.atmosphereEndKpa !== undefined) positive('atmosphereEndKpa', input.atmosphereEndKpa)
  positive('volumeMl', input.volumeMl)
  positive('gaugeResolutionKpa', input.gaugeResolutionKpa)
  if (input.allowedMlPerMin !== undefined) positive('allowedMlPerMin', input.allowedMlPerMin)
  else if (!input.allowedDrop)
    refuse('allowedDrop', 'is missing, and so is allowedMlPerMin; one of the two says what is tight enough')
  if (input.allowedDrop) {
    const { kpa, minutes, needleKpa } = input.allowedDrop
    if (finite('allowedDrop.kpa', kpa) < 0)
      refuse('allowedDrop.kpa', `is ${kpa}; 0 is no drop, and less there is not`)
    positive('allowedDrop.minutes', minutes)
    if (needleKpa !== undefined) positive('allowedDrop.needleKpa', needleKpa)
  }
  const warm = readings.some((r) => r.tempC !== undefined)
  readings.forEach((r, i) => {
    finite(`readings[${i}].s`, r.s)
    if (i > 0 && r.s <= readings[i - 1]!.s)
      refuse(`readings[${i}].s`, `is ${r.s} s, not later than the reading before`)
    if (finite(`readings[${i}].gaugeKpa`, r.gaugeKpa) <= -atmosphere)
      refuse(
        `readings[${i}].gaugeKpa`,
        `is ${r.gaugeKpa} kPa; below absolute zero pressure at ${atmosphere} kPa`,
      )
    if (r.tempC === undefined && warm && (i === 0 || i === readings.length - 1))
      refuse(`readings[${i}].tempC`, 'must be given with the first and the last reading, or with none')
    if (r.tempC !== undefined && finite(`readings[${i}].tempC`, r.tempC) <= -ZERO_C)
      refuse(`readings[${i}].tempC`, `is ${r.tempC} °C, below absolute zero`)
  })
}

/** Values at every time, straight between those that are there. @param values the first and the last are there */
function between(x: Float64Array, values: readonly (number | undefined)[]): Float64Array {
  const made = Float64Array.from(values, (v) => v ?? NaN)
  let before = 0
  for (let i = 1; i < made.length; i++) {
    if (Number.isNaN(made[i]!)) continue
    for (let j = before + 1; j < i; j++)
      made[j] = made[before]! + ((made[i]! - made[before]!) * (x[j]! - x[before]!)) / (x[i]! - x[before]!)
    before = i
  }
  return made
}

/** The readings from one on; each with its temperature, where the case has one. */
const withEnds = ({ readings }: LeakTestInput, from: number, temperature: Float64Array | undefined) =>
  readings.slice(from).map((r, i) => (temperature ? { ...r, tempC: temperature[from + i]! } : r))

function byRate(leak: number, U: number, allowed: number): LeakVerdict {
  if (leak - U > allowed) return 'leaks'
  if (leak + U < -allowed) return 'invalid'
  return leak + U <= allowed ? 'tight' : 'too-short'
}

/**
 * The drop over the manual's minutes, reading against reading, straight between readings: D = p(0) − p(minutes), in the direction of the test, with
 * U = 2 √2 step/√12. Passes when D + U ≤ what is allowed, fails when D − U exceeds it. "No drop" means none that the needle shows: passes up to half
 * a step, fails beyond half a step and half of U.
 */
function byManual(
  pressure: Float64Array,
  minutes: Float64Array,
  direction: 1 | -1,
  { kpa, minutes: wanted, needleKpa }: Required<AllowedDrop>,
): ManualVerdict {
  const next = minutes.findIndex((m) => m >= wanted)
  if (next < 0) return 'too-short'
  const before = Math.max(0, next - 1)
  const share = next === before ? 0 : (wanted - minutes[before]!) / (minutes[next]! - minutes[before]!)
  const then = pressure[before]! + share * (pressure[next]! - pressure[before]!)
  const drop = direction * (then - pressure[0]!)
  const U = (2 * Math.SQRT2 * needleKpa) / Math.sqrt(12)
  if (kpa === 0) {
    if (drop <= needleKpa / 2) return 'passes'
    return drop > needleKpa / 2 + U / 2 ? 'fails' : 'too-close'
  }
  if (drop + U <= kpa) return 'passes'
  return drop - U > kpa ? 'fails' : 'too-close'
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
