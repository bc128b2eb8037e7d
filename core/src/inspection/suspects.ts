import type { Part } from '../drives/parts.ts'
import type { FaultRank } from './fault-rank.ts'

/** Below this a cause is not worth pointing at a part for. */
const WORTH = 0.15

/**
 * Parts that the likeliest causes point at, each with the cause: what was found on receiving is looked at first on the bench.
 * @param parts say themselves which causes point at them
 * @returns part id → label of the likeliest cause that points at it
 */
export function suspects(parts: readonly Part[], causes: FaultRank['causes']): Map<string, string> {
  const found = new Map<string, string>()
  for (const c of causes) {
    if (c.probability < WORTH) continue
    for (const p of parts) if (!found.has(p.id) && p.pointedAtBy?.includes(c.id)) found.set(p.id, c.label)
  }
  return found
}
