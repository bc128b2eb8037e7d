import type { DriveSheet } from '@moray/core/drives/sheet'

/** Which sheet this is: a published version, one with what was entered at the bench since, or one of which nothing is published. */
export function versionText({ edition, after }: Pick<DriveSheet, 'edition' | 'after'>): string {
  if (edition !== undefined) return `version ${edition}`
  return after === undefined ? 'draft, nothing published yet' : `version ${after} and draft`
}
