import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { InputError } from '../../src/checks/input-error.ts'
import { parseRange } from '../../src/units/figure-notation.ts'

describe('a range as manuals print it', () => {
  it.each([
    ['0.38 to 0.56', 'length', undefined, 0.38, 0.56],
    ['.015 to .022in', 'length', undefined, 0.381, 0.5588],
    ['.015in to .022', 'length', 'mm', 0.381, 0.5588],
    ['15t–22t', 'length', undefined, 0.381, 0.5588],
    ['.015/.022in', 'length', undefined, 0.381, 0.5588],
    ['1/8" to 1/4"', 'length', undefined, 3.175, 6.35],
    ['0,40 ± 0,05', 'length', 'mm', 0.35, 0.45],
    ['.019 +/- .002', 'length', 'in', 0.4318, 0.5334],
    ['from 10 to 12 psi', 'pressure', undefined, 68.9475729, 82.7370875],
    ['-15inHg to -12inHg', 'pressure', undefined, -50.7958296, -40.6366637],
    ['24-27 ft-lb', 'torque', undefined, 32.5396308, 36.6070846],
    ['5ft-lb - 7ft-lb', 'torque', undefined, 6.7790897, 9.4907256],
    ['max 0.3 mm', 'length', undefined, undefined, 0.3],
    ['at least 5 Nm', 'torque', undefined, 5, undefined],
    ['≥ 5', 'torque', undefined, 5, undefined],
  ] as const)('%s', (text, quantity, unit, min, max) => {
    const { window } = parseRange({ text, quantity, ...(unit ? { unit } : {}) })
    for (const [side, value] of [
      ['min', min],
      ['max', max],
    ] as const)
      if (value === undefined) expect(window[side]).toBeUndefined()
      else expect(window[side]).toBeCloseTo(value, 6)
  })
  it.each([
    ['5', 'is one figure'],
    ['0.5 to 0.3', 'upside down'],
    ['0.4 ± 0', 'must be above 0'],
    ['to', 'not understood'],
    ['', 'is empty'],
    ['.4 to .6 furlong', 'not understood'],
    ['1/64 - 1/32in', 'a fraction is understood in inches only'],
  ])('%s is refused', (text, why) => {
    expect(() => parseRange({ text, quantity: 'length' })).toThrow(why)
  })
  it('is read back as it was written, in any unit', () => {
    const number = fc.integer({ min: 1, max: 900 }).map((n) => n / 1000)
    fc.assert(
      fc.property(
        number,
        number,
        fc.constantFrom('mm', 'in', 't', 'h'),
        fc.constantFrom(' to ', '–', ' – ', ' ... '),
        (a, b, unit, between) => {
          fc.pre(a !== b)
          const [low, high] = [Math.min(a, b), Math.max(a, b)]
          const one = (v: number) =>
            parseRange({ text: `${v}${unit}${between}${v + 1}${unit}`, quantity: 'length' }).window.min!
          const { window } = parseRange({ text: `${low}${between}${high}${unit}`, quantity: 'length' })
          expect(window.min).toBeCloseTo(one(low), 9)
          expect(window.max).toBeCloseTo(one(high), 9)
        },
      ),
    )
  })
  it('throws nothing but what it says', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        try {
          parseRange({ text, quantity: 'torque' })
          return true
        } catch (e) {
          return e instanceof InputError
        }
      }),
    )
  })
})
