import { isAfter, type Entered } from './entered.ts'

/** Grades were given since the estimate was made: it no longer says what is known. */
export const isStale = (estimate: Entered, grades: readonly Entered[]): boolean =>
  grades.some((g) => isAfter(g, estimate))
