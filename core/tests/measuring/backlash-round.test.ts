import { describe, expect, it } from 'vitest'
import { backlashRound, type BacklashRoundInput } from '../../src/measuring/backlash-round.ts'
import { refused } from '../refused.ts'

const gauge = { resolution: 0.01, mpe: 0.005 }
const sine = (deg: number) => 0.5 + 0.06 * Math.cos(((deg - 100) * Math.PI) / 180)
const at = (...degs: number[]) => degs.map((deg) => ({ deg, readings: [sine(deg), sine(deg)] }))
const round = (more: Partial<BacklashRoundInput>) =>
  backlashRound({ places: at(0, 90, 180, 270), ...gauge, window: { min: 0.38, max: 0.6 }, ...more })

describe('backlash round the gear', () => {
  it.each([[[0, 90, 180, 270]], [[0, 120, 240]], [[10, 60, 200, 300]]])(
    'finds the runout and the tight place from %j',
    (degs) => {
      const r = round({ places: at(...degs) })
      expect(r.runoutMm).toBeCloseTo(0.06, 9)
      expect(r.tightAtDeg).toBeCloseTo(280, 6)
      expect(r.smallestMm).toBe(Math.min(...degs.map(sine)))
      expect(r.variationMm).toBeCloseTo(Math.max(...degs.map(sine)) - Math.min(...degs.map(sine)), 12)
    },
  )
  it('judges the smallest against the lower limit, though the mean is well inside', () => {
    expect(round({ window: { min: 0.38, max: 0.6 } }).verdict).toBe('in')
    const r = round({ window: { min: 0.46, max: 0.6 } })
    expect(r.meanMm).toBeCloseTo(0.5, 9)
    expect(r.verdict).toBe('out')
    expect(round({ window: { min: 0.44, max: 0.6 } }).verdict).toBe('too-close')
    expect(round({ window: { max: 0.55 } }).verdict).toBe('out')
  })
  it('judges the variation with both places unsure', () => {
    expect(round({ variationLimitMm: 0.2 }).variationVerdict).toBe('in')
    expect(round({ variationLimitMm: 0.05 }).variationVerdict).toBe('out')
    expect(round({}).variationVerdict).toBeUndefined()
  })
  it.each<[string, Partial<BacklashRoundInput>, string]>([
    ['two places', { places: at(0, 90) }, 'places'],
    ['one place twice', { places: at(0, 90, 360) }, 'places[2].deg'],
    [
      'a place without readings',
      { places: [...at(0, 90), { deg: 180, readings: [] }] },
      'places[2].readings',
    ],
    ['NaN', { places: [...at(0, 90), { deg: 180, readings: [NaN] }] }, 'places[2].readings[0]'],
    ['a window upside down', { window: { min: 1, max: 0 } }, 'window'],
  ])('refuses %s', (_, more, path) => expect(refused(() => round(more)).fields[0]!.path).toBe(path))
})
