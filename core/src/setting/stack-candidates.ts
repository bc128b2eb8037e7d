import { THICKNESS_SLACK_MM, type StockLine } from './shim-problem.ts'

/** Stacks whose thicknesses agree to this many mm are one class: no gauge, and no P, tells them apart. */
const CLASS_STEP_MM = 1e-7
/** Stacks kept for one location, and for all of one search; beyond this the search says that it is not exact. */
const MOST_STACKS = 1_000_000
const MOST_STACKS_TOGETHER = 4_000_000
/** Places of one carrier. */
const MOST_STEPS = 100_000
/** Pieces that are tried for as much work as one box of the search takes. */
const TRIES_PER_NODE = 32
/** Pieces that are tried between two pauses. */
const TRIES_PER_PAUSE = 65_536

/** What a search may spend: boxes looked at (tried pieces count a fraction of one), and stacks kept. */
export interface SearchBudget {
  nodes: number
  max: number
  /** Stacks kept so far, over all lists. @default 0 */
  stacks?: number
}

/**
 * Every stack that one location can take, as classes of equal thickness in rising order. Class c holds the
 * stacks start[c] … start[c + 1] − 1, sorted by number of pieces, then by piece ids. Stack s has `pieces[s]`
 * pieces, their line indices (rising) at members[s * stride …].
 */
export interface StackCandidates {
  thickness: Float64Array
  start: Int32Array
  pieces: Uint8Array
  members: Int16Array
  stride: number
  /** False when there were too many to keep. */
  complete: boolean
}

/**
 * Enumerates the multisets of at most `maxPieces` pieces with a thickness in [lo, hi] mm, each line's stock
 * respected. At most one piece of a stack is peeled or ground: one alone can take any thickness within its steps, and
 * every further one would be spoilt for nothing. A branch is cut as soon as the remaining pieces cannot bring the sum into the interval.
 * Every piece that is tried counts, so that a drawer in which nearly nothing fits ends too; pauses while it works.
 * @param lines sorted by id, so that all thicknesses of one stock stand together; stock above 0
 */
export function* stackCandidateSteps(
  lines: readonly StockLine[],
  maxPieces: number,
  lo: number,
  hi: number,
  budget: SearchBudget = { nodes: 0, max: Infinity },
): Generator<void, StackCandidates> {
  const n = lines.length
  const from = lo - THICKNESS_SLACK_MM
  const to = hi + THICKNESS_SLACK_MM
  const t = Float64Array.from(lines, (p) => p.thicknessMm)
  // thinnest and thickest line from index i on
  const thinnest = new Float64Array(n + 1).fill(Infinity)
  const thickest = new Float64Array(n + 1).fill(-Infinity)
  for (let i = n - 1; i >= 0; i--) {
    thinnest[i] = Math.min(thinnest[i + 1]!, t[i]!)
    thickest[i] = Math.max(thickest[i + 1]!, t[i]!)
  }

  const stride = Math.max(1, maxPieces)
  const sums: number[] = []
  const counts: number[] = []
  const rows: number[] = []
  const chosen = new Int16Array(stride)
  let complete = true

  const thinnedAmong = (depth: number) => {
    for (let d = 0; d < depth; d++) if (lines[chosen[d]!]!.thinned) return true
    return false
  }
  const keep = (size: number, sum: number) => {
    if (sum < from || sum > to) return
    if (sums.length >= MOST_STACKS || (budget.stacks ?? 0) >= MOST_STACKS_TOGETHER) {
      complete = false
      return
    }
    budget.stacks = (budget.stacks ?? 0) + 1
    sums.push(sum)
    counts.push(size)
    for (let i = 0; i < stride; i++) rows.push(i < size ? chosen[i]! : -1)
  }
  /** Whether line i may be the next piece, at `depth`: not a second one cut down, and not more than there are. */
  const allowed = (i: number, depth: number) => {
    const line = lines[i]!
    if (line.thinned && thinnedAmong(depth)) return false
    let used = 0
    for (let d = depth - 1; d >= 0 && lines[chosen[d]!]!.stock === line.stock; d--) used++
    return used < line.count
  }

  keep(0, 0)
  // the pieces of one size, by depth first: next[d] is the line to try at depth d, sum[d] what lies below it
  const next = new Int32Array(stride + 1)
  const sum = new Float64Array(stride + 1)
  let tries = 0
  for (let size = 1; size <= maxPieces && complete; size++) {
    let depth = 0
    next[0] = 0
    while (depth >= 0 && complete) {
      if (++tries % TRIES_PER_NODE === 0 && ++budget.nodes > budget.max) complete = false
      if (tries % TRIES_PER_PAUSE === 0) yield
      const i = next[depth]!++
      const left = size - depth
      const below = sum[depth]!
      if (i >= n || below + left * thickest[i]! < from || below + left * thinnest[i]! > to) {
        depth--
        continue
      }
      const total = below + t[i]!
      if (total > to || !allowed(i, depth)) continue
      chosen[depth] = i
      if (left === 1) {
        keep(size, total)
        continue
      }
      depth++
      next[depth] = i
      sum[depth] = total
    }
  }
  return classify(sums, counts, rows, stride, complete)
}

