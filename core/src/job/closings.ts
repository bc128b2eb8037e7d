import type { Closing } from './record.ts'

/** The closings that count: what was taken back stays to be read, and decides nothing. */
export const counted = <T extends Closing>(closings: readonly T[]): T[] =>
  closings.filter((c) => !c.takenBack)

/** The closing of a step that counts. */
export const closingOf = <T extends Closing>(closings: readonly T[], step: string): T | undefined =>
  closings.find((c) => c.step === step && !c.takenBack)

/** Ids of the steps that are closed. */
export const doneSteps = (closings: readonly Closing[]): ReadonlySet<string> =>
  new Set(counted(closings).map((c) => c.step))
