import { describe, expect, it } from 'vitest'
import { preload } from '../../src/bearings/preload.ts'
import { sensitivities } from '../../src/setting/train.ts'
import { crush } from '../../src/setting/crush.ts'
import { figureKind, valueOf } from '../../src/reading/kinds.ts'
import { assess, notIn, solverInput } from '../../src/setting/assess.ts'
import type { BuildState, TakenReading } from '../../src/setting/taken.ts'
import { learnedSolverInput } from '../../src/setting/learned.ts'
import { bearingMeasures, settingMeasures, unitOf, type CrushMeasure } from '../../src/setting/measures.ts'
import { shimSolve } from '../../src/setting/shim-solve.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { refused } from '../refused.ts'

const sheetOf = (id: string) => demoSheets.find((s) => s.id === id)!
const upper = sheetOf('alke-2-upper')
const havhest = sheetOf('havhest-r-upper')
const lomvi = sheetOf('lomvi-90')
const feeler = { resolution: 0.01, mpe: 0.005, repeatability: 0.005 }
const wrench = { resolution: 0.02, mpe: 0.02, repeatability: 0.01 }
const times = (n: number, r: TakenReading) => Array.from({ length: n }, () => r)
const drawer = Array.from({ length: 40 }, (_, i) => ({
  id: `d${i}`,
  thicknessMm: 0.05 + i * 0.025,
  count: 3,
}))

describe('what a build is judged by', () => {
  it('begins with preload and ends with crush, between them what the sheet measures', () => {
    expect(settingMeasures(havhest).map((m) => m.kind)).toEqual([
      'rolling-torque',
      'seat',
      'backlash',
      'backlash',
      'crush',
    ])
    expect(settingMeasures(upper).map((m) => m.id)).toEqual([
      'bearing:input-inner',
      'backlash',
      'bearing:top',
    ])
  })
  it('reads the load of a threaded carrier after its place: the nut follows it', () => {
    expect(settingMeasures(sheetOf('rordrum-v')).map((m) => m.kind)).toEqual(['backlash', 'rolling-torque'])
  })
  it('says its unit, and what a raw reading may plausibly be', () => {
    const [torque, , squeeze] = settingMeasures(upper)
    expect([unitOf(torque!), unitOf(squeeze!)]).toEqual(['Nm', 'mm'])
    expect(figureKind(torque!)).toBe('rolling-torque')
    expect(figureKind(torque!, 'play')).toBe('end-play')
    expect(figureKind(squeeze!)).toBe('clearance')
  })
  it('finds the stack that sets a crush on its own shaft, and the one that the sheet names for a torque', () => {
    for (const [sheet, id] of [
      [upper, 'cover'],
      [havhest, 'top'],
    ] as const)
      expect(bearingMeasures(sheet).find((m) => m.kind === 'crush')!.by).toBe(id)
    expect(bearingMeasures(havhest).find((m) => m.kind === 'rolling-torque')!.by).toBe('preload')
    expect(bearingMeasures(lomvi)[0]!.by).toBeUndefined()
  })
  it('answers mm for mm at the bearing, and the other way under the cover', () => {
    expect(sensitivities(upper)['bearing:top']).toEqual({ cover: 1 })
    const duo = sheetOf('havsule-duo-upper')
    const under = bearingMeasures(duo).find((m): m is CrushMeasure => m.kind === 'crush')!
    expect(under.shimsAt).toBe('cover')
    expect(sensitivities(duo)[under.id]).toEqual({ [under.by!]: -1 })
  })
})

describe('a crush', () => {
  const squeeze = bearingMeasures(upper).find((m) => m.kind === 'crush')!
  it('is the gap that the cover leaves, or less than nothing by the float of the ring', () => {
    expect(valueOf(squeeze, 0.12, undefined, { as: 'gap' })).toBe(0.12)
    expect(valueOf(squeeze, 0.12, undefined, { as: 'float' })).toBe(-0.12)
  })
  const build = (value: number): BuildState => ({
    stacks: { input: 0.9, cover: 0.5 },
    readings: {
      backlash: times(3, { value: 0.25, gauge: feeler }),
      'bearing:top': times(3, { value, gauge: feeler }),
    },
  })
  it.each([
    ['gap', 0.2],
    ['float', 0.15],
  ] as const)('leads the solver to the stack of the shop formula, read as %s', (as, mm) => {
    const value = valueOf(squeeze, mm, undefined, { as })
    const { plans, status } = shimSolve(solverInput(upper, build(value), drawer))
    const wanted = crush({
      shimsAt: 'bearing',
      trialMm: 0.5,
      crushMm: 0.05,
      ...(as === 'gap' ? { gapMm: mm } : { floatMm: mm }),
    }).stackMm
    expect(status).toBe('fit')
    expect(Math.abs(plans[0]!.stacks.cover!.thicknessMm - wanted)).toBeLessThan(0.0251)
    expect(plans[0]!.predicted['bearing:top']!.value).toBeCloseTo(
      value + plans[0]!.stacks.cover!.thicknessMm - 0.5,
      9,
    )
  })
  it('that nobody read leaves its stack where it is', () => {
    const unread = { ...build(0), readings: { backlash: times(3, { value: 0.4, gauge: feeler }) } }
    const input = solverInput(upper, unread, drawer)
    expect(input.quantities.map((q) => q.id)).toEqual(['backlash'])
    expect(input.locations.find((l) => l.id === 'cover')!.fixed).toBe(true)
    expect(input.locations.find((l) => l.id === 'input')!.fixed).toBe(false)
  })
})

