import { describe, expect, it } from 'vitest'
import { nearestMaster } from '../../src/measuring/setting-master.ts'
import { fittingOrder } from '../../src/setting/fitting-order.ts'

describe('the order of pieces in a stack', () => {
  it.each([
    [[], []],
    [[0.3], [0.3]],
    [
      [0.1, 0.3],
      [0.3, 0.1],
    ],
    [
      [0.05, 0.3, 0.1, 0.4],
      [0.4, 0.1, 0.05, 0.3],
    ],
    [
      [0.2, 0.2, 0.2],
      [0.2, 0.2, 0.2],
    ],
  ])('%j goes in as %j', (pieces, order) => {
    const rows = pieces.map((thicknessMm) => ({ thicknessMm }))
    expect(fittingOrder(rows).map((p) => p.thicknessMm)).toEqual(order)
    expect(rows.map((p) => p.thicknessMm)).toEqual(pieces)
  })
})

describe('setting masters', () => {
  const masters = [40.002, 50.003, 59.998].map((lengthMm, i) => ({ id: `m${i}`, label: '', lengthMm }))
  it('finds the nearest, the first of two alike, and none among none', () => {
    expect(nearestMaster(masters, 50)?.id).toBe('m1')
    expect(nearestMaster(masters, 10)?.id).toBe('m0')
    expect(
      nearestMaster(
        [
          { ...masters[0]!, id: 'a' },
          { ...masters[0]!, id: 'b' },
        ],
        40,
      )?.id,
    ).toBe('a')
    expect(nearestMaster([], 50)).toBeUndefined()
  })
})
