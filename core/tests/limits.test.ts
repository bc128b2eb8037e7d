import { describe, expect, it } from 'vitest'
import { backlashRound } from '../src/measuring/backlash-round.ts'
import { judge } from '../src/measuring/judge.ts'
import { outlier, spread } from '../src/measuring/reading-set.ts'
import { torqueAdapter } from '../src/torque/adapter.ts'
import { torqueOrder } from '../src/torque/order.ts'
import { leakTest } from '../src/leak/leak-test.ts'

describe('a set of readings', () => {
  it('has its extremes wherever they stand in it', () => {
    expect(spread([3, 9, 1, 4])).toMatchObject({ count: 4, min: 1, max: 9, range: 8, mean: 4.25 })
    expect(spread([9, 3, 4, 1])).toMatchObject({ min: 1, max: 9 })
    expect(spread([])).toMatchObject({ count: 0, mean: NaN })
    expect(spread([2]).sd).toBe(0)
  })
  it.each([
    // by both measures: five times the range of the others, and four steps of the gauge
    ['far by both', [10, 10.02, 11], 0.01, 2],
    ['first of them', [11, 10.02, 10], 0.01, 0],
    ['within five times the range of the others', [10, 10.2, 11], 0.01, -1],
    ['within four steps of the gauge', [10, 10, 10.039], 0.01, -1],
    ['beyond four steps of the gauge', [10, 10, 10.041], 0.01, 2],
    ['of two far ones neither: each hides the other', [1, 10, 20], 0.01, -1],
    ['below the others', [10, 9, 10.01], 0.01, 1],
    ['fewer than three', [1, 9], 0.01, -1],
  ] as const)('names the one that does not belong: %s', (_, readings, step, at) => {
    expect(outlier(readings, step)).toBe(at)
  })
})

describe('backlash round the gear', () => {
  const at = (deg: number, ...readings: number[]) => ({ deg, readings })
  const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.004, window: { min: 0.15, max: 0.4 } }
  it('finds the smallest and the largest place wherever they come', () => {
    const places = [at(0, 0.3), at(90, 0.2), at(180, 0.25), at(270, 0.35), at(300, 0.28)]
    const first = backlashRound({ ...gauge, places })
    expect(first).toMatchObject({ smallestMm: 0.2, smallestAtDeg: 90, largestMm: 0.35 })
    expect(first.variationMm).toBeCloseTo(0.15, 12)
    expect(backlashRound({ ...gauge, places: [...places].reverse() })).toMatchObject({
      smallestAtDeg: 90,
      largestMm: 0.35,
    })
  })
  it('is as uncertain as its worst place', () => {
    const calm = [at(0, 0.3, 0.3), at(120, 0.3, 0.3), at(240, 0.3, 0.3)]
    const restless = [at(0, 0.3, 0.3), at(120, 0.2, 0.4), at(240, 0.3, 0.3)]
    expect(backlashRound({ ...gauge, places: restless }).UMm).toBeGreaterThan(
      3 * backlashRound({ ...gauge, places: calm }).UMm,
    )
  })
})

describe('a verdict', () => {
  const exact = { resolution: 0, mpe: 0, repeatability: 0 }
  it('is in on the very limit, and out a hair beyond it, when nothing is uncertain', () => {
    expect(judge({ ...exact, readings: [0.4, 0.4], window: { min: 0.2, max: 0.4 } }).verdict).toBe('in')
    expect(judge({ ...exact, readings: [0.2, 0.2], window: { min: 0.2, max: 0.4 } }).verdict).toBe('in')
    expect(
      judge({ ...exact, readings: [0.4 + 1e-9, 0.4 + 1e-9], window: { min: 0.2, max: 0.4 } }).verdict,
    ).toBe('out')
    expect(
      judge({ ...exact, readings: [0.2 - 1e-9, 0.2 - 1e-9], window: { min: 0.2, max: 0.4 } }).verdict,
    ).toBe('out')
  })
})

describe('an adapter', () => {
  const base = { targetNm: 50, wrenchLengthMm: 300, offsetMm: 50 }
  it('may reach back to the hand and no farther', () => {
    // 300 − 25 mm from the hand to the drive: an adapter of that length, turned right round, puts the fastener under the hand
    expect(() => torqueAdapter({ ...base, offsetMm: 276, angleDeg: 180 })).toThrow(/behind the hand/)
    expect(torqueAdapter({ ...base, offsetMm: 274, angleDeg: 180 }).settingNm).toBeGreaterThan(50)
    expect(() => torqueAdapter({ ...base, wrenchLengthMm: 25 })).toThrow(/width of a hand/)
    expect(() => torqueAdapter({ ...base, offsetMm: -1 })).toThrow(/0 or more/)
  })
  it('is used from a fifth of the wrench to the whole of it, limits included', () => {
    const set = (wrenchMaxNm: number) =>
      torqueAdapter({ targetNm: 50, wrenchLengthMm: 300, offsetMm: 0, wrenchMaxNm }).settingNm
    expect(set(50)).toBeCloseTo(50, 12)
    expect(set(250)).toBeCloseTo(50, 12)
    expect(() => set(49.9)).toThrow(/full scale of 50 to 250/)
    expect(() => set(250.5)).toThrow(/full scale/)
  })
})

describe('the order of a pattern', () => {
  /** Two rows of four, along a line at `deg`. */
  const flange = (deg: number) => {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]
    return [-3, -1, 1, 3].flatMap((x) => [-1, 1].map((y) => ({ x: x * c - y * s, y: x * s + y * c })))
  }
  it('goes from the middle outward along the pattern, whichever way it lies', () => {
    for (const deg of [0, 30, 45, 90, 135]) {
      const { order } = torqueOrder({ positions: flange(deg), stages: [1] } as never)
      const along = (i: number) => Math.abs([-3, -3, -1, -1, 1, 1, 3, 3][i]!)
      expect(order.map(along), `${deg}°`).toEqual([1, 1, 1, 1, 3, 3, 3, 3])
      expect([...order].sort()).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    }
  })
  it('takes at most 200 fasteners, and not all on one spot', () => {
    const spots = (n: number) => Array.from({ length: n }, (_, i) => ({ x: i % 20, y: Math.floor(i / 20) }))
    expect(torqueOrder({ positions: spots(200), stages: [1] } as never).order).toHaveLength(200)
    expect(() => torqueOrder({ positions: spots(201), stages: [1] } as never)).toThrow(/1 to 200/)
    expect(() => torqueOrder({ positions: [], stages: [1] } as never)).toThrow()
    expect(() =>
      torqueOrder({
        positions: [
          { x: 1, y: 1 },
          { x: 1, y: 1 },
        ],
        stages: [1],
      } as never),
    ).toThrow(/one spot/)
  })
})

describe('a leak test', () => {
  it('counts its minutes from its own first reading', () => {
    const readings = Array.from({ length: 11 }, (_, i) => ({ s: i * 120, gaugeKpa: 50 - 0.3 * i, tempC: 20 }))
    const test = (late: number) =>
      leakTest({
        readings: readings.map((r) => ({ ...r, s: r.s + late })),
        atmosphereKpa: 101.3,
        volumeMl: 600,
        allowedMlPerMin: 0.2,
        gaugeResolutionKpa: 0.1,
      })
    const [now, later] = [test(0), test(36_000)]
    expect(later.leakMlPerMin).toBeCloseTo(now.leakMlPerMin, 9)
    expect(later.verdict).toBe(now.verdict)
    expect(now.slopeKpaPerMin).toBeCloseTo(-0.15, 6)
  })
})
