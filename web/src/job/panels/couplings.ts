import type { DriveSheet } from '@moray/core/drives/sheet'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import type { useUnits } from '../../ui/units.ts'

/** So much more of a stack, for saying what it moves; mm. */
const MORE_MM = 0.1
/** A change that nobody reads is not said, mm. */
const LEAST_MM = 0.002

/** What a stack moves, in words: every measure that answers it, by how much for a tenth more. */
export function couplings(
  question: Pick<ShimSolveInput, 'quantities'>,
  stack: string,
  sheet: Pick<DriveSheet, 'measures'>,
  units: Pick<ReturnType<typeof useUnits>, 'length'>,
): string {
  const moved = question.quantities.flatMap((q) => {
    const by = (q.sensitivity[stack] ?? 0) * MORE_MM
    if (Math.abs(by) < LEAST_MM) return []
    const label = sheet.measures.find((m) => m.id === q.id)?.label ?? q.id
    return [`${label.toLowerCase()} by ${by > 0 ? '+' : '−'}${units.length(Math.abs(by), 3)}`]
  })
  if (!moved.length) return 'It moves nothing that is measured.'
  return `${units.length(MORE_MM, 2)} more moves ${moved.join(', ')}.`
}
