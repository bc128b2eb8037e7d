import { ALWAYS_NEW, type Part } from '@moray/core/drives/parts'
import { GRADES } from '@moray/core/inspection/criteria'
import { gradeOf, isCondemned } from '@moray/core/job/bench-row'
import type { RowPart } from '@moray/core/job/record'
import type { ShownJob } from '../shown-job.ts'

/** The part that a scanned code or a typed name means: its id, its whole name, or the only one whose name holds it. */
export function partMeant(parts: readonly Part[], text: string): Part | undefined {
  const wanted = text.trim().toLowerCase()
  if (!wanted) return undefined
  const exact = parts.find((p) => p.id === wanted || p.name.toLowerCase() === wanted)
  if (exact) return exact
  const near = parts.filter((p) => p.name.toLowerCase().includes(wanted))
  return near.length === 1 ? near[0] : undefined
}

/** Built back in the order in which it came off, from the end. */
export const buildBack = (row: readonly RowPart[]): RowPart[] => [...row].reverse()

/** What has to be known of a part at the moment it goes back in. */
export interface GoesIn {
  /** A new one goes in: the old is condemned, or it is what seals. */
  fresh: boolean
  /** The old one may not go back. */
  condemned: boolean
  /** Its grade in words, with the reason; empty when it has none. */
  grade: string
  /** The stack that was accepted for its place, mm, with its pieces. */
  stack: { label: string; mm: number; pieces: number[]; accepted: boolean } | null
}

/** Grade, "new" and the stack as built of a part in the row. */
export function goesIn(job: ShownJob, t: RowPart): GoesIn {
  const part = job.sheet.parts.find((p) => p.id === t.part)
  const grade = gradeOf(job.grades, t.part)
  const condemned = isCondemned(job.grades, t.part)
  const seals = part !== undefined && ALWAYS_NEW.includes(part.kind) && job.facts['school.seals'] === 'all'
  const newest = job.builds.at(-1)!
  const own =
    t.stack === null ? undefined : newest.stacks.find((s) => s.location === t.stack && !s.superseded)
  const label = job.sheet.adjusters.find((a) => a.id === t.stack)?.label ?? ''
  return {
    fresh: condemned || seals,
    condemned,
    grade: grade ? `${GRADES[grade.grade]}: ${grade.reason}` : '',
    stack: own
      ? {
          label,
          mm: own.thicknessMm,
          pieces: own.pieces.map((p) => p.thicknessMm),
          accepted: newest.acceptance !== null,
        }
      : null,
  }
}

/** A part as it was typed into the row. */
export interface Laid {
  text: string
  orientation: string
  ink: string
}
