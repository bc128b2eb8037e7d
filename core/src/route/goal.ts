import type { Topic } from '../assembly/act.ts'
import type { Goal } from '../assembly/goal.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { CAME_ELSEWHERE, isWhole, type Scope } from './scope.ts'

/** What a scope wants in the end, by its table: whether it is put back together, and what has to be known whatever was touched. */
const WANTS: Record<Scope['mode'], Pick<Goal, 'closes' | 'mends'> & { know: readonly Topic[] }> = {
  rebuild: { closes: true, mends: true, know: ['runs'] },
  pump: { closes: true, mends: true, know: ['runs'] },
  service: { closes: true, mends: true, know: ['runs'] },
  refit: { closes: true, mends: true, know: ['runs', 'ratio'] },
  unit: { closes: true, mends: true, know: ['runs', 'ratio'] },
  // only looked at; what came off for that goes back on
  strike: { closes: true, mends: false, know: [] },
  test: { closes: true, mends: false, know: [] },
  // it lies apart until the owner has decided
  look: { closes: false, mends: false, know: [] },
}

export const since = <T>(of: readonly T[], n: number): Map<T, number> => new Map(of.map((x) => [x, n]))

/** What is reached on the way to a goal, by id. */
export interface Reached {
  off: readonly string[]
  renew: readonly string[]
  /** Settings that what comes off carries or sets. */
  sets: readonly string[]
  /** The oil is let out, whatever is opened. */
  drains: boolean
}

/** What a job of this scope is to come to. */
export function goalOfScope(sheet: DriveSheet, scope: Scope, reached: Reached): Goal {
  const elsewhere = CAME_ELSEWHERE.includes(scope.mode)
  const { closes, mends, know } = WANTS[scope.mode]
  const apart = !scope.mounted && !elsewhere
  return {
    off: since(reached.off, 0),
    renew: since(reached.renew, 0),
    // everything is set anew in a full rebuild, also what no part of the list carries
    set: since(scope.usual === 'full' ? reached.sets : [], 0),
    apart,
    empties: (reached.drains || scope.mode === 'look') && !elsewhere,
    know: since(
      [...know, ...(isWhole(sheet, scope) ? [] : (['ratio'] as const))].filter(
        (t) => t !== 'ratio' || sheet.meshes.length > 0,
      ),
      0,
    ),
    closes,
    mends,
    end: !closes ? 'as-it-is' : apart ? 'stand' : 'boat',
    endsAfter: 0,
  }
}
