/** What the search reports while it works. */
export interface SearchProgress {
  nodes: number
  /** No combination of the boxes still to be looked at scores above this. */
  bound: number
}

export interface BoxSearch {
  /** How many thicknesses each location has on offer. */
  sizes: readonly number[]
  /** Upper bound on the score of a box (first and last index for each location); exact for a single combination. */
  score: (box: Int32Array) => number
  /** The location to cut next, −1 for a single combination. */
  cut: (box: Int32Array) => number
  /** Boxes whose bound is below the floor (or equal to it, unless `keepTies`) are dropped. Read anew at every node. */
  floor: () => number
  keepTies: boolean
  /** A single combination: one index for each location. The indices are reused, copy what you keep. */
  leaf: (index: Int32Array, score: number) => void
  /** Asked right after `score`: true when a combination that reaches it has been taken, so that nothing in the box is better. */
  settled?: (score: number) => boolean
  /** Shared over several searches; the search stops when it is used up. */
  budget: { nodes: number; readonly max: number }
}

/** Boxes between two reports. */
const NODES_PER_REPORT = 512

/**
 * Depth-first branch and bound over boxes of index ranges, the better half first. A box is a range of thicknesses at every location;
 * its bound is the best score that any combination in it could reach.
 * Complete: every combination is either visited, or lies in a box that was dropped or settled, unless the budget ran out.
 *
 * A generator, so that a worker can report and be stopped between the yields.
 * @returns false when the budget ran out
 */
export function* searchBoxes(search: BoxSearch): Generator<SearchProgress, boolean> {
  const { sizes, budget, leaf } = search
  const L = sizes.length
  if (sizes.some((n) => n === 0)) return true
  const index = new Int32Array(L)
  const boxes: Int32Array[] = []
  const scores: number[] = []
  const dropped = (score: number) => {
    const floor = search.floor()
    return search.keepTies ? score < floor : score <= floor
  }
  /** Scores a box as it is made; one that is settled there and then need not be kept. */
  const weigh = (box: Int32Array) => {
    const score = search.score(box)
    return !dropped(score) && search.settled?.(score) ? -Infinity : score
  }
  const put = (box: Int32Array, score: number) => {
    if (score === -Infinity || dropped(score)) return
    boxes.push(box)
    scores.push(score)
  }

  const whole = new Int32Array(2 * L)
  for (let l = 0; l < L; l++) whole[2 * l + 1] = sizes[l]! - 1
  put(whole, weigh(whole))
  while (boxes.length) {
    const box = boxes.pop()!
    const score = scores.pop()!
    if (dropped(score)) continue
    if (++budget.nodes > budget.max) return false
    if (budget.nodes % NODES_PER_REPORT === 0)
      yield { nodes: budget.nodes, bound: scores.reduce((a, b) => Math.max(a, b), score) }

    const cut = search.cut(box)
    if (cut < 0) {
      for (let l = 0; l < L; l++) index[l] = box[2 * l]!
      leaf(index, score)
      continue
    }
    const middle = (box[2 * cut]! + box[2 * cut + 1]!) >> 1
    const left = box.slice()
    const right = box
    left[2 * cut + 1] = middle
    right[2 * cut] = middle + 1
    const leftScore = weigh(left)
    const rightScore = weigh(right)
    // the better one is put last and taken first
    if (leftScore >= rightScore) {
      put(right, rightScore)
      put(left, leftScore)
    } else {
      put(left, leftScore)
      put(right, rightScore)
    }
  }
  return true
}
