export const KEPT = { days: 7, weeks: 5, months: 12 }

/** A copy by the day on which it was made. */
export interface Dated {
  name: string
  at: Date
}

const DAY_MS = 86_400_000
const dayOf = (at: Date) => `${at.getFullYear()}-${at.getMonth()}-${at.getDate()}`
/** Weeks begin on Monday. */
const weekOf = (at: Date) => {
  const noon = new Date(at.getFullYear(), at.getMonth(), at.getDate(), 12)
  return Math.floor((noon.getTime() / DAY_MS + 3) / 7)
}
const monthOf = (at: Date) => `${at.getFullYear()}-${at.getMonth()}`

/**
 * Nightly copies that may go: of each of the last 7 days, 5 weeks and 12 months that have any, the newest stays. Days without a copy do not count, so
 * that neither a shop that was shut for a month nor a clock that was wrong makes all of them old.
 * @returns names, the oldest first
 */
export function toLetGo(copies: readonly Dated[]): string[] {
  const newestFirst = [...copies].sort((a, b) => b.at.getTime() - a.at.getTime())
  const stay = new Set<string>()
  const keepBy = (periodOf: (at: Date) => string | number, most: number) => {
    const seen = new Set<string | number>()
    for (const c of newestFirst) {
      const period = periodOf(c.at)
      if (seen.has(period)) continue
      if (seen.size === most) break
      seen.add(period)
      stay.add(c.name)
    }
  }
  keepBy(dayOf, KEPT.days)
  keepBy(weekOf, KEPT.weeks)
  keepBy(monthOf, KEPT.months)
  return newestFirst
    .filter((c) => !stay.has(c.name))
    .reverse()
    .map((c) => c.name)
}
