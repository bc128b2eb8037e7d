import { refuse } from '../checks/input-error.ts'
import type { PatchPlace } from './patch-place.ts'

/** Closed line round a patch, [ξ, η] from toe −1 to heel +1 and from root −1 to top +1. */
export type Outline = [along: number, up: number][]

/** A hand slips over the edge of the flank by this much; what lies there counts as the edge. */
const OVER_EDGE = 0.1
const MOST_POINTS = 60
/** Less of the flank than this is a dot, not a patch; the whole of it is 4. */
const LEAST_AREA = 0.01

/**
 * The line that was drawn, brought onto the flank.
 * @param flat ξ and η of the points in turn
 * @throws InputError on half a point, too few or too many, points off the flank, or a line round nothing
 */
export function outlineFrom(flat: readonly number[], path = 'outline'): Outline {
  if (flat.length % 2) refuse(path, `holds ${flat.length} numbers; every point has two, along and up`)
  const n = flat.length / 2
  if (n < 3 || n > MOST_POINTS) refuse(path, `holds ${n} points; 3 to ${MOST_POINTS} go round a patch`)
  const onto = (v: number, i: number) => {
    if (!Number.isFinite(v) || Math.abs(v) > 1 + OVER_EDGE)
      refuse(`${path}[${i}]`, `is ${v}; the flank goes from −1 to 1`)
    return Math.max(-1, Math.min(1, v))
  }
  const outline = Array.from({ length: n }, (_, i): [number, number] => [
    onto(flat[2 * i]!, 2 * i),
    onto(flat[2 * i + 1]!, 2 * i + 1),
  ])
  if (Math.abs(area(outline)) < LEAST_AREA) refuse(path, 'goes round no area; draw it round the whole patch')
  return outline
}

/** Signed area of a closed line (Gauss's area formula), in units of the flank: the whole of it has 4. */
function area(outline: Outline): number {
  return outline.reduce((sum, [x, y], i) => {
    const [nx, ny] = outline[(i + 1) % outline.length]!
    return sum + (x * ny - nx * y) / 2
  }, 0)
}

/** Centroid and extents of what a line goes round: what the pattern is read back from. */
export function placeOf(outline: Outline): PatchPlace {
  const whole = area(outline)
  let [length, profile] = [0, 0]
  outline.forEach(([x, y], i) => {
    const [nx, ny] = outline[(i + 1) % outline.length]!
    const cross = x * ny - nx * y
    length += ((x + nx) * cross) / (6 * whole)
    profile += ((y + ny) * cross) / (6 * whole)
  })
  const along = outline.map(([x]) => x)
  const up = outline.map(([, y]) => y)
  return {
    length,
    profile,
    extents: {
      lengthMin: Math.min(...along),
      lengthMax: Math.max(...along),
      profileMin: Math.min(...up),
      profileMax: Math.max(...up),
    },
  }
}
