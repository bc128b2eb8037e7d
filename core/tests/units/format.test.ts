import { describe, expect, it } from 'vitest'
import { fixed, showBoth, showOther, showThou } from '../../src/units/format.ts'
import { isPlausible } from '../../src/units/plausible.ts'

describe('values for the eye', () => {
  it.each([
    [0.42, 2, '0.42 mm · 16.5 t'],
    [38.4, 3, '38.400 mm · 1.5118 in'],
    [-0.0001, 2, '0.00 mm · 0.0 t'],
    [25.4, 2, '25.40 mm · 1.0000 in'],
  ])('%s', (mm, decimals, text) => expect(showBoth(mm, decimals)).toBe(text))
  it('keeps the sign of what does not round to zero', () => {
    expect(fixed(-0.5, 1)).toBe('-0.5')
    expect(showThou(-0.254)).toBe('-10.0 t')
  })
})

describe('plausible ranges', () => {
  it('questions a backlash of 23 mm and takes 0.42', () => {
    expect(isPlausible('backlash', 23)).toBe(false)
    expect(isPlausible('backlash', 0.42)).toBe(true)
    expect(isPlausible('shim-piece', 16)).toBe(false)
    expect(isPlausible('drop', -1)).toBe(false)
  })
  it.each([
    [0.42, 'mm', '16.5 t'],
    [0.6, 'Nm', '5.3 in-lb'],
    [60, 'Nm', '44.3 ft-lb'],
    [80, 'kPa', '11.60 psi'],
    [-0.5, 'kPa/min', '-0.0725 psi/min'],
    [20, 'C', '68.0 °F'],
    [5, 'K', '9.0 °F apart'],
    [5, 'deg', ''],
  ])('%s %s in the other system', (v, unit, text) => expect(showOther(v, unit)).toBe(text))
})
