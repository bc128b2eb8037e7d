import { meshGeometry } from '../../gears/mesh.ts'
import type { Axis, Family, Gear, GearMesh } from '../sheet.ts'
import type { SheetBody } from './body.ts'

/**
 * Where things lie along the shafts of a drive whose sheet does not say: nobody measures the place of a bearing for a drawing. From the
 * gear outward in their order, each as wide as it is drawn; a shaft reaches as far as what sits on it.
 */
export interface Places {
  axes: Axis[]
  /** Along its axis from the apex, mm, by `adjuster:id`, `bearing:id`, `seal:id`. */
  at: Map<string, number>
}

/** Families at whose end a propeller turns. */
export const WITH_PROPELLER: ReadonlySet<Family> = new Set<Family>([
  'outboard-fnr',
  'stern-lower-fnr',
  'stern-lower-twin',
  'outboard-straight',
  'belt-lower',
])

type Side = 1 | -1
type Row = { key: string; axis: string; side: Side; order: number; width: number; atMm: number | undefined }

const WIDTH = { adjuster: 16, ball: 20, taper: 20, thrust: 14, needle: 30, seal: 12 }
const GAP = 4
/** How far a shaft goes on beyond the last thing on it: its nut and spline, or the propeller. */
const BEYOND = { plain: 14, propeller: 74, input: 34 }
/** Usual radius of a shaft against the pitch radius of the pinion on it. */
const SHAFT_PER_PINION = 0.38

export function placesOf(body: SheetBody, meshes: readonly GearMesh[]): Places {
  const axisOf = (id: string) => body.axes.find((a) => a.id === id)!
  /** Shafts that run inside one another share a line. */
  const lineOf = (id: string) => {
    const a = axisOf(id)
    return `${a.line} ${a.offsetMm ?? 0}`
  }
  const gearOn = (line: string, side: Side) =>
    body.gears.find((g) => lineOf(g.axis) === line && g.side === side)
  const extent = (g: Gear | SheetBody['gears'][number]) => {
    const m = meshes.find((x) => x.pinion === g.id || x.gear === g.id)
    if (!m) return { back: 30, nose: 15, radius: 25 }
    const geometry = meshGeometry(m.mesh)
    const pinion = m.pinion === g.id
    const delta = ((pinion ? geometry.pinionPitchAngleDeg : geometry.gearPitchAngleDeg) * Math.PI) / 180
    const module = m.mesh.moduleMm
    return {
      back: geometry.outerConeDistanceMm * Math.cos(delta) + 4 * module,
      nose: geometry.innerConeDistanceMm * Math.cos(delta),
      radius: pinion ? geometry.pinionPitchRadiusMm : geometry.gearPitchRadiusMm,
    }
  }
  const pinions = body.gears.filter((g) => meshes.some((m) => m.pinion === g.id))
  const radius = Math.min(
    16,
    Math.max(5, SHAFT_PER_PINION * Math.min(...pinions.map((g) => extent(g).radius), 27)),
  )
  const radiusOf = (id: string): number => {
    const a = axisOf(id)
    if (a.radiusMm !== undefined) return a.radiusMm
    const inside = body.axes.find((x) => x.insideOf === id)
    return inside ? radiusOf(inside.id) + 8 : radius
  }
  const sideOf = (row: { side?: Side; moves?: string; axis: string; atMm?: number }): Side => {
    if (row.atMm !== undefined) return row.atMm < 0 ? -1 : 1
    if (row.side !== undefined) return row.side
    const moved = body.gears.find((g) => g.id === row.moves)
    return moved?.side ?? body.gears.find((g) => g.axis === row.axis)?.side ?? 1
  }
  const rows: Row[] = [
    ...body.adjusters.map((a, i) => ({ ...a, key: `adjuster:${a.id}`, width: WIDTH.adjuster, kind: 0, i })),
    ...body.bearings.map((b, i) => ({ ...b, key: `bearing:${b.id}`, width: WIDTH[b.kind], kind: 10, i })),
    ...body.seals.map((s, i) => ({ ...s, key: `seal:${s.id}`, width: WIDTH.seal, kind: 20, i })),
  ].map((r) => ({
    key: r.key,
    axis: r.axis,
    side: sideOf(r),
    order: r.order ?? r.kind + r.i / 100,
    width: r.width,
    atMm: r.atMm,
  }))
  const at = new Map<string, number>()
  const ends = new Map<string, number>()
  for (const line of new Set(body.axes.map((a) => lineOf(a.id))))
    for (const side of [1, -1] as const) {
      const gear = gearOn(line, side)
      // without a gear of its own on this side, a line begins beside the gears that cross it
      const crossing = body.gears.filter((g) => lineOf(g.axis) !== line).map((g) => extent(g).radius)
      let cursor = gear ? extent(gear).back + GAP : Math.max(12, ...crossing) + GAP
      for (const r of rows
        .filter((x) => lineOf(x.axis) === line && x.side === side)
        .sort((a, b) => a.order - b.order)) {
        const middle = r.atMm === undefined ? side * (cursor + r.width / 2) : r.atMm
        at.set(r.key, middle)
        cursor = Math.max(cursor, side * middle + r.width / 2 + GAP)
        ends.set(`${r.axis} ${side}`, cursor)
      }
    }
  const axes = body.axes.map((a): Axis => {
    const gears = body.gears.filter((g) => g.axis === a.id)
    const end = (side: Side) => {
      const last = ends.get(`${a.id} ${side}`)
      const gear = gears.find((g) => g.side === side)
      if (last === undefined && !gear) return undefined
      return Math.max(last ?? 0, gear ? extent(gear).back + 6 : 0)
    }
    // a shaft whose gear stands on one side only ends before the apex
    const nose = (side: Side) => {
      const gear = gears.find((g) => g.side === side)
      return gear ? extent(gear).nose * 0.92 : 20
    }
    const out = a.line === 'horizontal' ? beyond(body, a.id) : BEYOND.input
    const [plus, minus] = [end(1), end(-1)]
    return {
      ...a,
      radiusMm: radiusOf(a.id),
      fromMm:
        a.fromMm ?? (minus === undefined ? nose(1) : -(minus + (plus === undefined ? out : BEYOND.plain))),
      toMm: a.toMm ?? (plus === undefined ? -nose(-1) : plus + out),
    }
  })
  return { axes, at }
}

/** The shaft that carries a propeller goes on beyond its seals; an inner one beyond the tube around it. */
function beyond(body: SheetBody, axis: string): number {
  const turns = WITH_PROPELLER.has(body.family) ? BEYOND.propeller : BEYOND.input
  return body.axes.some((a) => a.insideOf === axis) ? BEYOND.plain : turns
}
