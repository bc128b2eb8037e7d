import { describe, expect, it } from 'vitest'
import { leakTest, type LeakTestInput } from '../../src/leak/leak-test.ts'
import { temperatureBand } from '../../src/leak/temperature-band.ts'
import { random } from '../refused.ts'

const base = { atmosphereKpa: 101.3, volumeMl: 650, allowedMlPerMin: 0.25, gaugeResolutionKpa: 0.1 }
const shown = (kpa: number) => Math.round(kpa * 10) / 10
const readings = (gauge: (min: number) => number, minutes = 40) =>
  Array.from({ length: minutes + 1 }, (_, i) => ({ s: 60 * i, gaugeKpa: shown(gauge(i)) }))
const test = (gauge: (min: number) => number, more: Partial<LeakTestInput> = {}) =>
  leakTest({ ...base, readings: readings(gauge), ...more })

describe('the settling first minutes', () => {
  const settles = (min: number) => 70 + 3 * Math.exp(-min / 2)
  it('are found, and look like a leak when they are counted', () => {
    const whole = test(settles)
    expect(whole.settledAfterS).toBeGreaterThanOrEqual(3 * 60)
    expect(whole.settledAfterS).toBeLessThanOrEqual(12 * 60)
    const rest = test(settles, { skipSettling: true })
    expect(rest.settledAfterS).toBe(whole.settledAfterS)
    expect(rest.readingsUsed).toBe(41 - whole.settledAfterS / 60)
    expect(rest.leakMlPerMin).toBeLessThan(whole.leakMlPerMin / 3)
    expect(rest.verdict).toBe('tight')
  })
  it.each([
    ['a tight case', () => 70],
    ['a steady leak', (min: number) => 70 - 0.05 * min],
    ['a fast leak that slows by itself', (min: number) => 70 * Math.exp(-min / 60)],
  ])('are not seen in %s', (_, gauge) => expect(test(gauge).settledAfterS).toBe(0))
  it('never take more than half of the readings, and need eight', () => {
    expect(test((min) => 70 - 0.02 * min * min).settledAfterS).toBeLessThanOrEqual(20 * 60)
    expect(leakTest({ ...base, readings: readings(settles, 6) }).settledAfterS).toBe(0)
  })
  it('are rarely seen where there is only noise', () => {
    let seen = 0
    for (let seed = 1; seed <= 200; seed++) {
      const r = random(seed)
      if (test(() => 70 + 0.2 * (r() - 0.5)).settledAfterS > 0) seen++
    }
    expect(seen).toBeLessThan(10)
  })
})

describe('the decay of a leak through a small path', () => {
  it.each([
    ['pressure', 70],
    ['vacuum', -60],
  ])('is fitted to a large drop under %s, and is the better one', (_, start) => {
    const r = test((min) => start * Math.exp(-min / 60))
    expect(r.better).toBe('decay')
    expect(r.decay!.tauMin).toBeCloseTo(60, 0)
    const k = (650 / 101.325) * (273.15 / 293.15)
    expect(r.decay!.leakAtStartMlPerMin).toBeCloseTo((k * Math.abs(start)) / 60, 1)
    expect(r.decay!.leakAtStartMlPerMin).toBeGreaterThan(r.leakMlPerMin)
    expect(r.verdict).toBe('leaks')
  })
  it('is left out when the drop is small, the pressure rises, or there are too few readings', () => {
    expect(test((min) => 70 - 0.02 * min).decay).toBeUndefined()
    expect(test((min) => 70 + 0.2 * min).decay).toBeUndefined()
    expect(leakTest({ ...base, readings: readings((m) => 70 - 5 * m, 2) }).decay).toBeUndefined()
  })
  it('does not claim to be better on a straight line', () => {
    expect(test((min) => 70 - 0.3 * min).better).toBe('line')
  })
})

describe('the band that temperature explains', () => {
  const worked = {
    ...base,
    readings: [
      { s: 0, gaugeKpa: 70, tempC: 24 },
      { s: 7200, gaugeKpa: 67.2, tempC: 18 },
    ],
  }
  it('holds 66.54 kPa after a cooling from 24 to 18 °C, one kelvin and half a step either way', () => {
    const { low, high } = temperatureBand(worked)!
    expect((low[1]! + high[1]!) / 2).toBeCloseTo(66.54, 2)
    expect(high[1]! - low[1]!).toBeCloseTo((2 * 171.3) / 297.15 + 0.1, 6)
    expect(high[0]! - low[0]!).toBeCloseTo(0.1, 9)
  })
  it('is not there without a thermometer', () => {
    expect(temperatureBand({ ...base, readings: [{ s: 0, gaugeKpa: 70 }] })).toBeUndefined()
  })
})
