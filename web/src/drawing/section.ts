import { bearingMeasures, seatMeasures } from '@moray/core/setting/measures'
import type { Axis, Bearing, Belt, DriveSheet, Gear } from '@moray/core/drives/sheet'
import { gearTravel } from '@moray/core/setting/train'
import { meshGeometry, type Mesh } from '@moray/core/gears/mesh'

/**
 * The section of a drive, laid out from its gear graph. Drawing coordinates: mm, x aft, y down, the apex
 * (where the axes cross) at 0, 0. Shims and gear travel are drawn larger than they are; the factors are
 * written on the drawing.
 */
export const TRAVEL_FACTOR = 25
export const SHIM_FACTOR = 10

export type Point = readonly [number, number]

export interface Shape {
  kind:
    | 'shaft'
    | 'tube'
    | 'gear-body'
    | 'teeth'
    | 'ring'
    | 'roller'
    | 'ball'
    | 'plate'
    | 'lip'
    | 'belt'
    | 'case'
    | 'hull'
    | 'flange'
    | 'blade'
    | 'nut'
    | 'spline'
    | 'ghost'
  points: Point[]
  /** Circle radius for balls; points[0] is the centre. */
  radius?: number
  /** Which place of the drive the shape belongs to. */
  place?: string
}

export interface Place {
  /** `stack:pinion`, `measure:depth`, `bearing:…`, `seal:…` */
  id: string
  at: Point
  /** Direction in which a label best leaves the place. */
  out: Point
}

export interface Section {
  shapes: Shape[]
  centrelines: [Point, Point][]
  places: Place[]
  box: { x: number; y: number; width: number; height: number }
}

export interface SectionState {
  /** Present thickness of every stack; the sheet's start where left out. */
  stacks?: Record<string, number>
  /** Thicknesses that travel is counted from. */
  from?: Record<string, number>
}

/** Turns (along the axis, away from it) into drawing coordinates. */
export function onAxis(axis: Axis): (along: number, radial: number) => Point {
  const shift = axis.offsetMm ?? 0
  return axis.line === 'vertical' ? (a, r) => [shift + r, -a] : (a, r) => [a, -shift - r]
}

const mirrored = (place: (a: number, r: number) => Point, profile: [number, number][]): Point[][] =>
  [1, -1].map((side) => profile.map(([a, r]) => place(a, side * r)))

const box = (a0: number, a1: number, r0: number, r1: number): [number, number][] => [
  [a0, r0],
  [a1, r0],
  [a1, r1],
  [a0, r1],
]

/** Half profile of one bevel gear: tooth and body as (along, radial), along positive away from the apex. */
export function gearProfile(mesh: Mesh, member: 'pinion' | 'gear', boreRadius: number) {
  const g = meshGeometry(mesh)
  const delta = ((member === 'pinion' ? g.pinionPitchAngleDeg : g.gearPitchAngleDeg) * Math.PI) / 180
  const [c, s] = [Math.cos(delta), Math.sin(delta)]
  const m = mesh.moduleMm
  // a point at cone distance R, moved by h along the normal that points away from the own axis
  const at = (R: number, h: number): [number, number] => [R * c - h * s, R * s + h * c]
  const [inner, outer] = [g.innerConeDistanceMm, g.outerConeDistanceMm]
  const shrink = inner / outer
  const tip = 0.95 * m
  const root = -1.15 * m
  const web = -3 * m
  const teeth = [at(inner, tip * shrink), at(outer, tip), at(outer, root), at(inner, root * shrink)]
  const back = at(outer, web)
  const front = at(inner, web * shrink)
  const hub = Math.min(boreRadius + 2 * m, Math.max(boreRadius + m, back[1]))
  const hubBack = Math.max(back[0] + 1.6 * m, outer * c + 2.4 * m)
  const body: [number, number][] = [
    teeth[3]!,
    teeth[2]!,
    back,
    [hubBack, hub],
    [hubBack, boreRadius],
    [Math.min(front[0], hubBack - 2 * m), boreRadius],
    [front[0], Math.max(front[1], boreRadius)],
  ]
  return { teeth, body, hubBack, meshPoint: at((inner + outer) / 2, 0) }
}

