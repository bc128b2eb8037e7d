const STANDARD_KPA = 101.325
const ZERO_C = 273.15
/** Temperature that is taken for a case that nobody measured. */
const ASSUMED_K = 293.15
/** Half width of what its temperature may have changed by: in the first hour, for each further hour begun, and at most. °C */
const FIRST_HOUR_C = 2
const LATER_HOUR_C = 1
const MOST_C = 8
/** A barometer that nobody looks at moves by up to this in an hour. kPa */
const WEATHER_KPA = 0.1
const HOUR_MIN = 60
const DAY_MIN = 24 * HOUR_MIN

/** What of a test matters to an unknown temperature. */
export interface Unknown {
  volumeMl: number
  /** Absolute pressure at the start, kPa. */
  absoluteKpa: number
}

/** By how much the case may have warmed or cooled, half width, °C. */
const halfWidthC = (minutes: number) =>
  Math.min(MOST_C, FIRST_HOUR_C + LATER_HOUR_C * Math.max(0, Math.ceil(minutes / HOUR_MIN) - 1))

/** Leak that a change of temperature within the half width feigns or hides when it takes a minute; U (k = 2), standard ml. */
const feigned = ({ volumeMl, absoluteKpa }: Unknown, widthC: number) =>
  2 * (widthC / Math.sqrt(3)) * (absoluteKpa / ASSUMED_K) * (volumeMl / STANDARD_KPA) * (ZERO_C / ASSUMED_K)

/** Expanded uncertainty (k = 2) of a leak rate whose case nobody measured the temperature of: a rectangular change over the hold. Standard ml/min. */
export const temperatureU = (test: Unknown, minutes: number): number =>
  feigned(test, halfWidthC(minutes)) / minutes

/** The same of a barometer that was looked at once, beyond an hour. @param k standard ml per kPa */
export const weatherU = (k: number, minutes: number): number =>
  minutes > HOUR_MIN ? (2 * ((WEATHER_KPA * minutes) / HOUR_MIN / Math.sqrt(3)) * k) / minutes : 0

/**
 * After how many minutes a rate can be told. With the temperature known two readings that far apart resolve it; unknown, what it may do grows from hour
 * to hour, and each is looked at by itself.
 * @param gauge 2 √2 u_p k: what two readings of the gauge leave, standard ml
 * @param rate that has to be told, standard ml/min
 * @returns null when not within a day
 */
export function holdNeeded(gauge: number, rate: number, unknown: Unknown | undefined): number | null {
  if (!unknown) return gauge / rate
  for (let hour = 1; hour <= DAY_MIN / HOUR_MIN; hour++) {
    const needed = Math.hypot(gauge, feigned(unknown, halfWidthC(hour * HOUR_MIN))) / rate
    if (needed <= hour * HOUR_MIN) return Math.max(needed, (hour - 1) * HOUR_MIN)
  }
  return null
}
