import { at, InputError } from '../checks/input-error.ts'
import { finite, notNegative } from '../checks/numbers.ts'
import { checkWindow, type Window } from '../checks/window.ts'
import { spread } from './reading-set.ts'
import { temperatureEffect, type TemperatureEffectInput } from './temperature.ts'

export type Verdict = 'in' | 'out' | 'too-close'

export interface JudgeInput {
  /** Readings of one thing, all in one unit. */
  readings: number[]
  /** Smallest step the instrument shows. */
  resolution: number
  /** Largest permissible error of the instrument. */
  mpe: number
  /** Known standard deviation of repeated readings with this instrument and grip. @default 0 */
  repeatability?: number
  window: Window
  /**
   * The readings were taken on a case that is not at 20 °C: they are carried to 20 °C, and not knowing the temperature
   * better adds to the uncertainty (temperature.ts). Lengths in mm.
   */
  temperature?: TemperatureEffectInput
}

export interface Judgement {
  /** Mean of the readings, carried to 20 °C when a temperature was given. */
  mean: number
  /** Standard uncertainty of the mean. */
  u: number
  /** Expanded uncertainty 2u. */
  U: number
  verdict: Verdict
  /** Smallest number of readings, not below the present one, that decides at the same mean and spread; null when none does. */
  readingsNeeded: number | null
  /** What was taken off the mean for the temperature, mm. */
  temperatureMm?: number
}

/**
 * Standard uncertainty of the mean of a set of readings:
 * u² = resolution²/12 + mpe²/3 + max(s, repeatability)²/n, with s = 0 for a single reading.
 * JCGM 100:2008 (GUM) 4.3.7 (rectangular distributions), 4.2.3 (mean), 5.1.2 (combination).
 * A temperature term is added as it is: all readings share it.
 * Resolution and permissible error do not shrink with n: the same gauge errs the same way each time.
 */
export function uncertaintyOfMean(s: number, n: number, instrument: Instrument): number {
  const scatter = Math.max(s, instrument.repeatability ?? 0)
  return Math.sqrt(floorSquared(instrument) + (scatter * scatter) / n)
}

interface Instrument {
  resolution: number
  mpe: number
  repeatability?: number
  /** Standard uncertainty from the temperature; the same for every reading. @default 0 */
  uTemperature?: number
}

function floorSquared(i: Instrument): number {
  return (i.resolution * i.resolution) / 12 + (i.mpe * i.mpe) / 3 + (i.uTemperature ?? 0) ** 2
}

/**
 * Verdict by ISO 14253-1 with U = 2u: in, when the whole interval mean ± U lies in the window;
 * out, when the whole interval lies beyond a limit; between the two it is too close to call.
 */
export function verdictOf(mean: number, U: number, window: Window): Verdict {
  const min = window.min ?? -Infinity
  const max = window.max ?? Infinity
  if (mean - U >= min && mean + U <= max) return 'in'
  if (mean + U < min || mean - U > max) return 'out'
  return 'too-close'
}

/**
 * Judges a set of readings against a window.
 * @throws InputError on an empty set, non-finite values, negative instrument errors, or an upside-down window
 */
export function judge(input: JudgeInput): Judgement {
  const { readings, window } = input
  if (!Array.isArray(readings) || readings.length === 0)
    throw new InputError('invalid-input', [
      { path: 'readings', message: 'is empty; take at least one reading' },
    ])
  readings.forEach((r, i) => finite(`readings[${i}]`, r))
  notNegative('resolution', input.resolution)
  notNegative('mpe', input.mpe)
  notNegative('repeatability', input.repeatability ?? 0)
  checkWindow('window', window)

  const { mean: read, sd, count } = spread(readings)
  const warm = input.temperature && at('temperature', () => temperatureEffect(input.temperature!))
  const mean = read - (warm?.clearanceChangeMm ?? 0)
  const instrument = { ...input, uTemperature: warm?.uMm ?? 0 }
  const u = uncertaintyOfMean(sd, count, instrument)
  const verdict = verdictOf(mean, 2 * u, window)
  return {
    mean,
    u,
    U: 2 * u,
    verdict,
    readingsNeeded: readingsNeeded(mean, sd, count, instrument, window),
    ...(warm ? { temperatureMm: warm.clearanceChangeMm } : {}),
  }
}

/** n from u(n) ≤ distance/2 in closed form, then stepped to the exact boundary against round-off. */
function readingsNeeded(
  mean: number,
  sd: number,
  count: number,
  instrument: Instrument,
  window: Window,
): number | null {
  const decides = (n: number) =>
    verdictOf(mean, 2 * uncertaintyOfMean(sd, n, instrument), window) !== 'too-close'
  if (decides(count)) return count
  const { min, max } = window
  const distance = Math.min(Math.abs(mean - (min ?? -Infinity)), Math.abs(mean - (max ?? Infinity)))
  const room = (distance * distance) / 4 - floorSquared(instrument)
  const scatter = Math.max(sd, instrument.repeatability ?? 0)
  if (room <= 0 || scatter === 0) return null
  const estimate = Math.ceil((scatter * scatter) / room)
  if (!Number.isSafeInteger(estimate)) return null
  let n = Math.max(count, estimate - 2)
  for (let tries = 0; tries < 5; tries++, n++) if (decides(n)) return n
  return null
}
