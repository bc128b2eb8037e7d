import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { erfc, probabilityInWindow } from '../src/numbers/normal.ts'

describe('the normal distribution', () => {
  it.each([
    [0, 1],
    [0.1, 0.887537083981715],
    [0.46875, 0.5073865267820618],
    [0.5, 0.4795001221869535],
    [1, 0.15729920705028513],
    [2, 0.004677734981047266],
    [4, 1.541725790028002e-8],
    [4.5, 1.9661604415428873e-10],
    [10, 2.088487583762545e-45],
    [26, 5.663192408856143e-296],
    [30, 0],
    [-1, 1.8427007929497148],
  ])('erfc(%s)', (x, value) => {
    if (value === 0) expect(erfc(x)).toBe(0)
    else expect(erfc(x) / value).toBeCloseTo(1, 12)
  })
  it('is symmetric and never rises', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (z, step) => {
          expect(erfc(z) + erfc(-z)).toBeCloseTo(2, 13)
          expect(erfc(z + step)).toBeLessThanOrEqual(erfc(z) + 2e-15)
        },
      ),
      { seed: 1 },
    )
  })
  it('splits a window into its parts', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (mean, sigma, width, share) => {
          const cut = share * width
          const whole = probabilityInWindow(mean, sigma, 0, width)
          expect(
            probabilityInWindow(mean, sigma, 0, cut) + probabilityInWindow(mean, sigma, cut, width),
          ).toBeCloseTo(whole, 12)
        },
      ),
      { seed: 4 },
    )
  })
})