export function layOut(sheet: DriveSheet, state: SectionState = {}): Section {
  const shapes: Shape[] = []
  const centrelines: [Point, Point][] = []
  const places: Place[] = []
  const axes = new Map(sheet.axes.map((a) => [a.id, a]))
  const stacks = Object.fromEntries(sheet.adjusters.map((a) => [a.id, state.stacks?.[a.id] ?? a.startMm]))
  const change = Object.fromEntries(
    sheet.adjusters.map((a) => [a.id, state.from ? stacks[a.id]! - (state.from[a.id] ?? stacks[a.id]!) : 0]),
  )
  const travel = gearTravel(sheet, change)

  for (const axis of sheet.axes) {
    const place = onAxis(axis)
    centrelines.push([place(axis.fromMm - 8, 0), place(axis.toMm + 8, 0)])
    const inside = sheet.axes.find((a) => a.insideOf === axis.id)
    if (inside) {
      for (const half of mirrored(place, box(axis.fromMm, axis.toMm, inside.radiusMm + 1.5, axis.radiusMm)))
        shapes.push({ kind: 'tube', points: half })
    } else
      shapes.push({
        kind: 'shaft',
        points: [
          place(axis.fromMm, -axis.radiusMm),
          place(axis.toMm, -axis.radiusMm),
          place(axis.toMm, axis.radiusMm),
          place(axis.fromMm, axis.radiusMm),
        ],
      })
  }
  for (const gear of sheet.gears)
    shapes.push(...gearShapes(sheet, gear, axes.get(gear.axis)!, travel[gear.id]!))
  for (const bearing of sheet.bearings) shapes.push(...bearingShapes(bearing, axes.get(bearing.axis)!))
  for (const seal of sheet.seals) {
    const axis = axes.get(seal.axis)!
    const place = onAxis(axis)
    const r = axis.radiusMm
    for (const half of mirrored(place, [
      [seal.atMm - 3, r + 9],
      [seal.atMm + 3, r + 9],
      [seal.atMm + 3, r + 5],
      [seal.atMm, r],
      [seal.atMm - 2, r + 5],
    ]))
      shapes.push({ kind: 'lip', points: half, place: `seal:${seal.id}` })
  }
  for (const belt of sheet.belts ?? []) shapes.unshift(...beltShapes(belt, axes))
  for (const a of sheet.adjusters) {
    const axis = axes.get(a.axis)!
    const place = onAxis(axis)
    const width = a.kind === 'shim' ? Math.max(1.2, stacks[a.id]! * SHIM_FACTOR) : 12
    const inner = axis.radiusMm + 2
    const outer = axis.radiusMm + (a.kind === 'shim' ? 20 : 24)
    for (const half of mirrored(place, box(a.atMm - width / 2, a.atMm + width / 2, inner, outer)))
      shapes.push({ kind: 'plate', points: half, place: `stack:${a.id}` })
    const side = axis.line === 'vertical' ? 1 : -1
    places.push({
      id: `stack:${a.id}`,
      at: place(a.atMm, side * outer),
      out: axis.line === 'vertical' ? [1, 0] : [0, 1],
    })
  }
  for (const measure of sheet.measures) {
    if (measure.kind === 'depth') {
      const gear = sheet.gears.find((g) => g.id === measure.gear)!
      const mesh = sheet.meshes.find((m) => m.pinion === gear.id || m.gear === gear.id)!
      const axis = axes.get(gear.axis)!
      const nose = gearProfile(mesh.mesh, mesh.pinion === gear.id ? 'pinion' : 'gear', axis.radiusMm)
        .body[5]![0]
      places.push({
        id: `measure:${measure.id}`,
        at: onAxis(axis)(gear.side * nose * 0.62, 0),
        out: axis.line === 'vertical' ? [1, 0] : [0, 1],
      })
    } else if (measure.kind === 'backlash') {
      const mesh = sheet.meshes.find((m) => m.id === measure.mesh)!
      places.push({ id: `measure:${measure.id}`, ...meshPlace(sheet, axes, mesh) })
    } else {
      const axis = axes.get(measure.axis)!
      places.push({ id: `measure:${measure.id}`, at: onAxis(axis)(axis.toMm, 0), out: [0.3, -1] })
    }
  }
  for (const m of bearingMeasures(sheet)) {
    const { axis, atMm } = sheet.bearings.find((b) => b.id === m.bearing)!
    places.push({ id: `measure:${m.id}`, ...bearingPlace(axes.get(axis)!, atMm) })
  }
  for (const m of seatMeasures(sheet)) {
    const { axis, atMm } = sheet.adjusters.find((a) => a.id === m.by)!
    places.push({ id: `measure:${m.id}`, ...beside(axes.get(axis)!, atMm, -axes.get(axis)!.radiusMm - 12) })
  }
  places.push(...standingPlaces(sheet, axes, travel))
  return { shapes, centrelines, places, box: boxOf(shapes, centrelines) }
}

