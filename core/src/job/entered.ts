/** What was entered, when: its place in the log of the unit, and when it happened. */
export interface Entered {
  /** Given under the lock of the unit, so it alone orders; null for what an older Moray wrote, whose time decides. */
  entered?: number | null
  /** When it happened, ISO 8601. */
  at: string
}

/** Whether `a` was entered after `b`. Clocks of two servers, or one that was set back, do not matter. */
export function isAfter(a: Entered, b: Entered): boolean {
  const [first, second] = [b.entered ?? null, a.entered ?? null]
  return first === null || second === null ? Date.parse(a.at) > Date.parse(b.at) : second > first
}

/** The one that was entered last; undefined of none. */
export const lastOf = <T extends Entered>(acts: readonly T[]): T | undefined =>
  acts.reduce<T | undefined>((last, act) => (last && !isAfter(act, last) ? last : act), undefined)
