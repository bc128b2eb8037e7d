import { describe, expect, it } from 'vitest'
import { fitDecay } from '../../src/leak/decay.ts'

const AIR = 101.325
const times = (n: number, step = 2) => Float64Array.from({ length: n }, (_, i) => i * step)
const falling = (minutes: Float64Array, start: number, tau: number, noise: (i: number) => number = () => 0) =>
  Float64Array.from(minutes, (t, i) => AIR + start * Math.exp(-t / tau) + noise(i))

describe('the curve of a leak', () => {
  it.each([
    [70, 12],
    [70, 200],
    [-40, 30],
    [5, 4],
  ])('is found again: %d kPa with a time of %d min', (start, tau) => {
    const minutes = times(12)
    const fit = fitDecay(minutes, falling(minutes, start, tau), AIR)!
    expect(fit.startKpa).toBeCloseTo(start, 6)
    expect(fit.tauMin / tau).toBeCloseTo(1, 6)
    expect(fit.rmsKpa).toBeLessThan(1e-6)
  })
  it('is the best one through readings that scatter: no neighbour leaves less', () => {
    const minutes = times(10)
    const read = falling(minutes, 60, 25, (i) => (i % 2 ? 0.4 : -0.3))
    const fit = fitDecay(minutes, read, AIR)!
    const left = (start: number, tau: number) =>
      Math.sqrt(
        minutes.reduce((sum, t, i) => sum + (read[i]! - AIR - start * Math.exp(-t / tau)) ** 2, 0) / 10,
      )
    expect(left(fit.startKpa, fit.tauMin)).toBeCloseTo(fit.rmsKpa, 9)
    for (const [ds, dt] of [
      [0.02, 0],
      [-0.02, 0],
      [0, 0.02],
      [0, -0.02],
    ] as const)
      expect(left(fit.startKpa + ds, fit.tauMin + dt)).toBeGreaterThan(fit.rmsKpa)
  })
  it('needs four readings, and a twentieth of the pressure lost', () => {
    const four = times(4)
    expect(fitDecay(four, falling(four, 70, 20), AIR)).toBeDefined()
    expect(fitDecay(times(3), falling(times(3), 70, 20), AIR)).toBeUndefined()
    const minutes = times(8)
    // 0.949 of it left at the end, against 0.951
    expect(fitDecay(minutes, falling(minutes, 70, 14 / -Math.log(0.949)), AIR)).toBeDefined()
    expect(fitDecay(minutes, falling(minutes, 70, 14 / -Math.log(0.951)), AIR)).toBeUndefined()
  })
  it('has nothing to say of a pressure that is the air’s, rises, or goes through it', () => {
    const minutes = times(6)
    expect(
      fitDecay(
        minutes,
        Float64Array.from(minutes, () => AIR),
        AIR,
      ),
    ).toBeUndefined()
    expect(fitDecay(minutes, falling(minutes, 70, -20), AIR)).toBeUndefined()
    expect(
      fitDecay(minutes, Float64Array.of(AIR + 20, AIR + 15, AIR + 8, AIR + 3, AIR - 1, AIR - 2), AIR),
    ).toBeUndefined()
    // through it and back: the ends alone would look like a leak
    expect(
      fitDecay(minutes, Float64Array.of(AIR + 20, AIR + 15, AIR - 1, AIR + 9, AIR + 8, AIR + 7), AIR),
    ).toBeUndefined()
    expect(
      fitDecay(minutes, Float64Array.of(AIR + 20, AIR + 15, AIR, AIR + 9, AIR + 8, AIR + 7), AIR),
    ).toBeUndefined()
    expect(
      fitDecay(minutes, Float64Array.of(AIR, AIR + 15, AIR + 10, AIR + 9, AIR + 8, AIR + 7), AIR),
    ).toBeUndefined()
  })
})
