/** A code that was said holds on its device as long as a day at the bench. */
export const SESSION_MS = 12 * 3_600_000

/** So long after a code was said it still signs. */
export const SIGNING_MS = 2 * 60_000