/** Sorts by thickness class; within a class the order of enumeration (pieces, then ids) is kept. */
function classify(
  sums: number[],
  counts: number[],
  rows: number[],
  stride: number,
  complete: boolean,
): StackCandidates {
  const n = sums.length
  const room = 2 ** Math.ceil(Math.log2(Math.max(2, n)))
  const keys = new Float64Array(n)
  for (let i = 0; i < n; i++) keys[i] = Math.round(sums[i]! / CLASS_STEP_MM) * room + i
  keys.sort()
  const pieces = new Uint8Array(n)
  const members = new Int16Array(n * stride)
  const thickness: number[] = []
  const start: number[] = []
  let last = NaN
  for (let k = 0; k < n; k++) {
    const bucket = Math.floor(keys[k]! / room)
    const i = keys[k]! - bucket * room
    if (bucket !== last) {
      thickness.push(sums[i]!)
      start.push(k)
      last = bucket
    }
    pieces[k] = counts[i]!
    for (let m = 0; m < stride; m++) members[k * stride + m] = rows[i * stride + m]!
  }
  start.push(n)
  return {
    thickness: Float64Array.from(thickness),
    start: Int32Array.from(start),
    pieces,
    members,
    stride,
    complete,
  }
}

/**
 * Where a carrier can stand between lo and hi: whole steps from where it stands now. No pieces.
 * @param stepMm way of the carrier from one place where it can be locked to the next
 */
export function steppedCandidates(
  currentMm: number,
  stepMm: number,
  lo: number,
  hi: number,
): StackCandidates {
  const first = Math.ceil((lo - currentMm - THICKNESS_SLACK_MM) / stepMm)
  const last = Math.floor((hi - currentMm + THICKNESS_SLACK_MM) / stepMm)
  const n = Math.min(Math.max(0, last - first + 1), MOST_STEPS)
  return {
    thickness: Float64Array.from({ length: n }, (_, i) => currentMm + (first + i) * stepMm),
    start: Int32Array.from({ length: n + 1 }, (_, i) => i),
    pieces: new Uint8Array(n),
    members: new Int16Array(n).fill(-1),
    stride: 1,
    complete: last - first + 1 <= MOST_STEPS,
  }
}

/** The one "candidate" of a location that is left as it is: its present thickness, and no pieces. */
export function fixedCandidate(currentMm: number): StackCandidates {
  return {
    thickness: Float64Array.of(currentMm),
    start: Int32Array.of(0, 1),
    pieces: Uint8Array.of(0),
    members: Int16Array.of(-1),
    stride: 1,
    complete: true,
  }
}

/** The classes that hold at least one stack of exactly `pieces` pieces, rising in thickness. */
export function classesWithPieces(c: StackCandidates, pieces: number): Int32Array {
  const found: number[] = []
  for (let k = 0; k < c.thickness.length; k++) if (firstWithPieces(c, k, pieces) >= 0) found.push(k)
  return Int32Array.from(found)
}

/** Index of the first stack of class k with exactly `pieces` pieces, or −1. */
export function firstWithPieces(c: StackCandidates, k: number, pieces: number): number {
  for (let s = c.start[k]!; s < c.start[k + 1]!; s++) {
    if (c.pieces[s] === pieces) return s
    if (c.pieces[s]! > pieces) return -1
  }
  return -1
}