describe('a rolling torque', () => {
  const torque = bearingMeasures(lomvi)[0]!
  const state = (nm: number, how?: TakenReading['how']) =>
    assess(
      lomvi,
      { stacks: {}, readings: { [torque.id]: [{ value: nm, gauge: wrench, ...(how ? { how } : {}) }] } },
      settingMeasures(lomvi),
    ).measures[torque.id]!
  it('is what is left without the lips', () => {
    expect(valueOf(torque, 0.8, undefined, { dragNm: 0.2 })).toBeCloseTo(0.6, 12)
  })
  it('is judged by the window of the bearings that were fitted', () => {
    expect(state(0.6).judgement!.verdict).toBe('in')
    expect(state(0.6, { runIn: true }).judgement!.verdict).toBe('out')
    expect(state(0.35, { runIn: true })).toMatchObject({
      window: { min: 0.25, max: 0.45 },
      judgement: { verdict: 'in' },
    })
  })
  it('is doubted the more when a drag was taken off: both were read', () => {
    expect(state(0.6, { dragNm: 0.2 }).judgement!.u).toBeCloseTo(Math.SQRT2 * state(0.6).judgement!.u, 12)
  })
  it('is asked of a trial, and can be left unread with its name', () => {
    const build: BuildState = {
      stacks: { pinion: 0.6, forward: 0.7, reverse: 0.9 },
      readings: Object.fromEntries(
        lomvi.measures.map((m) => [m.id, times(3, { value: m.target!, gauge: feeler })]),
      ),
    }
    expect(assess(lomvi, build).allIn).toBe(true)
    const asked = assess(lomvi, build, settingMeasures(lomvi))
    expect(asked).toMatchObject({ complete: false, allIn: false })
    expect(asked.due).toEqual([{ kind: 'reading', measure: torque.id, missing: 1 }])
    expect(notIn(lomvi, asked, settingMeasures(lomvi)).map((m) => m.id)).toEqual([torque.id])
    expect(notIn(lomvi, assess(lomvi, build))).toEqual([])
  })
  it('of play cannot be said where the sheet has no slope', () => {
    expect(refused(() => valueOf(torque, 0.1, undefined, { as: 'play' })).fields[0]!.path).toBe('as')
  })

  describe('that a stack sets', () => {
    const own = bearingMeasures(havhest).find((m) => m.kind === 'rolling-torque')!
    const slope = sensitivities(havhest)[own.id]!.preload!
    const stacks = { upper: 0.9, lower: 0.9, input: 0.9, top: 0.6, preload: 0.8 }
    const build = (preloadMm: number, nm: number, how?: TakenReading['how']): BuildState => ({
      stacks: { ...stacks, preload: preloadMm },
      readings: {
        'backlash-upper': times(3, { value: 0.24, gauge: feeler }),
        'backlash-lower': times(3, { value: 0.24, gauge: feeler }),
        [own.id]: [{ value: nm, gauge: wrench, ...(how ? { how } : {}) }],
      },
    })
    it('goes to the stack of the shop formula, with one trial by the slope of the sheet', () => {
      const { plans } = shimSolve(solverInput(havhest, build(0.8, 1.6), drawer))
      const { stackMm } = preload({
        trials: [{ stackMm: 0.8, torqueNm: 1.6 }],
        sealNm: 0,
        window: { min: 0.6, max: 1 },
        slopeNmPerMm: slope,
      })
      expect(Math.abs(plans[0]!.stacks.preload!.thicknessMm - stackMm)).toBeLessThan(0.0126)
    })
    it('and with two by the slope that they show, not by the printed one', () => {
      const truth = 0.5 * slope
      const builds = [build(0.8, 1.6), build(0.9, 1.6 + 0.1 * truth)]
      const learned = learnedSolverInput(havhest, builds, drawer).quantities.find((q) => q.id === own.id)!
      expect(Math.abs(learned.sensitivity.preload! - truth)).toBeLessThan(0.15 * Math.abs(truth))
    })
    it('from play first takes the play up, then the middle of the window', () => {
      const value = valueOf(own, 0.1, undefined, { as: 'play' })
      const { plans } = shimSolve(solverInput(havhest, build(0.8, value, { as: 'play' }), drawer))
      const change = plans[0]!.stacks.preload!.thicknessMm - 0.8
      expect(change).toBeCloseTo(Math.sign(slope) * (0.1 + 0.8 / Math.abs(slope)), 1)
    })
    it('read as play is doubted by its gauge times the slope', () => {
      const value = valueOf(own, 0.1, undefined, { as: 'play' })
      const read = build(0.8, value, { as: 'play' })
      const u = assess(havhest, read).measures[own.id]!.judgement!.u
      expect(u).toBeCloseTo(Math.abs(slope) * Math.hypot(0.02 / Math.sqrt(12), 0.02 / Math.sqrt(3), 0.01), 9)
    })
    it.each([-0.1, 0])('of %d Nm without lips says nothing of its stack either', (nm) => {
      const input = solverInput(havhest, build(0.8, nm), drawer)
      expect(input.locations.find((l) => l.id === 'preload')!.fixed).toBe(true)
    })
    it('says nothing of its stack when the lips account for all of it', () => {
      const input = solverInput(havhest, build(0.8, -0.1, { dragNm: 0.4 }), drawer)
      expect(input.quantities.map((q) => q.id)).not.toContain(own.id)
      expect(input.locations.find((l) => l.id === 'preload')!.fixed).toBe(true)
    })
    it('taken over from the trial before is no second witness', () => {
      const carried = { ...build(0.8, 1.6), carried: [own.id] }
      const once = learnedSolverInput(havhest, [build(0.8, 1.6), carried], drawer)
      const twice = learnedSolverInput(havhest, [build(0.8, 1.6), build(0.8, 1.6)], drawer)
      const u = (q: typeof once) => q.quantities.find((x) => x.id === own.id)!.u
      expect(u(once)).toBeGreaterThan(1.2 * u(twice))
    })
  })
})

