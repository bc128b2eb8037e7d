/** Places round a gear or a cover, degrees: as on a clock at 12, 3, 6 and 9. */
export const QUARTERS = [0, 90, 180, 270] as const
