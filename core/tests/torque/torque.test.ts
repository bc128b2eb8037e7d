import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { torqueAdapter } from '../../src/torque/adapter.ts'
import { lockAlignment } from '../../src/torque/lock-alignment.ts'
import { torqueOrder } from '../../src/torque/order.ts'
import { ratio } from '../../src/gears/ratio.ts'
import { refused } from '../refused.ts'

describe('torque adapter', () => {
  it('changes nothing square to the wrench, and least with the hand far out', () => {
    const square = torqueAdapter({ targetNm: 50, wrenchLengthMm: 400, offsetMm: 80, angleDeg: 90 })
    expect(square.factor).toBeCloseTo(1, 12)
    const straight = torqueAdapter({ targetNm: 50, wrenchLengthMm: 400, offsetMm: 80 })
    expect(straight.settingNm).toBeLessThan(50)
    expect(straight.settingAtGripMinus25Nm).toBeLessThan(straight.settingNm)
    expect(straight.settingAtGripPlus25Nm).toBeGreaterThan(straight.settingNm)
    expect(
      torqueAdapter({ targetNm: 50, wrenchLengthMm: 400, offsetMm: 80, angleDeg: 180 }).settingNm,
    ).toBeGreaterThan(50)
  })
  it('refuses a wrench out of its range, and says which would do', () => {
    const ask = { targetNm: 50, wrenchLengthMm: 400, offsetMm: 100 }
    expect(torqueAdapter({ ...ask, wrenchMaxNm: 100 }).settingNm).toBeCloseTo(40, 12)
    expect(refused(() => torqueAdapter({ ...ask, wrenchMaxNm: 30 })).message).toContain('40 to 200 Nm')
    expect(refused(() => torqueAdapter({ ...ask, wrenchMaxNm: 400 })).code).toBe('out-of-range')
  })
  it.each([
    [{ wrenchLengthMm: 0 }],
    [{ wrenchLengthMm: 20 }],
    [{ offsetMm: -1 }],
    [{ offsetMm: 500, angleDeg: 180 }],
    [{ targetNm: 0 }],
    [{ angleDeg: NaN }],
  ])('refuses %j', (wrong) => {
    refused(() => torqueAdapter({ targetNm: 50, wrenchLengthMm: 400, offsetMm: 80, ...wrong }))
  })
})

describe('order of tightening', () => {
  it.each([
    [4, '1 3 2 4'],
    [6, '1 4 2 5 3 6'],
    [8, '1 5 3 7 2 6 4 8'],
    [1, '1'],
    [2, '1 2'],
  ])('%i on a circle', (count, order) => {
    expect(
      torqueOrder({ count, stages: [1] })
        .order.map((i) => i + 1)
        .join(' '),
    ).toBe(order)
  })
  it('takes every fastener once in every stage', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), (count) => {
        const { order, passes } = torqueOrder({ count, stages: [0.3, 0.6, 1] })
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, i) => i))
        expect(passes.map((p) => p.fraction)).toEqual([0.3, 0.6, 1])
        expect(passes.every((p) => p.order.join() === order.join())).toBe(true)
      }),
      { seed: 2 },
    )
  })
  it('finds the circle in positions, and gives the same star', () => {
    const positions = Array.from({ length: 8 }, (_, i) => ({
      x: 30 + 20 * Math.cos((i * Math.PI) / 4),
      y: -5 + 20 * Math.sin((i * Math.PI) / 4),
    }))
    expect(torqueOrder({ positions, stages: [1] }).order).toEqual(
      torqueOrder({ count: 8, stages: [1] }).order,
    )
  })
  it('goes from the middle of a long flange outward, from side to side', () => {
    const positions = [-60, -20, 20, 60].flatMap((y) => [
      { x: -15, y },
      { x: 15, y },
    ])
    const { order } = torqueOrder({ positions, stages: [1] })
    expect(order.slice(0, 4).sort()).toEqual([2, 3, 4, 5])
    expect(order.slice(4).sort()).toEqual([0, 1, 6, 7])
    // the first two stand across from each other
    expect(positions[order[0]!]!.y).toBe(-positions[order[1]!]!.y)
    expect(positions[order[0]!]!.x).toBe(-positions[order[1]!]!.x)
  })
  it.each([
    [{ stages: [1] }],
    [{ count: 4, positions: [{ x: 0, y: 0 }], stages: [1] }],
    [{ count: 4, stages: [] }],
    [{ count: 4, stages: [0.5] }],
    [{ count: 4, stages: [0.5, 0.4, 1] }],
    [{ count: 0, stages: [1] }],
    [
      {
        positions: [
          { x: 1, y: 1 },
          { x: 1, y: 1 },
        ],
        stages: [1],
      },
    ],
  ])('refuses %j', (wrong) => {
    refused(() => torqueOrder(wrong))
  })
})

