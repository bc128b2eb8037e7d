import type { BoxScore } from './landing.ts'

/** What the search reports while it works; `share` is a rough 0 to 1 of the work of this stage. */
export interface SearchProgress {
  nodes: number
}

export interface BoxSearch {
  /** For each location the thicknesses on offer, rising, mm. */
  thickness: Float64Array[]
  /** Upper bound on the score of a box; exact for a point. */
  bound: BoxScore
  /** How much a mm at each location matters; decides where a box is cut. */
  weight: Float64Array
  /** Boxes whose bound is below the floor (or equal to it, unless `keepTies`) are cut. Read anew at every node. */
  floor: () => number
  keepTies: boolean
  /** A single combination: one index for each location. The indices are reused, copy what you keep. */
  leaf: (index: Int32Array, score: number) => void
  /** Shared over several searches; the search stops when it is used up. */
  budget: { nodes: number; readonly max: number }
}

/**
 * Depth-first branch and bound over boxes of index ranges, the better half first. A box is a range of
 * thicknesses at every location; its bound is the best score that any thickness in the ranges could reach.
 * Cut: bound below the floor. Split: at the middle of the location whose range moves the quantities most.
 * Complete: every combination is either visited or lies in a box that was cut, unless the budget ran out.
 *
 * A generator, so that a worker can report and be stopped between the yields (every 4096 nodes).
 * @returns false when the budget ran out
 */
export function* searchBoxes(search: BoxSearch): Generator<SearchProgress, boolean> {
  const { thickness, bound, weight, leaf, budget } = search
  const L = thickness.length
  if (thickness.some((t) => t.length === 0)) return true
  const lo = new Float64Array(L)
  const hi = new Float64Array(L)
  const index = new Int32Array(L)

  // stack of boxes: 2 L index bounds each, and their scores
  const ranges: Int32Array[] = []
  const scores: number[] = []
  const scoreOf = (box: Int32Array) => {
    for (let l = 0; l < L; l++) {
      lo[l] = thickness[l]![box[2 * l]!]!
      hi[l] = thickness[l]![box[2 * l + 1]!]!
    }
    return bound(lo, hi)
  }
  const cut = (score: number) => {
    const floor = search.floor()
    return search.keepTies ? score < floor : score <= floor
  }

  const whole = new Int32Array(2 * L)
  for (let l = 0; l < L; l++) whole[2 * l + 1] = thickness[l]!.length - 1
  ranges.push(whole)
  scores.push(scoreOf(whole))
  while (ranges.length) {
    const box = ranges.pop()!
    const score = scores.pop()!
    if (cut(score)) continue
    if (++budget.nodes > budget.max) return false
    if ((budget.nodes & 4095) === 0) yield { nodes: budget.nodes }

    let split = -1
    let most = -1
    for (let l = 0; l < L; l++) {
      const a = box[2 * l]!
      const b = box[2 * l + 1]!
      if (a === b) continue
      const matters = weight[l]! * (thickness[l]![b]! - thickness[l]![a]!)
      if (matters > most) {
        most = matters
        split = l
      }
    }
    if (split < 0) {
      for (let l = 0; l < L; l++) index[l] = box[2 * l]!
      leaf(index, score)
      continue
    }
    const middle = (box[2 * split]! + box[2 * split + 1]!) >> 1
    const left = box.slice()
    const right = box
    left[2 * split + 1] = middle
    right[2 * split] = middle + 1
    const leftScore = scoreOf(left)
    const rightScore = scoreOf(right)
    // the better one is pushed last and taken first
    if (leftScore >= rightScore) {
      ranges.push(right, left)
      scores.push(rightScore, leftScore)
    } else {
      ranges.push(left, right)
      scores.push(leftScore, rightScore)
    }
  }
  return true
}
