import type { DriveSheet } from '../drives/sheet.ts'
import { settingMeasures, type SetMeasure } from './measures.ts'
import { runoutMeasures, type RunoutMeasure } from './shaft-stations.ts'

/** Whatever can be read of a drive: what is set, and the runout of its shafts. */
export type Measured = SetMeasure | RunoutMeasure

/** The measure of a drive by the id that its readings carry; undefined where the sheet has no such measure. */
export const findMeasured = (sheet: DriveSheet, id: string): Measured | undefined =>
  settingMeasures(sheet).find((m) => m.id === id) ?? runoutMeasures(sheet).find((m) => m.id === id)
