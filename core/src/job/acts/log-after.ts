import type { LoggedAct, RecordedAct } from '../../assembly/act.ts'

/**
 * The log of a job as it stands once its acts are in it: what was there and still counts, then what came now.
 * @param write number of the write by which it came
 */
export function logAfter(
  log: readonly LoggedAct[],
  acts: readonly RecordedAct[],
  write: number,
): LoggedAct[] {
  const id = (a: Pick<LoggedAct, 'key' | 'place'>) => `${a.key} ${a.place}`
  const now = new Set(acts.map((a) => a.key))
  const before = log.filter((a) => now.has(a.key))
  const there = new Set(before.map(id))
  const fresh = acts
    .filter((a) => !there.has(id(a)))
    .map(({ key, place, do: verb, on, fig, sure }): LoggedAct => ({
      key,
      place,
      do: verb,
      on,
      ...(fig ? { fig } : {}),
      sure,
      write,
    }))
  return [...before, ...fresh]
}
