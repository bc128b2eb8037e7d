import type { Point } from './section.ts'

export interface Tag {
  id: string
  at: Point
  out: Point
  width: number
  height: number
}

export interface PlacedTag {
  id: string
  /** Upper left corner. */
  x: number
  y: number
}

/**
 * Puts number tags beside their places without one covering another: each starts a little outside its place,
 * then overlapping pairs are pushed apart, and all are kept on the sheet. Screen pixels.
 * Deterministic; at most 80 rounds.
 */
export function placeTags(tags: Tag[], sheet: { width: number; height: number }): PlacedTag[] {
  const GAP = 6
  const REACH = 30
  const placed = tags.map((t) => ({
    id: t.id,
    width: t.width,
    height: t.height,
    x: t.at[0] + t.out[0] * REACH + (t.out[0] > 0.2 ? 0 : t.out[0] < -0.2 ? -t.width : -t.width / 2),
    y: t.at[1] + t.out[1] * REACH + (t.out[1] > 0.5 ? 0 : t.out[1] < -0.5 ? -t.height : -t.height / 2),
  }))
  const keepOn = (p: (typeof placed)[number]) => {
    p.x = Math.max(0, Math.min(sheet.width - p.width, p.x))
    p.y = Math.max(0, Math.min(sheet.height - p.height, p.y))
  }
  placed.forEach(keepOn)
  for (let round = 0; round < 80; round++) {
    let moved = false
    for (let i = 0; i < placed.length; i++)
      for (let k = i + 1; k < placed.length; k++) {
        const [a, b] = [placed[i]!, placed[k]!]
        const overlapX = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x) + GAP
        const overlapY = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y) + GAP
        if (overlapX <= 0 || overlapY <= 0) continue
        moved = true
        if (overlapY <= overlapX) {
          const push = (a.y + a.height / 2 <= b.y + b.height / 2 ? -1 : 1) * (overlapY / 2)
          a.y += push
          b.y -= push
        } else {
          const push = (a.x + a.width / 2 <= b.x + b.width / 2 ? -1 : 1) * (overlapX / 2)
          a.x += push
          b.x -= push
        }
        keepOn(a)
        keepOn(b)
      }
    if (!moved) break
  }
  return placed.map(({ id, x, y }) => ({ id, x, y }))
}
