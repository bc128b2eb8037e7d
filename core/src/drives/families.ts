import type { Family } from './sheet.ts'

/** Families whose clutch grips by friction, and not by dogs. */
export const FRICTION: ReadonlySet<Family> = new Set<Family>(['stern-upper-reversing'])
/** Families that are driven through a universal joint or a coupling at their input. */
export const INPUT_JOINT: ReadonlySet<Family> = new Set<Family>(['stern-upper', 'stern-upper-reversing'])