const beside = (axis: Axis, along: number, radial: number): Omit<Place, 'id'> => ({
  at: onAxis(axis)(along, radial),
  out: axis.line === 'vertical' ? [1, 0] : [0, -1],
})
const bearingPlace = (axis: Axis, atMm: number) => beside(axis, atMm, axis.radiusMm + 10)

/** Where gears, bearings, seals and the ends of the shafts are: steps of the route light them. */
function standingPlaces(sheet: DriveSheet, axes: Map<string, Axis>, travel: Record<string, number>): Place[] {
  const aft = sheet.axes
    .filter((a) => a.line === 'horizontal')
    .reduce<Axis | undefined>((a, b) => (a && a.toMm >= b.toMm ? a : b), undefined)
  return [
    ...sheet.gears.flatMap((g) => {
      const mesh = sheet.meshes.find((m) => m.pinion === g.id || m.gear === g.id)
      if (!mesh) return []
      const axis = axes.get(g.axis)!
      const { hubBack } = gearProfile(mesh.mesh, mesh.pinion === g.id ? 'pinion' : 'gear', axis.radiusMm)
      const along = g.side * (hubBack * 0.8 + travel[g.id]! * TRAVEL_FACTOR)
      return [{ id: `gear:${g.id}`, ...beside(axis, along, axis.radiusMm + 6) }]
    }),
    ...sheet.bearings.map((b) => {
      const axis = axes.get(b.axis)!
      return { id: `bearing:${b.id}`, ...bearingPlace(axis, b.atMm) }
    }),
    ...sheet.seals.map((s) => {
      const axis = axes.get(s.axis)!
      return { id: `seal:${s.id}`, ...beside(axis, s.atMm, axis.radiusMm + 5) }
    }),
    ...(aft ? [{ id: 'end:aft', ...beside(aft, aft.toMm, 0) }] : []),
  ]
}

function gearShapes(sheet: DriveSheet, gear: Gear, axis: Axis, travelMm: number): Shape[] {
  const mesh = sheet.meshes.find((m) => m.pinion === gear.id || m.gear === gear.id)
  if (!mesh) return []
  const { teeth, body } = gearProfile(mesh.mesh, mesh.pinion === gear.id ? 'pinion' : 'gear', axis.radiusMm)
  const place = onAxis(axis)
  const shifted = (profile: [number, number][], by: number) =>
    profile.map(([a, r]): [number, number] => [gear.side * (a + by), r])
  const by = travelMm * TRAVEL_FACTOR
  const shapes: Shape[] = []
  if (Math.abs(by) > 0.05)
    for (const half of mirrored(place, shifted([...teeth.slice(0, 2), ...body.slice(2)], 0)))
      shapes.push({ kind: 'ghost', points: half })
  for (const half of mirrored(place, shifted(body, by)))
    shapes.push({ kind: 'gear-body', points: half, place: `gear:${gear.id}` })
  for (const half of mirrored(place, shifted(teeth, by)))
    shapes.push({ kind: 'teeth', points: half, place: `gear:${gear.id}` })
  return shapes
}

