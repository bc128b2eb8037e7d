import { comesOff, heldBy, type Part } from '../drives/parts.ts'
import type { Grade } from '../inspection/criteria.ts'
import type { GradeEntry, RowPart } from './record.ts'

export interface StillIn {
  part: Part
  /** Parts that must be off before it can come out. */
  held: Part[]
}

/** Parts that are still in the case, those that can come out first. */
export function stillIn(parts: readonly Part[], row: readonly RowPart[]): StillIn[] {
  const off = new Set(row.flatMap((t) => t.part ?? []))
  return parts
    .filter((p) => comesOff(p) && !off.has(p.id))
    .map((part) => ({ part, held: heldBy(parts, part.id, off) }))
    .sort((a, b) => Number(a.held.length > 0) - Number(b.held.length > 0))
}

/** Lies on the bench: neither back in, nor left out for a reason. */
export const lies = (t: RowPart): boolean => !t.fitted && t.leftOut === null

/** Parts that lie on the bench and belong inside; one that the sheet does not know is taken to belong inside. */
export function leftOnBench(parts: readonly Part[], row: readonly RowPart[]): RowPart[] {
  const inside = new Set(parts.filter((p) => p.inside).map((p) => p.id))
  return row.filter((t) => lies(t) && (t.part === null || inside.has(t.part)))
}

/** What lies on the bench, in the order in which it is built back: as it came off, from the end. */
export const buildBackOrder = (row: readonly RowPart[]): RowPart[] => [...row].reverse().filter(lies)

/** Grades after which the old part does not go back in. */
const CONDEMNS: readonly Grade[] = ['replace', 'replace-set']

/** The grade of a part that counts; undefined when it has none. */
export const gradeOf = (grades: readonly GradeEntry[], part: string | null): GradeEntry | undefined =>
  part === null ? undefined : grades.findLast((g) => g.part === part && !g.superseded)

/** The part was condemned: a new one takes its place. */
export const isCondemned = (grades: readonly GradeEntry[], part: string | null): boolean => {
  const grade = gradeOf(grades, part)
  return grade !== undefined && CONDEMNS.includes(grade.grade)
}
