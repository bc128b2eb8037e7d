import type { DriveSheet } from '@moray/core/drives/sheet'
import { settingMeasures, unitOf } from '@moray/core/setting/measures'
import { lowerFirst } from '@moray/core/units/words'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import type { useUnits } from '../../../ui/units.ts'

/** So much more of a stack, for saying what it moves; mm. */
const MORE_MM = 0.1
/** A change that nobody reads is not said, mm. */
const LEAST_MM = 0.002

/** What a stack moves, in words: every measure that answers it, by how much for a tenth more. */
export function couplings(
  question: Pick<ShimSolveInput, 'quantities'>,
  stack: string,
  sheet: DriveSheet,
  units: Pick<ReturnType<typeof useUnits>, 'length' | 'of'>,
): string {
  const moved = question.quantities.flatMap((q) => {
    const by = (q.sensitivity[stack] ?? 0) * MORE_MM
    if (Math.abs(by) < LEAST_MM) return []
    const measure = settingMeasures(sheet).find((m) => m.id === q.id)!
    const show = units.of(unitOf(measure))
    return [`${lowerFirst(measure.label)} by ${by > 0 ? '+' : '−'}${show.say(Math.abs(by), 3)}`]
  })
  if (!moved.length) return 'It moves nothing that is measured.'
  return `${units.length(MORE_MM, 2)} more moves ${moved.join(', ')}.`
}
