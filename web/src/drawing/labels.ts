import type { Point } from './section.ts'

export interface Tag {
  id: string
  at: Point
  /** Direction in which there is likely room. */
  out: Point
  width: number
  height: number
}

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

export interface PlacedTag extends Box {
  id: string
}

const GAP = 5
const STEPS = 24
const REACHES = [26, 40, 56, 74, 94, 118, 146, 178, 214]

const overlap = (a: Box, b: Box, gap: number) => {
  const w = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) + gap
  const h = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) + gap
  return w > 0 && h > 0 ? w * h : 0
}

/** The tag's box when it hangs on a leader that ends at `end` and comes from the direction (dx, dy). */
function hang(tag: Tag, end: Point, dx: number, dy: number): Box {
  return {
    x: end[0] - ((1 - dx) / 2) * tag.width,
    y: end[1] - ((1 - dy) / 2) * tag.height,
    width: tag.width,
    height: tag.height,
  }
}

/** Do the segments a–b and c–d cross? */
function crosses(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0
}

const centre = (b: Box): Point => [b.x + b.width / 2, b.y + b.height / 2]

/** Does the leader from a place to its tag run over another tag? Sampled; tags are far wider than the step. */
function runsOver(from: Point, tag: Box, other: Box): boolean {
  const to = centre(tag)
  for (let i = 0; i <= 12; i++) {
    const [x, y] = [from[0] + ((to[0] - from[0]) * i) / 12, from[1] + ((to[1] - from[1]) * i) / 12]
    if (x > other.x && x < other.x + other.width && y > other.y && y < other.y + other.height) return true
  }
  return false
}

/** Rounds in which every tag looks again for its best spot, the others staying where they are. */
const ROUNDS = 3

/**
 * Puts number tags beside their places: for each tag, from a fixed fan of directions and distances, the spot that
 * covers least of the drawing and of the other tags, crosses no leader, and stays near. Screen pixels.
 * Tags are placed one after the other; which goes first matters, so every tag is once the first and the
 * cheapest arrangement is kept. Deterministic.
 * @param obstacles boxes of what is drawn
 */
export function placeTags(
  tags: Tag[],
  sheet: { width: number; height: number },
  obstacles: Box[] = [],
): PlacedTag[] {
  const candidates = tags.map((t) => candidateSpots(t, sheet, obstacles))
  let best: { spots: Spot[]; cost: number } | undefined
  const indices = tags.map((_, i) => i)
  for (const first of indices)
    for (const rest of [indices, [...indices].reverse()]) {
      const order = [first, ...rest.filter((i) => i !== first)]
      const spots: (Spot | undefined)[] = tags.map(() => undefined)
      for (let round = 0; round < ROUNDS; round++)
        for (const i of order) {
          const others = tags.flatMap((t, k) =>
            k !== i && spots[k] ? [{ at: t.at, box: spots[k].box }] : [],
          )
          spots[i] = bestSpot(tags[i]!, candidates[i]!, others) ?? spotOnEdge(tags[i]!, sheet)
        }
      const cost = spots.reduce((sum, s) => sum + s!.cost, 0)
      if (!best || cost < best.cost) best = { spots: spots as Spot[], cost }
    }
  return tags.map((t, i) => ({ id: t.id, ...best!.spots[i]!.box }))
}

interface Spot {
  box: Box
  cost: number
}

/** Where a tag can hang, the cheapest first, with what the drawing alone makes of each place. */
function candidateSpots(
  tag: Tag,
  sheet: { width: number; height: number },
  obstacles: readonly Box[],
): Spot[] {
  const length = Math.hypot(tag.out[0], tag.out[1]) || 1
  const spots: Spot[] = []
  for (const reach of REACHES)
    for (let step = 0; step < STEPS; step++) {
      const angle = (2 * Math.PI * step) / STEPS
      const [dx, dy] = [Math.cos(angle), Math.sin(angle)]
      const box = hang(tag, [tag.at[0] + dx * reach, tag.at[1] + dy * reach], dx, dy)
      if (box.x < 0 || box.y < 0 || box.x + box.width > sheet.width || box.y + box.height > sheet.height)
        continue
      let cost = reach * 6 + (1 - (dx * tag.out[0] + dy * tag.out[1]) / length) * 120
      for (const o of obstacles) cost += overlap(box, o, 0) * 0.6
      spots.push({ box, cost })
    }
  return spots.sort((a, b) => a.cost - b.cost)
}

/** The best of the candidates beside the other tags. These only make a place dearer: once the next one alone costs more, the search is over. */
function bestSpot(
  tag: Tag,
  candidates: readonly Spot[],
  others: readonly { at: Point; box: Box }[],
): Spot | undefined {
  let best: Spot | undefined
  for (const { box, cost: alone } of candidates) {
    if (best && alone >= best.cost) break
    let cost = alone
    for (const p of others) {
      cost += overlap(box, p.box, GAP) * 40
      if (best && cost >= best.cost) break
      if (crosses(tag.at, centre(box), p.at, centre(p.box))) cost += 3000
      if (runsOver(tag.at, box, p.box) || runsOver(p.at, p.box, box)) cost += 3000
    }
    if (!best || cost < best.cost) best = { box, cost }
  }
  return best
}

/** A sheet too small for any spot: the tag stays on it as far as it goes. */
function spotOnEdge(tag: Tag, sheet: { width: number; height: number }): Spot {
  const y = Math.max(0, Math.min(sheet.height - tag.height, tag.at[1]))
  return { box: { x: 0, y, width: tag.width, height: tag.height }, cost: 1e6 }
}