describe('locking by alignment', () => {
  it('agrees with turning on in hundredths of a degree', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 14 }),
        fc.integer({ min: 1, max: 14 }),
        fc.integer({ min: 0, max: 36000 }),
        // wider than the step, so that the steps cannot jump over a meeting
        fc.constantFrom(0.5, 1, 2),
        (tabs, slots, phase, toleranceDeg) => {
          const required = Math.min(2, tabs)
          const phaseDeg = phase / 100
          const pitch = 360 / slots
          const count = (x: number) => {
            let meet = 0
            for (let i = 0; i < tabs; i++) {
              const off = ((((360 * i) / tabs + x - phaseDeg) % pitch) + pitch) % pitch
              if (Math.min(off, pitch - off) <= toleranceDeg + 1e-9) meet++
            }
            return meet
          }
          const result = lockAlignment({ tabs, slots, required, phaseDeg, toleranceDeg })
          let first: number | undefined
          // a turn by one slot looks the same again
          for (let x = 0; x <= 36000 / slots + 1 && first === undefined; x++)
            if (count(x / 100) >= required) first = x / 100
          expect(result.possible).toBe(first !== undefined)
          if (first !== undefined) {
            expect(Math.abs(result.advanceDeg! - first)).toBeLessThanOrEqual(0.0501)
            expect(count(result.advanceDeg!)).toBe(result.coinciding)
          }
        },
      ),
      { numRuns: 60, seed: 8 },
    )
  })
  it('stays where it is when it already meets', () => {
    expect(lockAlignment({ tabs: 6, slots: 6, required: 6, phaseDeg: 0 })).toEqual({
      advanceDeg: 0,
      everyDeg: 60,
      coinciding: 6,
      possible: true,
    })
  })
  it('refuses more than there are, and halves', () => {
    refused(() => lockAlignment({ tabs: 3, slots: 8, required: 4, phaseDeg: 0 }))
    refused(() => lockAlignment({ tabs: 3.5, slots: 8, required: 1, phaseDeg: 0 }))
    refused(() => lockAlignment({ tabs: 3, slots: 8, required: 1, phaseDeg: 0, toleranceDeg: -1 }))
  })
})

describe('ratio', () => {
  const uppers = [{ id: 'A', driver: 21, driven: 24 }]
  const lowers = [
    { id: '14', driver: 14, driven: 27 },
    { id: '15', driver: 15, driven: 27 },
    { id: '13', driver: 13, driven: 28 },
  ]
  const matching = (r: ReturnType<typeof ratio>) =>
    r.candidates.filter((c) => c.matches).map((c) => c.lowerId)
  it('tells look-alike lowers apart by stamp and by counting turns', () => {
    expect(matching(ratio({ overall: 2.2, upperPairs: uppers, lowerPairs: lowers }))).toEqual(['14'])
    expect(
      matching(ratio({ upperPairs: uppers, lowerPairs: lowers, inputTurns: 22.05, outputTurns: 10 })),
    ).toEqual(['14'])
    // two turns are too few to tell
    expect(
      matching(ratio({ upperPairs: uppers, lowerPairs: lowers, inputTurns: 2.1, outputTurns: 1 })),
    ).toEqual(['14', '15'])
  })
  it('matches nothing when stamp and count speak against each other', () => {
    expect(
      matching(
        ratio({ overall: 2.2, upperPairs: uppers, lowerPairs: lowers, inputTurns: 20.6, outputTurns: 10 }),
      ),
    ).toEqual([])
  })
  it('works without an upper', () => {
    expect(ratio({ overall: 1.93, lowerPairs: lowers }).candidates[0]).toMatchObject({
      upperId: null,
      matches: true,
    })
  })
  it('refuses turns counted at one end, no pairs, odd teeth', () => {
    refused(() => ratio({ lowerPairs: lowers, inputTurns: 3 }))
    refused(() => ratio({ lowerPairs: [] }))
    refused(() => ratio({ lowerPairs: [{ id: 'x', driver: 0, driven: 20 }] }))
  })
})