describe('places round a gear', () => {
  const arm = { resolution: 0.01, mpe: 0.005, repeatability: 0.005 }
  const places = (values: number[]): TakenReading[] =>
    values.map((value, i) => ({ value, gauge: arm, clockDeg: (360 / values.length) * i }))
  const build = (forward: TakenReading[]): BuildState => ({
    stacks: { pinion: 0.6, forward: 0.7, reverse: 0.9 },
    readings: {
      depth: times(3, { value: 38.4, gauge: arm }),
      'backlash-forward': forward,
      'backlash-reverse': times(3, { value: 0.72, gauge: arm }),
    },
  })
  const forward = (values: number[]) => assess(lomvi, build(places(values))).measures['backlash-forward']!
  it('are judged one by one, although their mean stands in the middle', () => {
    expect(forward([0.44, 0.47, 0.5, 0.47]).judgement!.verdict).toBe('in')
    expect(forward([0.34, 0.47, 0.6, 0.47]).judgement).toMatchObject({
      mean: expect.closeTo(0.47, 12),
      verdict: 'out',
    })
  })
  it('leave the mean only what is left of the window when the tightest and the widest have to be in it', () => {
    const [q] = solverInput(lomvi, build(places([0.42, 0.47, 0.52, 0.47])), drawer).quantities.filter(
      (x) => x.id === 'backlash-forward',
    )
    expect(q!.window.min).toBeCloseTo(0.38 + 0.05, 12)
    expect(q!.window.max).toBeCloseTo(0.56 - 0.05, 12)
  })
  it('that differ by more than the window leave it as it is: no shim helps, the gear does', () => {
    const [q] = solverInput(lomvi, build(places([0.3, 0.47, 0.64, 0.47])), drawer).quantities.filter(
      (x) => x.id === 'backlash-forward',
    )
    expect(q!.window).toEqual({ min: 0.38, max: 0.56 })
  })
  it('say nothing while one reading has no place, or there are fewer than three', () => {
    const some = [...places([0.44, 0.47, 0.5]), { value: 0.47, gauge: arm }]
    expect(assess(lomvi, build(some)).measures['backlash-forward']!.round).toBeUndefined()
    expect(forward([0.4, 0.5]).round).toBeUndefined()
  })
})
