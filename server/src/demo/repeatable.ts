/** Numbers in [0, 1) that are the same everywhere; small and plain (a linear congruence, Knuth 1981, 3.3.4). */
export function repeatable(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 4294967296
  }
}
