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
 * lines at the lower edge. Where there is no room left, the rest is left out.
 */
export function placeDots(wanted: readonly WantedDot[], frame: { width: number; height: number }): Dot[] {
  const used = new Map<string, Point[]>()
  const cell = (v: number) => Math.floor(v / STEP)
  const near = ([x, y]: Point) =>
    [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((k) => used.get(`${cell(x) + i} ${cell(y) + k}`) ?? []))
  const free = (p: Point) =>
    p[0] >= EDGE &&
    p[1] >= EDGE &&
    p[0] <= frame.width - EDGE &&
    p[1] <= frame.height - EDGE &&
    near(p).every(([a, b]) => Math.hypot(a - p[0], b - p[1]) >= STEP - 0.01)
  const put = (candidates: Iterable<Point>): Point | undefined => {
    for (const p of candidates)
      if (free(p)) {
        const key = `${cell(p[0])} ${cell(p[1])}`
        used.set(key, [...(used.get(key) ?? []), p])
        return p
      }
    return undefined
  }
  // what has a place is put first: what has none goes round it
  const ordered = [...wanted.filter((w) => w.at), ...wanted.filter((w) => !w.at)]
  return ordered.flatMap(({ id, at }): Dot[] => {
    const spot = (at && put(around(at))) ?? put(alongEdge(frame))
    return spot ? [{ id, at: spot, placed: at !== undefined }] : []
  })
}

/** As many rings are looked through round a place. */
const RINGS = 20

/** Rings around a point, the nearest first. */
function* around([x, y]: Point): Generator<Point> {
  yield [x, y]
  for (let ring = 1; ring <= RINGS; ring++) {
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
