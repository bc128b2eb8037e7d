import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canDecide } from '../../src/measuring/can-decide.ts'
import { judge } from '../../src/measuring/judge.ts'

describe('what a gauge can decide', () => {
  it.each([
    // resolution, mpe, repeatability, window, readings, decides
    [0.01, 0.01, 0.005, { min: 0.2, max: 0.3 }, 3, true],
    [0.05, 0.05, 0.02, { min: 0.2, max: 0.3 }, 3, false],
    [0.05, 0.05, 0.02, { max: 0.3 }, 3, true],
    [0.05, 0.05, 0.02, { min: 0.1 }, 1, true],
    [0.01, 0.03, 0.02, { min: 0.02, max: 0.08 }, 1, false],
  ] as const)(
    'step %d, error %d, scatter %d, window %o, %d readings: %s',
    (resolution, mpe, repeatability, window, n, decides) =>
      expect(canDecide({ resolution, mpe, repeatability }, window, n).decides).toBe(decides),
  )
  it('is what the judgement of readings in the very middle says', () => {
    const small = fc.double({ min: 0, max: 0.05, noNaN: true })
    fc.assert(
      fc.property(
        small,
        small,
        small,
        fc.double({ min: 0.01, max: 0.4, noNaN: true }),
        fc.integer({ min: 1, max: 9 }),
        (resolution, mpe, repeatability, width, n) => {
          const gauge = { resolution, mpe, repeatability }
          const window = { min: 1, max: 1 + width }
          const { U, decides } = canDecide(gauge, window, n)
          const judged = judge({ readings: Array(n).fill(1 + width / 2), ...gauge, window })
          expect(judged.U).toBeCloseTo(U, 12)
          if (Math.abs(2 * U - width) > 1e-9) expect(judged.verdict === 'in').toBe(decides)
        },
      ),
    )
  })
})
