import { describe, expect, it } from 'vitest'
import { rideHeight } from '../../src/measuring/ride-height.ts'
import { runout, shaftRunout } from '../../src/measuring/runout.ts'
import { random, refused } from '../refused.ts'

const sine = (n: number, amplitude: number, atDeg: number, more: (k: number) => number = () => 0) =>
  Array.from(
    { length: n },
    (_, k) => amplitude * Math.cos(((360 * k) / n - atDeg) * (Math.PI / 180)) + more(k),
  )

describe('runout of one station', () => {
  it('finds a pure bend exactly', () => {
    const r = runout({ readingsMm: sine(12, 0.08, 75) })
    expect(r.eccentricityMm).toBeCloseTo(0.08, 12)
    expect(r.highAtDeg).toBeCloseTo(75, 9)
    expect(r.secondHarmonicMm).toBeCloseTo(0, 12)
    expect(r.blips).toEqual([])
  })
  it('tells ovality from a bend', () => {
    const r = runout({ readingsMm: sine(12, 0.02, 0, (k) => 0.05 * Math.cos((4 * Math.PI * k) / 12)) })
    expect(r.eccentricityMm).toBeCloseTo(0.02, 12)
    expect(r.secondHarmonicMm).toBeCloseTo(0.05, 12)
  })
  it('shows a nick as a blip, and leaves it out only when asked', () => {
    const r = random(5)
    const readings = sine(12, 0.05, 30, () => 0.002 * (r() - 0.5))
    readings[1]! += 0.09
    const all = runout({ readingsMm: readings, limitMm: 0.15 })
    expect(all.blips).toEqual([1])
    expect(all.countedTirMm).toBe(all.tirMm)
    const counted = runout({ readingsMm: readings, limitMm: 0.15, leaveOutBlips: true })
    expect(counted.countedTirMm).toBeLessThan(all.tirMm)
  })
  it('judges against its limit with the gauge in hand', () => {
    const readingsMm = sine(8, 0.02, 0)
    const gauge = { resolutionMm: 0.01, mpeMm: 0.01 }
    expect(runout({ readingsMm, limitMm: 0.15, ...gauge }).verdict).toBe('in')
    expect(runout({ readingsMm, limitMm: 0.04, ...gauge }).verdict).toBe('too-close')
    expect(runout({ readingsMm, limitMm: 0.01, ...gauge }).verdict).toBe('out')
    expect(runout({ readingsMm }).verdict).toBeUndefined()
  })
  it('takes a constant shaft for straight', () => {
    expect(runout({ readingsMm: Array(8).fill(0.3) })).toMatchObject({ tirMm: 0, blips: [] })
  })
  it('refuses too few, NaN, and limits that cannot be', () => {
    refused(() => runout({ readingsMm: [1, 2, 3, 4, 5] }))
    expect(refused(() => runout({ readingsMm: [1, 2, NaN, 4, 5, 6] })).fields[0]!.path).toBe('readingsMm[2]')
    refused(() => runout({ readingsMm: sine(8, 1, 0), limitMm: 0 }))
    refused(() => runout({ readingsMm: sine(8, 1, 0), mpeMm: -1 }))
  })
})

describe('runout along a shaft', () => {
  const station = (atMm: number, amplitude: number, atDeg = 40) => ({
    atMm,
    readingsMm: sine(8, amplitude, atDeg),
  })
  it.each([
    ['straight', [0.001, 0.001, 0.001], undefined],
    ['offset', [0.05, 0.05, 0.05], undefined],
    ['skew', [0.02, 0.05, 0.08], undefined],
    ['kink', [0.001, 0.001, 0.1], 100],
  ] as const)('sees a shaft that is %s', (shape, amplitudes, kinkAt) => {
    const r = shaftRunout(
      [0, 100, 200].map((at, i) => station(at, amplitudes[i]!)),
      0.01,
    )
    expect(r.shape).toBe(shape)
    expect(r.kinkAtMm).toBe(kinkAt)
    if (shape !== 'straight') expect(r.markAtDeg).toBeCloseTo(40, 6)
  })
  it('refuses a single station, and stations out of order', () => {
    refused(() => shaftRunout([station(0, 1)], 0.01))
    refused(() => shaftRunout([station(10, 1), station(0, 1)], 0.01))
  })
})

describe('ride height', () => {
  const mesh = { pinionTeeth: 13, gearTeeth: 28, moduleMm: 4.2, faceWidthMm: 17, spiralAngleDeg: 35 }
  const wedge = 13 / 28
  const points = (noise: (i: number) => number, sign = 1) =>
    [-0.3, -0.2, -0.1, 0, 0.1, 0.2, 0.3].map((d, i) => ({
      pinionMm: 50 + d,
      rideMm: 30 - wedge * d + sign * 0.8 * (d - 0.05) ** 2 + noise(i),
    }))
  it('finds the vertex of an exact parabola, whatever the offset of the positions', () => {
    const r = rideHeight({ mesh, points: points(() => 0) })
    expect(r.vertexMm).toBeCloseTo(50.05, 9)
    expect(r).toMatchObject({ minimum: true, inside: true })
    expect(r.vertexUMm).toBeLessThan(1e-6)
  })
  it('says how far to trust it: the truth lies within U in about 19 of 20 searches', () => {
    const r = random(31)
    const normal = () => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r())
    let inside = 0
    for (let i = 0; i < 200; i++) {
      const fit = rideHeight({ mesh, points: points(() => 0.001 * normal()) })
      if (Math.abs(fit.vertexMm - 50.05) <= fit.vertexUMm) inside++
    }
    // k = 2 with 4 degrees of freedom covers 88 %; four standard deviations around it
    expect(inside).toBeGreaterThan(155)
    expect(inside).toBeLessThan(197)
  })
  it('says when the parabola opens downward, or the vertex lies outside', () => {
    expect(rideHeight({ mesh, points: points(() => 0, -1) }).minimum).toBe(false)
    const shifted = points(() => 0).slice(0, 4)
    expect(rideHeight({ mesh, points: shifted }).inside).toBe(false)
  })
  it('refuses too few points, too few positions, and a straight line', () => {
    refused(() => rideHeight({ mesh, points: points(() => 0).slice(0, 3) }))
    refused(() => rideHeight({ mesh, points: Array(5).fill({ pinionMm: 50, rideMm: 30 }) }))
    const line = [0, 1, 2, 3].map((i) => ({ pinionMm: 50 + i, rideMm: 30 - wedge * i }))
    refused(() => rideHeight({ mesh, points: line }))
  })
})
