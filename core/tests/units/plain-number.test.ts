import { describe, expect, it } from 'vitest'
import { plainNumber } from '../../src/units/plain-number.ts'

describe('a plain number', () => {
  it.each([
    ['3', 3],
    [' 21,5 ', 21.5],
    ['.5', 0.5],
    ['-4.25', -4.25],
    ['7.', 7],
    ['', undefined],
    ['1e3', undefined],
    ['3 mm', undefined],
    ['1,000.5', undefined],
    ['NaN', undefined],
  ])('%j is %s', (text, value) => expect(plainNumber(text)).toBe(value))
})
