import { meshGeometry, type Mesh } from '../gears/mesh.ts'
import { refuse } from '../checks/input-error.ts'
import { solveSymmetric } from '../numbers/linear.ts'

/** A point of a picture, in pixels or any even measure of it. */
export type PicturePoint = [x: number, y: number]

/** Corners of the flank in the order in which they are tapped: round it, beginning at the root of the toe. */
export const FLANK_CORNERS = [
  'root at the toe',
  'root at the heel',
  'top at the heel',
  'top at the toe',
] as const

/** Height of a tooth at the toe over that at the heel: a bevel tooth is in proportion to its cone distance. */
export function toeShareOf(mesh: Mesh): number {
  const { innerConeDistanceMm, outerConeDistanceMm } = meshGeometry(mesh)
  return innerConeDistanceMm / outerConeDistanceMm
}

/** A picture squared up by the four corners of the flank in it. */
export interface SquaredUp {
  /** Where on the flank a point of the picture lies: [along −1…1, up −1…1]; beyond the edges it lies off the flank. */
  toFlank: (p: PicturePoint) => [along: number, up: number]
  /** Where in the picture a point of the flank lies. */
  toPicture: (p: [along: number, up: number]) => PicturePoint
}

/**
 * Squares up a picture of a flank by its four corners. A camera maps a plane by a homography (Hartley & Zisserman, Multiple View Geometry, 2004, 2.3), which
 * four points fix: eight equations, solved through their normal equations on points brought to the unit square (Hartley's normalization). The flank lies
 * in its plane as a trapezoid, since a bevel tooth is lower at the toe; along and up are counted in shares of it.
 * @param corners in the order of {@link FLANK_CORNERS}
 * @param toeShare height of the tooth at the toe over that at the heel, 0 to 1
 * @throws InputError on fewer than four corners, or corners that do not go round a flank
 */
export function squareUp(corners: readonly PicturePoint[], toeShare: number): SquaredUp {
  if (corners.length !== 4)
    refuse('corners', `holds ${corners.length}; tap all four: ${FLANK_CORNERS.join(', ')}`)
  if (!(toeShare > 0 && toeShare <= 1)) refuse('toeShare', `is ${toeShare}; above 0, at most 1`)
  corners.forEach((c, i) => c.forEach((v) => Number.isFinite(v) || refuse(`corners[${i}]`, 'is no point')))
  if (!goesRound(corners))
    refuse('corners', `cross, or lie in one line; tap them in turn: ${FLANK_CORNERS.join(', ')}`)
  const flank: PicturePoint[] = [
    [-1, -toeShare],
    [1, -1],
    [1, 1],
    [-1, toeShare],
  ]
  const heightAt = (along: number) => toeShare + ((1 - toeShare) * (along + 1)) / 2
  const [there, back] = [homography(corners, flank), homography(flank, corners)]
  return {
    toFlank: (p) => {
      const [along, y] = there(p)
      return [along, y / heightAt(along)]
    },
    toPicture: ([along, up]) => back([along, up * heightAt(along)]),
  }
}

/** Four points that go round: all turns to the same side, none of them straight. */
function goesRound(points: readonly PicturePoint[]): boolean {
  const turns = points.map(([x, y], i) => {
    const [bx, by] = points[(i + 1) % 4]!
    const [cx, cy] = points[(i + 2) % 4]!
    const [a, b] = [Math.hypot(bx - x, by - y), Math.hypot(cx - bx, cy - by)]
    return a && b ? ((bx - x) * (cy - by) - (by - y) * (cx - bx)) / (a * b) : 0
  })
  /** Sine of the flattest corner that still is one. */
  const LEAST = 0.05
  return turns.every((t) => t > LEAST) || turns.every((t) => t < -LEAST)
}

/** The projective map that takes four points to four others. */
function homography(
  from: readonly PicturePoint[],
  to: readonly PicturePoint[],
): (p: PicturePoint) => PicturePoint {
  // both brought near the unit square, so that squares of pixels do not drown the rest
  const [a, b] = [unitOf(from), unitOf(to)]
  const rows: number[][] = []
  const right: number[] = []
  from.forEach((p, i) => {
    const [x, y] = a.into(p)
    const [u, v] = b.into(to[i]!)
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y])
    right.push(u, v)
  })
  const normal = Array.from({ length: 8 }, (_, r) =>
    Array.from({ length: 8 }, (_, c) => rows.reduce((sum, row) => sum + row[r]! * row[c]!, 0)),
  )
  const side = Array.from({ length: 8 }, (_, r) => rows.reduce((sum, row, i) => sum + row[r]! * right[i]!, 0))
  const h = solveSymmetric(normal, side)
  if (!h) return refuse('corners', 'lie too close to one line; take the picture square to the flank')
  return (p) => {
    const [x, y] = a.into(p)
    const w = h[6]! * x + h[7]! * y + 1
    return b.outOf([(h[0]! * x + h[1]! * y + h[2]!) / w, (h[3]! * x + h[4]! * y + h[5]!) / w])
  }
}

/** Shift and scale that bring points about zero, of a size of one. */
function unitOf(points: readonly PicturePoint[]) {
  const mean = (i: 0 | 1) => points.reduce((s, p) => s + p[i], 0) / points.length
  const [mx, my] = [mean(0), mean(1)]
  const size = Math.max(...points.map(([x, y]) => Math.hypot(x - mx, y - my)))
  return {
    into: ([x, y]: PicturePoint): PicturePoint => [(x - mx) / size, (y - my) / size],
    outOf: ([x, y]: PicturePoint): PicturePoint => [x * size + mx, y * size + my],
  }
}
