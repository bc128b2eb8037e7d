import type { Part } from '../drives/parts.ts'
import type { FaultRank } from './fault-rank.ts'

/** Which parts a cause points at: by kind, and by what their names hold. */
const POINTS_AT: Record<string, { kinds: Part['kind'][]; name?: RegExp }> = {
  'propshaft-seal': { kinds: ['seal', 'shaft'], name: /propeller|prop|output|tube|inner|rear/i },
  'shift-seal': { kinds: ['seal', 'shift'], name: /shift/i },
  'driveshaft-seal': { kinds: ['seal', 'pump'], name: /drive|vertical|pump|input|base/i },
  'carrier-o-ring': { kinds: ['ring', 'cup'], name: /carrier|cover|cap/i },
  'screw-gasket': { kinds: ['ring'], name: /drain|vent|fill/i },
  'housing-crack': { kinds: ['housing'], name: /housing|case/i },
  'clutch-slip': { kinds: ['clutch', 'key'], name: /cone/i },
  'dog-rounded': { kinds: ['clutch', 'gear'], name: /dog|forward|reverse/i },
  'shift-adjustment': { kinds: ['shift'] },
  'shift-cam': { kinds: ['shift'], name: /cam|fork/i },
  'shaft-bent': { kinds: ['shaft'] },
  'carrier-bearing': { kinds: ['bearing', 'needle'], name: /carrier|needle|tube|rear/i },
  'contact-off': { kinds: ['gear', 'shim'] },
  'preload-lost': { kinds: ['bearing', 'nut'] },
  'shaft-sheared': { kinds: ['shaft', 'gear'] },
  'water-tube': { kinds: ['pump', 'key'], name: /pump|impeller/i },
  'dry-splines': { kinds: ['hub', 'shaft'] },
}

/** Below this a cause is not worth pointing at a part for. */
const WORTH = 0.15

/**
 * Parts that the likeliest causes point at, each with the cause: what was found on receiving is looked at first on the bench.
 * @returns part id → label of the likeliest cause that points at it
 */
export function suspects(parts: readonly Part[], causes: FaultRank['causes']): Map<string, string> {
  const found = new Map<string, string>()
  for (const c of causes) {
    const points = POINTS_AT[c.id]
    if (!points || c.probability < WORTH) continue
    for (const p of parts)
      if (!found.has(p.id) && points.kinds.includes(p.kind) && (points.name?.test(p.name) ?? true))
        found.set(p.id, c.label)
  }
  return found
}
