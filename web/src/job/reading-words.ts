import type { ReadingEntry } from '@moray/core/job/record'
import type { SeatFigures } from '@moray/core/setting/taken'
import type { useUnits } from '../ui/units.ts'

/** Hours of a clock face are easier to find on a gear than degrees. */
export const clockHour = (deg: number): string => `${Math.round(deg / 30) % 12 || 12} o'clock`

const WAYS: Record<NonNullable<NonNullable<ReadingEntry['how']>['as']>, string> = {
  gap: 'gap',
  float: 'float',
  play: 'play',
  'case-and-gear': 'gear assembly',
  'ride-height': 'best of a ride-height search',
  'loose-pair': 'loose pair on a plate',
}
const SEAT: Record<keyof SeatFigures, string> = {
  caseMm: 'case',
  nominalMm: 'nominal',
  trialMm: 'trial stack',
  clearanceMm: 'clearance to leave',
  preloadMm: 'preload to give',
}
const seatWords = (seat: SeatFigures | undefined, show: (mm: number) => string): string[] =>
  Object.entries(seat ?? {}).map(([key, mm]) => `${SEAT[key as keyof SeatFigures]} ${show(Number(mm))}`)

/** How a reading was taken, before the name of its gauge; empty where there is nothing to say. */
export function howText(
  { how, clockDeg, raw }: Pick<ReadingEntry, 'how' | 'clockDeg' | 'raw'>,
  units: Pick<ReturnType<typeof useUnits>, 'of'>,
): string {
  const said = [
    ...(clockDeg === null ? [] : [clockHour(clockDeg)]),
    ...(how?.as === undefined ? [] : [`read as ${WAYS[how.as]} ${units.of('mm').both(raw, 3)}`]),
    ...seatWords(how?.seat, (mm) => units.of('mm').both(mm, 3)),
    ...(how?.dragNm === undefined ? [] : [`lips ${units.of('Nm').both(how.dragNm)} taken off`]),
    ...(how?.runIn ? ['bearings run in'] : []),
    ...(how?.rides ? [`${how.rides.length} places`] : []),
    ...(how?.swing ? [`${how.swing.extreme} of a swing of ${how.swing.samples.length}`] : []),
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
