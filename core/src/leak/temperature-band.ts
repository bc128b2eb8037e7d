import type { LeakTestInput } from './leak-test.ts'

const ZERO_C = 273.15

/**
 * Where temperature alone would have put the gauge at every reading: p_abs(0) T(t)/T(0) − atmosphere, for a thermometer that
 * is off by up to `halfWidthC`, and half a step of the gauge. A leak is what falls below the band.
 * @returns gauge pressures, kPa, one for every reading; undefined without temperatures
 */
export function temperatureBand(
  input: Pick<LeakTestInput, 'readings' | 'atmosphereKpa' | 'gaugeResolutionKpa'>,
  halfWidthC = 1,
): { low: number[]; high: number[] } | undefined {
  const { readings, atmosphereKpa } = input
  const first = readings[0]
  if (first?.tempC === undefined) return undefined
  const absolute = first.gaugeKpa + atmosphereKpa
  const at = (tempC: number) => (absolute * (tempC + ZERO_C)) / (first.tempC! + ZERO_C) - atmosphereKpa
  const half = input.gaugeResolutionKpa / 2
  return {
    low: readings.map((r, i) => at(r.tempC! - (i === 0 ? 0 : halfWidthC)) - half),
    high: readings.map((r, i) => at(r.tempC! + (i === 0 ? 0 : halfWidthC)) + half),
  }
}
