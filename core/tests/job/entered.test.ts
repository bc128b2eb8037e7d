import { describe, expect, it } from 'vitest'
import { isAfter, lastOf } from '../../src/job/entered.ts'

const act = (entered: number | null, minute: number) => ({
  entered,
  at: new Date(Date.UTC(2026, 10, 4, 9, minute)).toISOString(),
})

describe('what was entered after what', () => {
  it('is told by its number, whatever the clocks said', () => {
    expect(isAfter(act(2, 0), act(1, 30))).toBe(true)
    expect(isAfter(act(1, 30), act(2, 0))).toBe(false)
    expect(isAfter(act(1, 0), act(1, 30))).toBe(false)
  })
  it('is told by its time where an older Moray gave one of them no number', () => {
    expect(isAfter(act(null, 30), act(2, 0))).toBe(true)
    expect(isAfter(act(2, 30), { at: act(null, 0).at })).toBe(true)
    expect(isAfter(act(2, 0), act(null, 0))).toBe(false)
  })
  it('gives the last of several, the first of those that were entered as one', () => {
    const acts = [act(3, 5), act(7, 1), act(7, 2), act(4, 9)]
    expect(lastOf(acts)).toBe(acts[1])
    expect(lastOf([])).toBeUndefined()
  })
})
