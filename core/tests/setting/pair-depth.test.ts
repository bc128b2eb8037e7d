import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { lomvi90 } from '../../src/drives/sheets/index.ts'
import { meshGeometry } from '../../src/gears/mesh.ts'
import { assess, notIn, solverInput } from '../../src/setting/assess.ts'
import { isDerived, settingMeasures, unitOf } from '../../src/setting/measures.ts'
import {
  PAIR_DEPTH_TOLERANCE_MM,
  pairDepthMeasures,
  rideDepth,
  wantedBy,
} from '../../src/setting/pair-depth.ts'
import type { BuildState, TakenReading } from '../../src/setting/taken.ts'
import { refused } from '../refused.ts'

/** The demo outboard as if its manual printed no depth. */
const unprinted: DriveSheet = {
  ...lomvi90,
  measures: lomvi90.measures.map((m) => {
    if (m.kind !== 'depth') return m
    const { target: _target, ...rest } = m
    return { ...rest, window: {}, nominal: 'of-the-pair' as const }
  }),
}
const [pair] = pairDepthMeasures(unprinted)
const g = meshGeometry(pair!.mesh)
const sine = (deg: number) => Math.sin((deg * Math.PI) / 180)
const wedge = sine(g.pinionPitchAngleDeg) / sine(g.gearPitchAngleDeg)
/** How far out the gear rides on a pinion at p: the wedge of the cones, and a bowl round the best place. */
const ride = (best: number) => (p: number) => 60 - wedge * (p - best) + 0.4 * (p - best) ** 2
const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.004 }
const reading = (value: number, more: Partial<TakenReading> = {}): TakenReading => ({ value, gauge, ...more })
const build = (wanted: TakenReading[], depthMm = 38.5): BuildState => ({
  stacks: { pinion: 0.6, forward: 0.7, reverse: 0.9 },
  readings: {
    ...(wanted.length ? { [pair!.id]: wanted } : {}),
    depth: Array(3).fill(reading(depthMm)),
    'backlash-forward': Array(3).fill(reading(0.4)),
    'backlash-reverse': Array(3).fill(reading(0.6)),
  },
})

describe('a depth that nobody prints', () => {
  it('is found with the pair, before it is measured; a printed one is not', () => {
    expect(pairDepthMeasures(lomvi90)).toEqual([])
    const ids = settingMeasures(unprinted).map((m) => m.id)
    expect(ids.indexOf('pair:depth')).toBeGreaterThanOrEqual(0)
    expect(ids.indexOf('pair:depth')).toBeLessThan(ids.indexOf('depth'))
    expect([isDerived(pair!), unitOf(pair!)]).toEqual([true, 'mm'])
  })
  it('has no window until then, and is left out of what the solver is asked', () => {
    const state = assess(unprinted, build([]))
    expect(state.measures.depth!.judgement!.verdict).toBe('no-window')
    const asked = solverInput(unprinted, build([]), [])
    expect(asked.quantities.map((q) => q.id)).toEqual(['backlash-forward', 'backlash-reverse'])
  })
  it('is judged by what was found, and asked of the solver with its middle as the target', () => {
    const found = [reading(38.5, { how: { as: 'ride-height' } })]
    const { window, judgement } = assess(unprinted, build(found)).measures.depth!
    expect(window.min).toBeCloseTo(38.5 - PAIR_DEPTH_TOLERANCE_MM, 12)
    expect(window.max).toBeCloseTo(38.5 + PAIR_DEPTH_TOLERANCE_MM, 12)
    expect(judgement!.verdict).toBe('in')
    expect(assess(unprinted, build(found, 38.62)).measures.depth!.judgement!.verdict).toBe('out')
    const depth = solverInput(unprinted, build(found), []).quantities.find((q) => q.id === 'depth')!
    expect(depth.target).toBeCloseTo(38.5, 12)
    expect(depth.u).toBe(judgement!.u)
  })
  it('is no surer than what was found of it: its doubt is added as squares', () => {
    const alone = assess(lomvi90, build([])).measures.depth!.judgement!.u
    const found = [reading(38.5, { gauge: { ...gauge, repeatability: 0.03 } })]
    const u = wantedBy(found)!.u
    expect(u).toBeCloseTo(Math.hypot(0.01 / Math.sqrt(12), 0.01 / Math.sqrt(3), 0.03), 12)
    expect(assess(unprinted, build(found)).measures.depth!.judgement!.u).toBeCloseTo(Math.hypot(alone, u), 9)
    // a search that scatters decides nothing at the edge of the window
    expect(assess(unprinted, build(found, 38.53)).measures.depth!.judgement!.verdict).toBe('too-close')
  })
  it('is open while it is asked for and nobody has found it', () => {
    const asked = settingMeasures(unprinted)
    expect(notIn(unprinted, assess(unprinted, build([]), asked), asked).map((m) => m.id)).toContain(
      'pair:depth',
    )
  })
})

describe('a ride-height search', () => {
  it('finds the place that a pair was made for, whatever its cones', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 35, max: 45, noNaN: true }),
        fc.double({ min: 0.1, max: 0.4, noNaN: true }),
        (best, step) => {
          const places = [-2, -1, 0.5, 1.5, 2.5].map((k) => best + k * step)
          const found = rideDepth(
            pair!,
            places.map((p): [number, number] => [p, ride(best)(p)]),
          )
          expect(found.depthMm).toBeCloseTo(best, 6)
          expect(found.u).toBeLessThan(1e-4)
        },
      ),
    )
  })
  it.each([
    ['a best outside of the places', [39, 39.2, 39.4, 39.6], ride(38.2), 'ride-outside'],
    [
      'rides read inward positive',
      [38, 38.2, 38.4, 38.6],
      (p: number) => 2 * 60 - 2 * wedge * (p - 38.3) - ride(38.3)(p),
      'ride-no-minimum',
    ],
    ['too few', [38, 38.2, 38.4], ride(38.2), 'invalid-input'],
    ['all at one place', [38, 38, 38, 38], ride(38.2), 'invalid-input'],
  ])('refuses %s', (_, places, at, code) => {
    const points = places.map((p): [number, number] => [p, at(p)])
    expect(refused(() => rideDepth(pair!, points)).code).toBe(code)
  })
})
