import type { DriveSheet } from '../drives/sheet.ts'
import { settingMeasures, type SetMeasure } from './measures.ts'
import { runoutMeasures, type RunoutMeasure } from './shaft-stations.ts'

/** Whatever can be read of a drive: what is set, and the runout of its shafts. */
export type Measured = SetMeasure | RunoutMeasure

/** How a measure is taken, as the gauges name it (gauge-kinds.ts). @param as the way it is read, where it has several */
export function wayOf(measure: Measured, as: string | undefined): string {
  if (measure.kind === 'depth') return measure.how.method
  // a float and the play of a bearing are read from stop to stop
  return as === 'float' || as === 'play' ? 'end-play' : measure.kind
}

/** The measure of a drive by the id that its readings carry; undefined where the sheet has no such measure. */
export const findMeasured = (sheet: DriveSheet, id: string): Measured | undefined =>
  settingMeasures(sheet).find((m) => m.id === id) ?? runoutMeasures(sheet).find((m) => m.id === id)
