import type { Act, Deed } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import { applyEffect } from './effects.ts'
import { missingBefore } from './needs.ts'
import { asItCame, type AssemblyState } from './state.ts'

export interface Folded {
  state: AssemblyState
  /** Acts that were never entered, and without which a later one could not have been: each with the act that shows it. */
  inferred: (Pick<Act, 'do' | 'on'> & { before: number })[]
}

/**
 * The state of a unit after its acts, in the order of their numbers. An act whose conditions do not hold is kept, and what is missing before it is taken
 * for done: it must have been.
 * @param ix of the version of the sheet that the unit is worked by
 */
export function fold(ix: AssemblyIndex, acts: readonly Act[]): Folded {
  const state = asItCame(ix)
  const inferred: Folded['inferred'] = []
  for (const act of acts) {
    for (const { do: verb, on } of applyAct(ix, state, act)) inferred.push({ do: verb, on, before: act.n })
  }
  return { state, inferred }
}

/** One act more on a state, which is changed in place. @returns what must have been done before it, and now counts as done */
export function applyAct(ix: AssemblyIndex, state: AssemblyState, act: Act): readonly Deed[] {
  const missing = missingBefore(ix, state, act)
  for (const deed of missing)
    applyEffect(ix, state, { ...act, ...deed, fig: {}, sure: 'inferred', from: 'inferred' })
  applyEffect(ix, state, act)
  return missing
}
