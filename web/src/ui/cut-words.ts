import type { PieceCut } from '@moray/core/setting/shim-problem'
import type { useUnits } from './units.ts'

/** What can be made of the pieces of a line, in the unit of whoever looks. */
export function cutWords(cut: PieceCut, units: ReturnType<typeof useUnits>): string {
  const least = units.length(cut.minMm, 3)
  return cut.kind === 'laminated'
    ? `laminated: layers of ${units.length(cut.layerMm, 3)} come off, down to ${least}`
    : `blank: ground in steps of ${units.length(cut.stepMm, 3)}, down to ${least}`
}

/** What is done to a piece of that sort. */
export const cutAct = (cut: PieceCut): string => (cut.kind === 'laminated' ? 'peel to' : 'grind to')
