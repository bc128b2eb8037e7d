import type { ReadingEntry } from '@moray/core/job/record'
import { howWords } from '@moray/core/reading/kinds'
import type { useUnits } from '../ui/units.ts'

/** Hours of a clock face are easier to find on a gear than degrees. */
export const clockHour = (deg: number): string => `${Math.round(deg / 30) % 12 || 12} o'clock`

/** How a reading was taken, before the name of its gauge; empty where there is nothing to say. */
export function howText(
  { how, clockDeg, raw }: Pick<ReadingEntry, 'how' | 'clockDeg' | 'raw'>,
  units: Pick<ReturnType<typeof useUnits>, 'of'>,
): string {
  const said = [
    ...(clockDeg === null ? [] : [clockHour(clockDeg)]),
    ...howWords({ raw, how }, (value, unit) => units.of(unit).both(value, unit === 'mm' ? 3 : undefined)),
    ...(how?.unsuited ? ['with a gauge that is not made for it'] : []),
  ]
  return said.length ? `${said.join(', ')} · ` : ''
}

/** Checks before measuring that were not ticked, for a whole set of readings: said once. Empty where all were. */
export function uncheckedText(readings: readonly Pick<ReadingEntry, 'how' | 'superseded'>[]): string {
  const counting = readings.filter((r) => !r.superseded)
  const checks = new Set(counting.flatMap((r) => r.how?.unticked ?? []))
  if (!checks.size) return ''
  const without = counting.filter((r) => r.how?.unticked?.length).length
  const some = without === counting.length ? '' : ` (${without} of ${counting.length} readings)`
  return `Not ticked before measuring${some}: ${[...checks].join(', ')}`
}
