/**
 * `npm test` says within minutes whether something broke; `npm run test:long` tries every case there is. What is left to the long run is more of the same: other
 * drives on the same walk, other drawers for the same search, other values at the same place. What is tried in the short one is the same each time.
 */
export const LONG_RUN = process.env.MORAY_TEST_LONG === '1'

/** Every so many-th of the cases, from the one named on; all of them in a long run. */
export const some = <T>(cases: readonly T[], every: number, first = 0): T[] =>
  LONG_RUN ? [...cases] : cases.filter((_, i) => i % every === first % every)

/** How often something is tried that is drawn by lot. */
export const times = (usual: number, long: number): number => (LONG_RUN ? long : usual)
