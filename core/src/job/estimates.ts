import type { EstimateEntry, GradeEntry } from './record.ts'

/** Grades were given since the estimate was made: it no longer says what is known. */
export const isStale = (
  estimate: Pick<EstimateEntry, 'at'>,
  grades: readonly Pick<GradeEntry, 'at'>[],
): boolean => grades.some((g) => Date.parse(g.at) > Date.parse(estimate.at))
