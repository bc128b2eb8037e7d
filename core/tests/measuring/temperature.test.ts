import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { judge } from '../../src/measuring/judge.ts'
import { temperatureEffect } from '../../src/measuring/temperature.ts'
import { refused } from '../refused.ts'

describe('temperature', () => {
  it('loosens cups shouldered outside as the case warms: 11.6e-6 per kelvin and mm', () => {
    const r = temperatureEffect({ lengthMm: 100, tempC: 40, shouldered: 'outer', halfWidthC: 3 })
    expect(r.clearanceChangeMm).toBeCloseTo(0.0232, 10)
    expect(r.uMm).toBeCloseTo((11.6e-4 * 3) / Math.sqrt(3), 10)
  })
  it('tightens those shouldered between, and does nothing at 20 °C', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: -30, max: 90, noNaN: true }),
        (L, T) => {
          const [outer, between] = (['outer', 'between'] as const).map((shouldered) =>
            temperatureEffect({ lengthMm: L, tempC: T, shouldered }),
          )
          expect(outer!.clearanceChangeMm).toBeCloseTo(-between!.clearanceChangeMm, 12)
          expect(Math.sign(outer!.clearanceChangeMm)).toBe(Math.sign(T - 20))
          expect(outer!.uMm).toBe(between!.uMm)
        },
      ),
    )
    expect(temperatureEffect({ lengthMm: 80, tempC: 20, shouldered: 'outer' }).clearanceChangeMm).toBe(0)
  })
  it('carries a judged mean to 20 °C, and makes it less sure', () => {
    const cold = {
      readings: [0.06, 0.06, 0.06],
      resolution: 0.01,
      mpe: 0.01,
      window: { min: 0.02, max: 0.1 },
    }
    const warm = judge({
      ...cold,
      temperature: { lengthMm: 200, tempC: 35, shouldered: 'outer', halfWidthC: 5 },
    })
    expect(warm.temperatureMm).toBeCloseTo(0.0348, 10)
    expect(warm.mean).toBeCloseTo(0.06 - 0.0348, 10)
    expect(warm.u).toBeGreaterThan(judge(cold).u)
    expect([judge(cold).verdict, warm.verdict]).toEqual(['in', 'too-close'])
    // the temperature is shared by all readings: more of them do not help
    expect(warm.readingsNeeded).toBeNull()
  })
  it.each([
    [{ lengthMm: 0, tempC: 20, shouldered: 'outer' as const }, 'lengthMm'],
    [{ lengthMm: 10, tempC: -300, shouldered: 'outer' as const }, 'tempC'],
    [{ lengthMm: 10, tempC: NaN, shouldered: 'outer' as const }, 'tempC'],
    [{ lengthMm: 10, tempC: 20, shouldered: 'inside' as 'outer' }, 'shouldered'],
  ])('refuses %j', (input, path) => {
    expect(refused(() => temperatureEffect(input)).fields[0]!.path).toBe(path)
    const judged = { readings: [1], resolution: 0, mpe: 0, window: { max: 2 }, temperature: input }
    expect(refused(() => judge(judged)).fields[0]!.path).toBe(`temperature.${path}`)
  })
})
