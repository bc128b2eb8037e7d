import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { solveSymmetric } from '../../src/numbers/linear.ts'

const entries = fc.double({ min: -3, max: 3, noNaN: true })

describe('a small symmetric system', () => {
  it('is solved: the matrix times the answer is the right side', () => {
    fc.assert(
      fc.property(
        fc
          .integer({ min: 1, max: 4 })
          .chain((n) =>
            fc.tuple(
              fc.array(fc.array(entries, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }),
              fc.array(entries, { minLength: n, maxLength: n }),
            ),
          ),
        ([a, b]) => {
          // AᵀA + 1 is positive definite whatever A is
          const n = a.length
          const m = a.map((_, i) =>
            a.map((__, k) => a.reduce((sum, row) => sum + row[i]! * row[k]!, i === k ? 1 : 0)),
          )
          const x = solveSymmetric(m, b)!
          for (let i = 0; i < n; i++)
            expect(m[i]!.reduce((sum, v, k) => sum + v * x[k]!, 0)).toBeCloseTo(b[i]!, 8)
        },
      ),
    )
  })
  it('reads the lower half only', () => {
    expect(
      solveSymmetric(
        [
          [2, NaN],
          [1, 3],
        ],
        [3, 4],
      ),
    ).toEqual([expect.closeTo(1, 12), expect.closeTo(1, 12)])
  })
  it.each([
    [
      'the same row twice',
      [
        [1, 1],
        [1, 1],
      ],
    ],
    [
      'nothing in it',
      [
        [0, 0],
        [0, 0],
      ],
    ],
    [
      'a negative diagonal',
      [
        [-1, 0],
        [0, 1],
      ],
    ],
  ])('with %s cannot be told apart', (_, m) => expect(solveSymmetric(m, [1, 1])).toBeUndefined())
})
