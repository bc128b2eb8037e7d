import type { ReadingEntry } from '@moray/core/job/record'
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
    ...(how?.as === undefined ? [] : [`read as ${how.as} ${units.of('mm').both(raw, 3)}`]),
    ...(how?.dragNm === undefined ? [] : [`lips ${units.of('Nm').both(how.dragNm)} taken off`]),
    ...(how?.runIn ? ['bearings run in'] : []),
    ...(how?.swing ? [`${how.swing.extreme} of a swing of ${how.swing.samples.length}`] : []),
    ...(how?.unticked?.length ? [`without: ${how.unticked.join(', ')}`] : []),
  ]
  return said.length ? `${said.join(', ')} · ` : ''
}
