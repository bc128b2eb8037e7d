import { describe, expect, it } from 'vitest'
import { trialUpdate, type TrialUpdateInput } from '../../src/setting/trial-update.ts'
import { random, refused } from '../refused.ts'

const quantity = { id: 'backlash', sensitivity: { pinion: 0.6, forward: -1.3 }, relSd: 0.1, u: 0.005 }
const locations = ['pinion', 'forward']
const truth = { offset: 0.62, pinion: 0.66, forward: -1.2 }
const reads = (s: { pinion: number; forward: number }) =>
  truth.offset + truth.pinion * (s.pinion - 0.6) + truth.forward * (s.forward - 0.7)
const trial = (pinion: number, forward: number, slip = 0) => ({
  stacks: { pinion, forward },
  readings: { backlash: reads({ pinion, forward }) + slip },
})

describe('learning from trials', () => {
  it('knows nothing new of sensitivities after the first build', () => {
    const r = trialUpdate({ locations, quantities: [quantity], trials: [trial(0.6, 0.7)] })
    expect(r.sensitivity.backlash!.pinion).toEqual({ mean: 0.6, sd: expect.closeTo(0.06, 9) })
    expect(r.offset.backlash!.mean).toBeCloseTo(0.62, 6)
    expect(r.offset.backlash!.sd).toBeCloseTo(0.005, 6)
  })
  it('moves from the prior to the truth as trials come in, and grows surer', () => {
    const trials = [trial(0.6, 0.7), trial(0.8, 0.7), trial(0.6, 0.9), trial(0.9, 0.5), trial(0.5, 1)]
    const after = (n: number) =>
      trialUpdate({ locations, quantities: [quantity], trials: trials.slice(0, n) }).sensitivity.backlash!
    const off = (n: number) =>
      Math.abs(after(n).pinion!.mean - truth.pinion) + Math.abs(after(n).forward!.mean - truth.forward)
    expect(off(5)).toBeLessThan(off(1) / 5)
    expect(after(5).forward!.sd).toBeLessThan(after(1).forward!.sd / 3)
    expect(trialUpdate({ locations, quantities: [quantity], trials }).warnings).toEqual([])
  })
  it('agrees with the posterior in closed form', () => {
    // one stack, two trials a mm apart: known textbook result for slope and offset
    const q = { id: 'y', sensitivity: { a: 1 }, relSd: 0.1, u: 0.01 }
    const r = trialUpdate({
      locations: ['a'],
      quantities: [q],
      trials: [
        { stacks: { a: 0 }, readings: { y: 0 } },
        { stacks: { a: 1 }, readings: { y: 1.2 } },
      ],
    })
    const [prior, noise] = [1 / 0.01, 1 / (2 * 0.0001)]
    expect(r.sensitivity.y!.a!.mean).toBeCloseTo((prior * 1 + noise * 1.2) / (prior + noise), 5)
    expect(r.sensitivity.y!.a!.sd).toBeCloseTo(1 / Math.sqrt(prior + noise), 5)
  })
  it('calls out a trial that disagrees', () => {
    const r = trialUpdate({
      locations,
      quantities: [quantity],
      trials: [trial(0.6, 0.7), trial(0.7, 0.7), trial(0.7, 0.8, 0.15)],
    })
    expect(r.warnings).toHaveLength(1)
    expect(r.warnings[0]).toMatchObject({
      trial: 2,
      quantity: 'backlash',
      message: expect.stringContaining('stuck to the gear'),
    })
  })
  it('promises the next build honestly: what it says happens about as often as it says', () => {
    const r = random(77)
    const normal = () => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r())
    let [promised, kept] = [0, 0]
    for (let i = 0; i < 400; i++) {
      const [jp, jf] = [0.6 * (1 + 0.1 * normal()), -1.3 * (1 + 0.1 * normal())]
      const y = (s: Record<string, number>) => 0.62 + jp * (s.pinion! - 0.6) + jf * (s.forward! - 0.7)
      const built = [
        { pinion: 0.6, forward: 0.7 },
        { pinion: 0.75, forward: 0.8 },
      ]
      const next = { pinion: 0.7, forward: 0.85 }
      const update = trialUpdate({
        locations,
        quantities: [{ ...quantity, window: { min: 0.47, max: 0.5 } }],
        trials: built.map((stacks) => ({ stacks, readings: { backlash: y(stacks) + 0.005 * normal() } })),
        next,
      })
      promised += update.nextBuildLastProbability!
      if (y(next) >= 0.47 && y(next) <= 0.5) kept++
    }
    expect(Math.abs(kept - promised)).toBeLessThan(4 * Math.sqrt(400 * 0.25))
    expect(kept).toBeGreaterThan(50)
  })
  it('leaves a stack that moves nothing out of it, and a measure that was not taken', () => {
    const input: TrialUpdateInput = {
      locations: [...locations, 'reverse'],
      quantities: [quantity],
      trials: [
        { stacks: { pinion: 0.6, forward: 0.7, reverse: 0.8 }, readings: { backlash: 0.62 } },
        { stacks: { pinion: 0.7, forward: 0.7, reverse: 0.9 }, readings: {} },
      ],
    }
    expect(Object.keys(trialUpdate(input).sensitivity.backlash!)).toEqual(locations)
  })
  it.each<[string, Partial<TrialUpdateInput>, string]>([
    ['no trials', { trials: [] }, 'trials'],
    ['a stack missing', { trials: [{ stacks: { pinion: 1 }, readings: {} }] }, 'trials[0].stacks.forward'],
    [
      'a stack unknown',
      { trials: [{ stacks: { pinion: 1, forward: 1, roof: 1 }, readings: {} }] },
      'trials[0].stacks.roof',
    ],
    [
      'a reading unknown',
      { trials: [{ stacks: { pinion: 1, forward: 1 }, readings: { mood: 1 } }] },
      'trials[0].readings.mood',
    ],
    ['NaN', { trials: [{ stacks: { pinion: NaN, forward: 1 }, readings: {} }] }, 'trials[0].stacks.pinion'],
    ['a sure prior', { quantities: [{ ...quantity, relSd: 0 }] }, 'quantities[0].relSd'],
    ['next without a stack', { next: { pinion: 1 } }, 'next.forward'],
  ])('refuses %s', (_, wrong, path) => {
    expect(
      refused(() => trialUpdate({ locations, quantities: [quantity], trials: [trial(0.6, 0.7)], ...wrong }))
        .fields[0]!.path,
    ).toBe(path)
  })
})
