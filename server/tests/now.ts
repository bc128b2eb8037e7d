/** The moment at which every test happens. */
export const NOW = new Date('2026-11-20T08:00:00Z')

/** A clock that goes on by a second whenever somebody looks at it: taps in the row have no number, and stand by their time. */
export function ticking(): () => Date {
  let at = Date.parse('2026-11-04T09:00:00Z')
  return () => new Date((at += 1000))
}
