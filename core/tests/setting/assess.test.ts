import { describe, expect, it } from 'vitest'
import { demoSheets, lomvi90 } from '../../src/drives/sheets/index.ts'
import { figureKind, valueOf } from '../../src/reading/kinds.ts'
import { assess, checkPrediction, solverInput } from '../../src/setting/assess.ts'
import { worstGauge, type BuildState } from '../../src/setting/taken.ts'
import { shimSolve } from '../../src/setting/shim-solve.ts'
import { refused } from '../refused.ts'

const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }
const three = (value: number) => [1, 2, 3].map(() => ({ value, gauge }))
const found: BuildState = {
  stacks: { pinion: 0.62, forward: 0.75, reverse: 0.9 },
  readings: { depth: three(38.52), 'backlash-forward': three(0.62), 'backlash-reverse': three(0.8) },
}
const drawer = Array.from({ length: 20 }, (_, i) => ({ id: `d${i}`, thicknessMm: (i + 1) / 20, count: 3 }))

describe('what is due', () => {
  it('asks in the order of the sheet: stacks, then readings, then the decision', () => {
    const empty = assess(lomvi90, { stacks: {}, readings: {} })
    expect(empty.due[0]).toEqual({ kind: 'stack', stack: 'pinion' })
    expect(empty.due).toHaveLength(6)
    const half = assess(lomvi90, { ...found, readings: { depth: three(38.52).slice(0, 1) } })
    expect(half.due[0]).toEqual({ kind: 'reading', measure: 'depth', missing: 2 })
    const full = assess(lomvi90, found)
    expect(full).toMatchObject({ complete: true, allIn: false, due: [{ kind: 'decide' }] })
  })
  it('knows when every window is met beyond doubt', () => {
    const good = assess(lomvi90, {
      ...found,
      readings: { depth: three(38.4), 'backlash-forward': three(0.47), 'backlash-reverse': three(0.72) },
    })
    expect(good.allIn).toBe(true)
  })
  it('judges a mixed set by the worst gauge in it', () => {
    const fine = { resolution: 0.002, mpe: 0.004, repeatability: 0.01 }
    expect(
      worstGauge([
        { value: 1, gauge },
        { value: 1, gauge: fine },
      ]),
    ).toEqual({ resolution: 0.01, mpe: 0.01, repeatability: 0.01 })
  })
})

describe('raw readings', () => {
  const duo = demoSheets.find((s) => s.id === 'havsule-duo-lower')!
  const alke = demoSheets.find((s) => s.id === 'alke-2-lower')!
  it('become depths through the way of the sheet', () => {
    expect(valueOf(lomvi90.measures[0]!, 11.6)).toBeCloseTo(38.4, 12)
    expect(valueOf(lomvi90.measures[0]!, 11.6, 50.003)).toBeCloseTo(38.403, 12)
    expect(valueOf(duo.measures[0]!, 23.2)).toBeCloseTo(33.2, 12)
    expect(valueOf(alke.measures[0]!, 0.7)).toBeCloseTo(41.26, 12)
    expect(valueOf(lomvi90.measures[1]!, 0.42)).toBe(0.42)
  })
  it('have each their own plausible range', () => {
    expect([lomvi90, duo, alke].map((s) => figureKind(s.measures[0]!))).toEqual([
      'drop',
      'depth',
      'clearance',
    ])
    expect(figureKind(duo.measures[3]!)).toBe('end-play')
  })
})

describe('the question to the solver', () => {
  it('finds stacks that bring all in, from the numbers of the bench', () => {
    const result = shimSolve(solverInput(lomvi90, found, drawer))
    expect(result.status).toBe('fit')
    expect(result.plans[0]!.probability).toBeGreaterThan(0.9)
  })
  it('can be asked of one stack only', () => {
    const question = solverInput(lomvi90, found, drawer, ['reverse'])
    expect(question.locations.map((l) => l.fixed)).toEqual([true, true, false])
  })
  it('leaves stacks that are set another way, and measures that no stack moves', () => {
    const upper = demoSheets.find((s) => s.id === 'havsule-duo-upper')!
    const question = solverInput(
      upper,
      {
        stacks: { upper: 0.9, lower: 0.9, input: 0.9, cover: 0.5 },
        readings: { 'backlash-upper': three(0.3), 'backlash-lower': three(0.3) },
      },
      drawer,
    )
    expect(Object.fromEntries(question.locations.map((l) => [l.id, l.fixed]))).toEqual({
      upper: false,
      lower: false,
      input: true,
      cover: true,
    })
  })
  it('is refused while something is missing', () => {
    expect(refused(() => solverInput(lomvi90, { ...found, stacks: {} }, drawer)).code).toBe('stack-missing')
    expect(refused(() => solverInput(lomvi90, { ...found, readings: {} }, drawer)).code).toBe(
      'reading-missing',
    )
  })
})

describe('promise against result', () => {
  it('finds the reading that shims cannot explain', () => {
    const state = assess(lomvi90, found)
    const promise = (value: number) => ({ depth: { value, U: 0.02, probability: 1 } })
    expect(checkPrediction(promise(38.53), state)[0]).toMatchObject({ disagrees: false })
    expect(checkPrediction(promise(38.4), state)[0]).toMatchObject({ disagrees: true })
    expect(checkPrediction({ unknown: { value: 1, U: 1, probability: 1 } }, state)).toEqual([])
  })
})

describe('pieces that stay where they are', () => {
  const build = {
    stacks: { pinion: 0.6, forward: 0.7, reverse: 0.8 },
    readings: Object.fromEntries(
      lomvi90.measures.map((m) => [
        m.id,
        [{ value: m.target!, gauge: { resolution: 0.01, mpe: 0.01, repeatability: 0 } }],
      ]),
    ),
    pieces: { pinion: ['a'], forward: ['b', 'b'], reverse: ['c'] },
  }
  const pieces = ['a', 'b', 'c'].map((id) => ({ id, thicknessMm: 0.35, count: 2 }))
  const counts = (free?: string[]) =>
    Object.fromEntries(solverInput(lomvi90, build, pieces, free).pieces.map((p) => [p.id, p.count]))
  it('are not offered to another stack a second time', () => {
    expect(counts()).toEqual({ a: 2, b: 2, c: 2 })
    expect(counts(['reverse'])).toEqual({ a: 1, b: 0, c: 2 })
  })
})
