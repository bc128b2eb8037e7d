/** `npm run test:long`: what takes longest is done as well, and what is drawn by lot is drawn more often. */
export const LONG_RUN = process.env.MORAY_TEST_LONG === '1'

/** How often something is tried that is drawn by lot. */
export const times = (usual: number, long: number): number => (LONG_RUN ? long : usual)
