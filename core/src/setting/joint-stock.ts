import type { StockLine } from './shim-problem.ts'
import type { StackCandidates } from './stack-candidates.ts'

/** A choice of one stack for every location: the stacks' indices in their candidates. */
export type StackChoice = Int32Array

/**
 * Finds stacks of the given classes that the drawer can supply together.
 * Locations are tried in order, stacks in the order of their ids, so the first hit has the ids that sort first.
 * @param pieces exact number of pieces wanted at each location; undefined takes any, fewest first
 * @returns the stacks, or undefined when the stock does not allow it
 */
export function supply(
  lines: readonly StockLine[],
  candidates: readonly StackCandidates[],
  classes: ArrayLike<number>,
  pieces?: ArrayLike<number>,
): StackChoice | undefined {
  const L = candidates.length
  // all thicknesses of one stock draw on the same count
  const left: number[] = []
  for (const l of lines) left[l.stock] = l.count
  const choice = new Int32Array(L)

  const stockOf = (c: StackCandidates, s: number, m: number) => lines[c.members[s * c.stride + m]!]!.stock
  const take = (c: StackCandidates, s: number): boolean => {
    for (let m = 0; m < c.pieces[s]!; m++) {
      if (--left[stockOf(c, s, m)]! < 0) {
        for (let back = m; back >= 0; back--) left[stockOf(c, s, back)]!++
        return false
      }
    }
    return true
  }
  const giveBack = (c: StackCandidates, s: number) => {
    for (let m = 0; m < c.pieces[s]!; m++) left[stockOf(c, s, m)]!++
  }
  const choose = (l: number): boolean => {
    if (l === L) return true
    const c = candidates[l]!
    const k = classes[l]!
    for (let s = c.start[k]!; s < c.start[k + 1]!; s++) {
      if (pieces !== undefined) {
        if (c.pieces[s]! < pieces[l]!) continue
        if (c.pieces[s]! > pieces[l]!) break
      }
      if (!take(c, s)) continue
      choice[l] = s
      if (choose(l + 1)) return true
      giveBack(c, s)
    }
    return false
  }
  return choose(0) ? choice : undefined
}
