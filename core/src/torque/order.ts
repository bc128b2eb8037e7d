import { refuse } from '../checks/input-error.ts'
import { finite, whole } from '../checks/numbers.ts'

export interface TorqueOrderInput {
  /** Fasteners on a circle, evenly spaced (give this or positions). */
  count?: number
  positions?: { x: number; y: number }[]
  /** Fractions of the final torque, rising, the last one 1. */
  stages: number[]
}

export interface TorqueOrder {
  /** Indices from 0. */
  order: number[]
  passes: { fraction: number; order: number[] }[]
}

/**
 * Order of tightening. On a circle a star: next comes the one whose nearest finished neighbour is farthest; ties go
 * to the one farthest from the last, then to the lowest number. On any other flange: nearest the centre first,
 * then outward in alternation along its long axis. Every stage goes in the same order.
 * @throws InputError unless exactly one of count and positions is given, or on stages that do not rise to 1
 */
export function torqueOrder(input: TorqueOrderInput): TorqueOrder {
  const { count, positions, stages } = input
  if ((count === undefined) === (positions === undefined))
    refuse('count', 'give either a count or the positions, one of the two')
  if (!Array.isArray(stages) || stages.length === 0)
    refuse('stages', 'is empty; give at least the final stage, 1')
  stages.forEach((s, i) => {
    finite(`stages[${i}]`, s)
    if (s <= (stages[i - 1] ?? 0) || s > 1) refuse(`stages[${i}]`, `is ${s}; stages rise from above 0 to 1`)
  })
  if (stages.at(-1) !== 1) refuse(`stages[${stages.length - 1}]`, `is ${stages.at(-1)}; the last stage is 1`)
  const order = count !== undefined ? starByCount(whole('count', count, 1, 200)) : byPositions(positions!)
  return { order, passes: stages.map((fraction) => ({ fraction, order: [...order] })) }
}

/** Ties within this share of the pattern's size are ties: drawings are not exact to the last bit. */
const TIE = 1e-9

function starByCount(n: number): number[] {
  return star(n, (a, b) => {
    const apart = Math.abs(a - b)
    return Math.min(apart, n - apart)
  })
}

function star(n: number, distance: (a: number, b: number) => number, first = 0): number[] {
  const order = [first]
  const open = new Set(Array.from({ length: n }, (_, i) => i))
  open.delete(first)
  while (open.size) {
    const last = order.at(-1)!
    let best = -1
    let bestKey: [number, number] = [-1, -1]
    for (const i of open) {
      const key: [number, number] = [Math.min(...order.map((done) => distance(i, done))), distance(i, last)]
      const more = (k: 0 | 1) => key[k] > bestKey[k] + TIE
      const same = Math.abs(key[0] - bestKey[0]) <= TIE
      if (best < 0 || more(0) || (same && more(1))) {
        best = i
        bestKey = key
      }
    }
    order.push(best)
    open.delete(best)
  }
  return order
}

function byPositions(positions: { x: number; y: number }[]): number[] {
  const n = positions.length
  if (n < 1 || n > 200) refuse('positions', `holds ${n}; 1 to 200 are possible`)
  positions.forEach((p, i) => {
    finite(`positions[${i}].x`, p.x)
    finite(`positions[${i}].y`, p.y)
  })
  const centre = {
    x: positions.reduce((s, p) => s + p.x, 0) / n,
    y: positions.reduce((s, p) => s + p.y, 0) / n,
  }
  const points = positions.map((p) => ({ x: p.x - centre.x, y: p.y - centre.y }))
  const radii = points.map((p) => Math.hypot(p.x, p.y))
  const size = Math.max(...radii)
  if (size === 0 && n > 1) refuse('positions', 'all lie on one spot')
  const apart = (a: number, b: number) =>
    Math.hypot(points[a]!.x - points[b]!.x, points[a]!.y - points[b]!.y) / (size || 1)
  if (n < 3 || Math.min(...radii) > 0.95 * size) return star(n, apart)

  // long axis of the pattern: principal axis of the positions
  const [xx, yy, xy] = points.reduce(
    ([a, b, c], p) => [a + p.x * p.x, b + p.y * p.y, c + p.x * p.y],
    [0, 0, 0],
  )
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy)
  const along = points.map((p) => p.x * Math.cos(angle) + p.y * Math.sin(angle))
  const order: number[] = []
  const open = new Set(points.keys())
  while (open.size) {
    const last = order.at(-1)
    const nearest = Math.min(...[...open].map((i) => Math.abs(along[i]!)))
    // those about equally far out take turns from side to side
    const ring = [...open].filter((i) => Math.abs(along[i]!) <= nearest + 0.1 * size)
    const next = ring.reduce((a, b) => {
      if (last === undefined) return radii[b]! < radii[a]! - TIE * size ? b : a
      return apart(b, last) > apart(a, last) + TIE ? b : a
    })
    order.push(next)
    open.delete(next)
  }
  return order
}