function bearingShapes(bearing: Bearing, axis: Axis): Shape[] {
  const place = onAxis(axis)
  const { atMm: a } = bearing
  const r = axis.radiusMm
  const shapes: Shape[] = []
  const id = `bearing:${bearing.id}`
  const add = (kind: Shape['kind'], profile: [number, number][]) => {
    for (const half of mirrored(place, profile)) shapes.push({ kind, points: half, place: id })
  }
  if (bearing.kind === 'needle') {
    add('ring', box(a - 12, a + 12, r + 4, r + 8))
    add('roller', box(a - 9, a + 9, r, r + 4))
    add('case', box(a - 14, a + 14, r + 8, r + 12))
    return shapes
  }
  const w = 8
  add('ring', box(a - w, a + w, r, r + 5))
  add('ring', box(a - w, a + w, r + 14, r + 19))
  add('case', box(a - w - 2, a + w + 2, r + 19, r + 24))
  if (bearing.kind === 'ball')
    for (const side of [1, -1])
      shapes.push({ kind: 'ball', points: [place(a, side * (r + 9.5))], radius: 5, place: id })
  else
    add('roller', [
      [a - 6, r + 4],
      [a + 6, r + 6],
      [a + 5, r + 15],
      [a - 7, r + 12],
    ])
  return shapes
}

/** Pulleys on their shafts, and the two runs of the belt seen edge on. */
function beltShapes(belt: Belt, axes: Map<string, Axis>): Shape[] {
  const half = belt.widthMm / 2
  const ends: { at: number; top: number; bottom: number }[] = []
  const shapes: Shape[] = belt.pulleys.flatMap(({ axis: id, atMm, radiusMm }) => {
    const axis = axes.get(id)!
    const place = onAxis(axis)
    ends.push({ at: atMm, top: place(atMm, radiusMm)[1], bottom: place(atMm, -radiusMm)[1] })
    return mirrored(place, box(atMm - half, atMm + half, axis.radiusMm, radiusMm)).map((points): Shape => ({
      kind: 'ring',
      points,
    }))
  })
  const [a, b] = ends
  if (!a || !b) return shapes
  const strip = (y0: number, y1: number): Shape => ({
    kind: 'belt',
    points: [
      [a.at - half, y0],
      [a.at + half, y0],
      [b.at + half, y1],
      [b.at - half, y1],
    ],
  })
  return [strip(Math.min(a.top, b.top), Math.max(a.bottom, b.bottom)), ...shapes]
}

/** Middle of the face where two gears mesh, and the direction in which there is room for a number. */
function meshPlace(
  sheet: DriveSheet,
  axes: Map<string, Axis>,
  mesh: DriveSheet['meshes'][number],
): { at: Point; out: Point } {
  const pinion = sheet.gears.find((g) => g.id === mesh.pinion)!
  const gear = sheet.gears.find((g) => g.id === mesh.gear)!
  const axis = axes.get(pinion.axis)!
  const [along, radial] = gearProfile(mesh.mesh, 'pinion', axis.radiusMm).meshPoint
  const at = onAxis(axis)(
    pinion.side * along,
    axis.line === 'vertical' ? gear.side * radial : gear.side * radial,
  )
  const out: Point = [at[0] < 0 ? -1 : 1, at[1] < 0 ? -0.9 : 0.9]
  return { at, out }
}

export function boxOf(shapes: Shape[], lines: [Point, Point][]): Section['box'] {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const p of [...shapes.flatMap((s) => s.points), ...lines.flat()]) {
    x0 = Math.min(x0, p[0])
    x1 = Math.max(x1, p[0])
    y0 = Math.min(y0, p[1])
    y1 = Math.max(y1, p[1])
  }
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 }
}
