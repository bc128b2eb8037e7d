/** What is still right beside a wanted crush, mm: half a step of usual shims and what a feeler is worth. Our own; the sheet's stands above it. */
export const CRUSH_TOLERANCE_MM = 0.03
