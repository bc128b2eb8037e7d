import type { DriveSheet } from './sheet.ts'

/** What follows from a sheet alone, worked out once for each: a published sheet never changes, and whoever holds one holds the same object. */
export function perSheet<T>(work: (sheet: DriveSheet) => T): (sheet: DriveSheet) => T {
  const known = new WeakMap<DriveSheet, { made: T }>()
  return (sheet) => {
    let kept = known.get(sheet)
    if (!kept) known.set(sheet, (kept = { made: work(sheet) }))
    return kept.made
  }
}
