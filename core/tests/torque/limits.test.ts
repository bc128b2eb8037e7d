import { describe, expect, it } from 'vitest'
import { torqueAdapter } from '../../src/torque/adapter.ts'
import { lockAlignment } from '../../src/torque/lock-alignment.ts'
import { torqueOrder } from '../../src/torque/order.ts'
import { threadTurn } from '../../src/torque/thread-turn.ts'
import { wrenchSuits } from '../../src/torque/wrench.ts'
import { refused } from '../refused.ts'

const path = (work: () => unknown) => refused(work).fields.map((f) => f.path)

describe('the very limits of an adapter', () => {
  const base = { targetNm: 60, wrenchLengthMm: 400, offsetMm: 0 }
  it('an offset of 0 is the bare wrench; below it is refused', () => {
    expect(torqueAdapter(base)).toMatchObject({ settingNm: 60, factor: 1 })
    expect(path(() => torqueAdapter({ ...base, offsetMm: -0.001 }))).toEqual(['offsetMm'])
  })
  it('a wrench is longer than a hand is wide', () => {
    expect(path(() => torqueAdapter({ ...base, wrenchLengthMm: 25 }))).toEqual(['wrenchLengthMm'])
    expect(torqueAdapter({ ...base, wrenchLengthMm: 25.1 }).settingNm).toBeCloseTo(60, 9)
  })
  it('turned back, the fastener stays before the hand', () => {
    const back = { ...base, wrenchLengthMm: 125, angleDeg: 180 }
    expect(path(() => torqueAdapter({ ...back, offsetMm: 100 }))).toEqual(['offsetMm'])
    expect(torqueAdapter({ ...back, offsetMm: 99 }).settingNm).toBeCloseTo((60 * 125) / 26, 9)
  })
  it('a setting at 20 % and at the whole of the range is usable, beyond either it is not', () => {
    expect(torqueAdapter({ ...base, wrenchMaxNm: 60 }).settingNm).toBe(60)
    expect(torqueAdapter({ ...base, wrenchMaxNm: 300 }).settingNm).toBe(60)
    expect(path(() => torqueAdapter({ ...base, wrenchMaxNm: 59.9 }))).toEqual(['wrenchMaxNm'])
    expect(path(() => torqueAdapter({ ...base, wrenchMaxNm: 301 }))).toEqual(['wrenchMaxNm'])
  })
})

describe('the order of a pattern', () => {
  it.each([
    [[], 'stages'],
    [[0.5, 0.5, 1], 'stages[1]'],
    [[0.6, 0.5, 1], 'stages[1]'],
    [[0, 1], 'stages[0]'],
    [[0.5, 1.2], 'stages[1]'],
    [[0.3, 0.6], 'stages[1]'],
    [[0.3], 'stages[0]'],
  ])('refuses the stages %j', (stages, at) => {
    expect(path(() => torqueOrder({ count: 6, stages }))).toEqual([at])
  })
  it('says what the last stage was', () => {
    expect(refused(() => torqueOrder({ count: 4, stages: [0.3, 0.7] })).fields[0]!.message).toBe(
      'is 0.7; the last stage is 1',
    )
  })
  it('goes up to the last stage in the same order each time', () => {
    const { passes, order } = torqueOrder({ count: 5, stages: [0.4, 1] })
    expect(passes.map((p) => p.fraction)).toEqual([0.4, 1])
    for (const p of passes) expect(p.order).toEqual(order)
  })
  it('takes one fastener, and up to 200; more, or none, are refused', () => {
    const row = (n: number) => Array.from({ length: n }, (_, i) => ({ x: i, y: 0 }))
    expect(torqueOrder({ positions: row(1), stages: [1] }).order).toEqual([0])
    expect(torqueOrder({ positions: row(200), stages: [1] }).order).toHaveLength(200)
    expect(path(() => torqueOrder({ positions: row(201), stages: [1] }))).toEqual(['positions'])
    expect(path(() => torqueOrder({ positions: [], stages: [1] }))).toEqual(['positions'])
    expect(
      path(() =>
        torqueOrder({
          positions: [
            { x: 1, y: 1 },
            { x: 1, y: 1 },
          ],
          stages: [1],
        }),
      ),
    ).toEqual(['positions'])
  })
  it('never takes a fastener twice, nor leaves one out, whatever the pattern', () => {
    for (const n of [2, 3, 4, 7, 8, 11, 16]) {
      const { order } = torqueOrder({ count: n, stages: [1] })
      expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i))
    }
    const flange = [0, 20, 40, 60, 80].flatMap((x) => [
      { x, y: 0 },
      { x, y: 30 },
    ])
    const { order } = torqueOrder({ positions: flange, stages: [1] })
    expect([...order].sort((a, b) => a - b)).toEqual(flange.map((_, i) => i))
    // from the middle outward: the ends come last
    expect(order.slice(0, 2).every((i) => flange[i]!.x === 40)).toBe(true)
    expect(order.slice(-2).every((i) => flange[i]!.x === 0 || flange[i]!.x === 80)).toBe(true)
  })
})

describe('tabs and slots', () => {
  const ring = { tabs: 6, slots: 8, required: 2 }
  it('says the phase once, in one way', () => {
    expect(path(() => lockAlignment({ ...ring, phaseDeg: 3, shortMm: 1, radiusMm: 20 }))).toEqual(['shortMm'])
    expect(path(() => lockAlignment({ ...ring }))).toEqual(['phaseDeg'])
    expect(path(() => lockAlignment({ ...ring, shortMm: 1 }))).toEqual(['radiusMm'])
    expect(path(() => lockAlignment({ ...ring, shortMm: 41, radiusMm: 20 }))).toEqual(['shortMm'])
    expect(lockAlignment({ ...ring, shortMm: 0, radiusMm: 20 })).toEqual(
      lockAlignment({ ...ring, phaseDeg: 0 }),
    )
  })
  it('says how many would meet where the wanted number never does: the best place, not the worst', () => {
    const never = lockAlignment({ tabs: 6, slots: 8, required: 5, phaseDeg: 4 })
    expect(never).toMatchObject({ possible: false, coinciding: 2 })
    expect(never.advanceDeg).toBeUndefined()
  })
})

describe('a wrench for a window', () => {
  const wrench = { fromNm: 10, toNm: 100 }
  it.each([
    [{ min: 20, max: 100 }, true],
    [{ min: 19.9, max: 90 }, false],
    [{ min: 20, max: 100.1 }, false],
    [{ min: 30 }, true],
    [{ max: 90 }, true],
    [{}, false],
  ])('%j: %s', (window, suits) => expect(wrenchSuits(wrench, window)).toBe(suits))
  it('begins where its scale does, when that is above the fifth', () => {
    expect(wrenchSuits({ fromNm: 40, toNm: 100 }, { min: 39 })).toBe(false)
    expect(wrenchSuits({ fromNm: 40, toNm: 100 }, { min: 40 })).toBe(true)
  })
})

it.each([
  ['right', 'tightens', 'clockwise'],
  ['right', 'loosens', 'anticlockwise'],
  ['left', 'tightens', 'anticlockwise'],
  ['left', 'loosens', 'clockwise'],
] as const)('a %s-hand thread %s %s', (hand, act, turn) => expect(threadTurn(hand, act)).toBe(turn))
