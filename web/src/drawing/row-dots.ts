import type { Point } from './section.ts'

/** A row that is to be shown at its place on a drawing. */
export interface WantedDot {
  id: string
  /** Where it is, on the screen; left out where nobody knows. */
  at?: Point
}
export interface Dot {
  id: string
  at: Point
  /** It has a place on the drive. */
  placed: boolean
}

/** From one dot to the next. */
const STEP = 15
/** Room for one dot at the edge of the frame. */
const EDGE = 9

/**
 * A spot for every row: as near to its place as there is room, so that no two lie on one another and all lie within the frame; rows without a place stand in
 * lines at the lower edge.
 * @param taken spots that stay free: figures that stand on the drawing
 */
export function placeDots(
  wanted: readonly WantedDot[],
  frame: { width: number; height: number },
  taken: readonly Point[] = [],
): Dot[] {
  const used: Point[] = [...taken]
  const free = ([x, y]: Point) =>
    x >= EDGE &&
    y >= EDGE &&
    x <= frame.width - EDGE &&
    y <= frame.height - EDGE &&
    used.every(([a, b]) => Math.hypot(a - x, b - y) >= STEP - 0.01)
  const put = (candidates: Iterable<Point>): Point | undefined => {
    for (const p of candidates)
      if (free(p)) {
        used.push(p)
        return p
      }
    return undefined
  }
  // what has a place is put first: what has none goes round it
  const ordered = [...wanted.filter((w) => w.at), ...wanted.filter((w) => !w.at)]
  return ordered.flatMap(({ id, at }): Dot[] => {
    const spot = put(at ? around(at, frame) : alongEdge(frame))
    return spot ? [{ id, at: spot, placed: at !== undefined }] : []
  })
}

/** Rings around a point, the nearest first. */
function* around([x, y]: Point, { width, height }: { width: number; height: number }): Generator<Point> {
  yield [x, y]
  const most = Math.ceil(Math.hypot(width, height) / STEP)
  for (let ring = 1; ring <= most; ring++) {
    const count = 6 * ring
    for (let i = 0; i < count; i++) {
      const angle = (i / count) * 2 * Math.PI + ring * 0.4
      yield [x + ring * STEP * Math.cos(angle), y + ring * STEP * Math.sin(angle)]
    }
  }
}

/** Lines at the lower edge, from the left. */
function* alongEdge({ width, height }: { width: number; height: number }): Generator<Point> {
  for (let y = height - EDGE; y >= EDGE; y -= STEP)
    for (let x = EDGE; x <= width - EDGE; x += STEP) yield [x, y]
}
