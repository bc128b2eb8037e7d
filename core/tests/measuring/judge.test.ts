import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../src/measuring/depth.ts'
import { judge, uncertaintyOfMean, verdictOf } from '../../src/measuring/judge.ts'
import { outlier, spread } from '../../src/measuring/reading-set.ts'
import { refused } from '../refused.ts'

const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }

describe('judge', () => {
  it('decides by the interval, not by the mean', () => {
    const window = { min: 0.3, max: 0.5 }
    expect(judge({ readings: [0.4], ...gauge, window }).verdict).toBe('in')
    expect(judge({ readings: [0.49], ...gauge, window }).verdict).toBe('too-close')
    expect(judge({ readings: [0.51], ...gauge, window }).verdict).toBe('too-close')
    expect(judge({ readings: [0.6], ...gauge, window }).verdict).toBe('out')
  })

  it('takes windows with one side', () => {
    expect(judge({ readings: [0.2], ...gauge, window: { max: 0.9 } }).verdict).toBe('in')
    expect(judge({ readings: [1.2], ...gauge, window: { max: 0.9 } }).verdict).toBe('out')
    expect(judge({ readings: [1.2], ...gauge, window: { min: 0.9 } }).verdict).toBe('in')
  })

  it('does not take a single reading for a perfect one', () => {
    expect(uncertaintyOfMean(0, 1, gauge)).toBeGreaterThan(uncertaintyOfMean(0, 4, gauge))
  })

  it('says how many readings would decide, and that number does while one fewer does not', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.25, max: 0.55, noNaN: true }), { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0, max: 0.05, noNaN: true }),
        (readings, repeatability) => {
          const input = {
            readings,
            resolution: 0.002,
            mpe: 0.002,
            repeatability,
            window: { min: 0.3, max: 0.5 },
          }
          const { mean, readingsNeeded: n } = judge(input)
          const { sd } = spread(readings)
          const at = (k: number) => verdictOf(mean, 2 * uncertaintyOfMean(sd, k, input), input.window)
          if (n === null) return at(1e9) === 'too-close'
          return at(n) !== 'too-close' && (n === readings.length || at(n - 1) === 'too-close')
        },
      ),
      { numRuns: 500, seed: 3 },
    )
  })

  it.each([
    [{ readings: [] }, 'readings'],
    [{ readings: [NaN] }, 'readings[0]'],
    [{ readings: [1, Infinity] }, 'readings[1]'],
    [{ resolution: -1 }, 'resolution'],
    [{ mpe: NaN }, 'mpe'],
    [{ repeatability: -0.1 }, 'repeatability'],
    [{ window: {} }, 'window'],
    [{ window: { min: 2, max: 1 } }, 'window'],
    [{ window: { min: 1, max: 1 } }, 'window'],
  ])('refuses %j at %s', (wrong, path) => {
    const error = refused(() =>
      judge({ readings: [0.4], ...gauge, window: { min: 0.3, max: 0.5 }, ...wrong }),
    )
    expect(error.fields[0]?.path).toBe(path)
  })
})

describe('sets of readings', () => {
  it('keeps the spread of readings that differ in the third decimal of a large mean', () => {
    const s = spread([1e6 + 0.001, 1e6 + 0.002, 1e6 + 0.003])
    expect(s.sd).toBeCloseTo(0.001, 9)
    expect(s.mean).toBeCloseTo(1e6 + 0.002, 9)
  })
  it('has no spread from a single reading', () =>
    expect(spread([0.4])).toMatchObject({ sd: 0, range: 0, count: 1 }))
  it.each([
    [[0.42, 0.43, 1.43], 2],
    [[0.42, 0.43, 0.44], -1],
    [[0.42, 1.42], -1],
    [[0.1, 0.42, 0.42, 0.42], 0],
    [[0.4, 0.42, 0.44, 0.46], -1],
  ])('finds the one that does not belong in %j', (readings, index) =>
    expect(outlier(readings, 0.01)).toBe(index),
  )
})

describe('depth', () => {
  it('takes a retracting plunger from the master and adds an extending one', () => {
    expect(depth({ method: 'master-drop', masterMm: 50, dropMm: 11.6, extends: false })).toEqual({
      depthMm: 38.4,
    })
    expect(depth({ method: 'master-drop', masterMm: 50, dropMm: 1.5, extends: true })).toEqual({
      depthMm: 51.5,
    })
  })
  it('shims by case and gear, either way round', () => {
    const sizes = { method: 'case-and-gear', caseMm: 90.2, assemblyMm: 40, nominalMm: 49.5 } as const
    expect(depth({ ...sizes })).toEqual({ shimMm: expect.closeTo(0.7, 10) })
    expect(depth({ ...sizes, effect: -1 })).toEqual(depth({ ...sizes }))
    expect(depth({ ...sizes, effect: 1 })).toEqual({ shimMm: expect.closeTo(49.5 - 90.2 - 40, 10) })
  })
  it('refuses a drop longer than the master, and sizes that cannot be', () => {
    expect(
      refused(() => depth({ method: 'master-drop', masterMm: 50, dropMm: 60, extends: false })).message,
    ).toContain('turn counter')
    refused(() => depth({ method: 'master-drop', masterMm: 0, dropMm: 1, extends: false }))
    refused(() => depth({ method: 'arbor', readingMm: NaN, arborDiameterMm: 20, farSide: false }))
    refused(() => depth({ method: 'arbor', readingMm: 30, arborDiameterMm: -20, farSide: false }))
    refused(() =>
      depth({ method: 'feeler-block', clearanceMm: -0.1, nominalClearanceMm: 0.6, nominalDepthMm: 40 }),
    )
    refused(() =>
      depth({ method: 'case-and-gear', caseMm: 90, assemblyMm: 40, nominalMm: 49, effect: 2 as never }),
    )
    refused(() => depth({ method: 'guess' } as never))
  })
})
