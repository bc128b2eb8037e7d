import { describe, expect, it, vi } from 'vitest'
import { dayField, showAgo, showClock, showDate, showTime } from '../src/ui/times.ts'

describe('a moment', () => {
  const at = new Date(2026, 8, 5, 8, 3)
  it('is shown in one form, as a day, with its time, and as a field takes it', () => {
    expect(showDate(at)).toBe('5 Sep 2026')
    expect(showTime(at.toISOString())).toBe('5 Sep 2026 08:03')
    expect(showClock(at.toISOString())).toBe('08:03')
    expect(dayField(at)).toBe('2026-09-05')
  })
  it.each([
    [new Date(2026, 8, 5, 8, 2, 50), 'just now'],
    [new Date(2026, 8, 5, 7, 33), '30 minutes ago'],
    [new Date(2026, 8, 4, 8, 3), '1 day ago'],
    [new Date(2026, 8, 2, 8, 3), '3 days ago'],
    [new Date(2026, 10, 7, 8, 3), 'in 2 months'],
    [new Date(2028, 0, 10), 'in 1 year'],
    [new Date(2023, 7, 1), '3 years ago'],
  ])('%s is said from now as %s', (then, said) => {
    vi.useFakeTimers({ now: at })
    try {
      expect(showAgo(then)).toBe(said)
    } finally {
      vi.useRealTimers()
    }
  })
})
