import { describe, expect, it } from 'vitest'
import { READING_UNITS, isTorqueUnit } from '@moray/contract/requests/reading-units'
import { understand, withUnit } from '../src/ui/understand.ts'

describe('a bare number', () => {
  it.each(READING_UNITS)('keeps its meaning when it was typed in %s and another unit is chosen', (unit) => {
    const torque = isTorqueUnit(unit)
    const kind = torque ? 'rolling-torque' : 'ride'
    const typed = understand('1,5', unit, kind)
    const kept = withUnit(' 1,5 ', unit)
    for (const other of READING_UNITS.filter((u) => isTorqueUnit(u) === torque))
      expect(understand(kept, other, kind)).toEqual(typed)
  })
  it.each(['37h', '4r 37t', '1/8in', '2 1/4"', 'deep'])('is no “%s”: that stays as it was typed', (text) => {
    expect(withUnit(text, 'mm')).toBe(text)
  })
})
