import { WITH_PROPELLER } from '@moray/core/drives/own/places'
import type { Axis, DriveSheet } from '@moray/core/drives/sheet'
import { gearProfile, onAxis, type Point, type Shape } from './section.ts'

/**
 * The outline of a drive around its train, so that one sees at a glance what kind it is: the bullet with its leg, plate, skeg and propeller of a
 * lower unit, or the box of an upper case with its cover and flanges. Built from what lies inside; no drive in particular. Drawing coordinates.
 */
export function housing(sheet: DriveSheet): Shape[] {
  const reach = reachOf(sheet)
  const across = sheet.axes.filter((a) => a.line === 'horizontal')
  if (!across.length) return []
  return WITH_PROPELLER.has(sheet.family) ? lower(sheet, reach) : box(sheet, reach)
}

/** How far things on the axes of one line reach: along it, and from it. */
interface Reach {
  /** Of the horizontal axis through the apex (or the lower one of a belt drive): forward, aft, and its radius. */
  fore: number
  aft: number
  round: number
  /** Of the vertical axis: up, down, and its radius. */
  up: number
  down: number
  beside: number
}

/** What a bearing with its seat, a seal, and a stack need round a shaft. */
const ROUND = { bearing: 25, needle: 13, seal: 11, stack: 21 }
const WALL = 7

function reachOf(sheet: DriveSheet): Reach {
  const lines = (line: Axis['line']) => sheet.axes.filter((a) => a.line === line && !(a.offsetMm ?? 0))
  const on = (line: Axis['line']) => {
    const axes = lines(line)
    const holds = (axis: string) => axes.find((a) => a.id === axis)
    const things = [
      ...sheet.bearings.map((b) => ({
        ...b,
        round: b.kind === 'needle' ? ROUND.needle : ROUND.bearing,
        half: 12,
      })),
      ...sheet.seals.map((s) => ({ ...s, round: ROUND.seal, half: 5 })),
      ...sheet.adjusters.map((a) => ({ ...a, round: ROUND.stack, half: 8 })),
    ].filter((t) => holds(t.axis))
    const gears = sheet.gears.flatMap((g) => {
      const m = sheet.meshes.find((x) => x.pinion === g.id || x.gear === g.id)
      if (!m || !holds(g.axis)) return []
      const p = gearProfile(m.mesh, m.pinion === g.id ? 'pinion' : 'gear', holds(g.axis)!.radiusMm)
      return [{ at: g.side * p.hubBack, radius: Math.max(...p.teeth.map((t) => t[1])) }]
    })
    const along = [...things.flatMap((t) => [t.atMm - t.half, t.atMm + t.half]), ...gears.map((g) => g.at)]
    return {
      low: Math.min(0, ...along),
      high: Math.max(0, ...along),
      round: Math.max(
        ...things.map((t) => t.round + holds(t.axis)!.radiusMm),
        ...gears.map((g) => g.radius + 3),
        14,
      ),
    }
  }
  const [h, v] = [on('horizontal'), on('vertical')]
  return {
    fore: h.low,
    aft: h.high,
    round: h.round + WALL,
    up: v.high,
    down: v.low,
    beside: v.round + WALL,
  }
}

/** Points on an arc of an ellipse, degrees counted from aft, counter-clockwise on paper. */
const arc = (x: number, y: number, rx: number, ry: number, from: number, to: number, n = 14): Point[] =>
  Array.from({ length: n + 1 }, (_, i) => {
    const t = ((from + ((to - from) * i) / n) * Math.PI) / 180
    return [x + rx * Math.cos(t), y - ry * Math.sin(t)]
  })

/** Bullet, leg, plate, skeg, and what turns behind. */
function lower(sheet: DriveSheet, r: Reach): Shape[] {
  const upper = sheet.axes.find((a) => a.line === 'horizontal' && (a.offsetMm ?? 0) > 0)
  const [nose, tail] = [r.fore - 4, r.aft + 6]
  const R = r.round
  const shaftEnd = Math.max(
    ...sheet.axes.filter((a) => a.line === 'horizontal' && !(a.offsetMm ?? 0)).map((a) => a.toMm),
  )
  const top = upper ? (upper.offsetMm ?? 0) + 58 : r.up + 8
  const legFore = -Math.min(r.beside, Math.abs(nose) + R * 0.4)
  const legAft = Math.max(r.beside, Math.min(tail - 8, r.beside * 1.7))
  const fore = upper ? Math.min(legFore, upper.fromMm + 8) : legFore
  const aft = upper ? Math.max(legAft, upper.toMm - 4) : legAft
  const plateY = -(R + Math.min(0.55 * (top - R), 34))
  const plateAft = tail + 26
  // one line round: up the fore side of the leg, over the top, down the aft side over the plate, along the bullet, skeg, nose
  const outline: Point[] = [
    [fore, -top],
    [aft, -top],
    [aft, plateY - 5],
    ...(upper
      ? []
      : ([
          [plateAft, plateY - 4],
          [plateAft, plateY],
        ] as Point[])),
    [aft + 4, plateY + 2],
    [Math.min(tail, aft + 10), -R * 0.97],
    [tail - 6, -R * 0.92],
    [tail, -R * 0.8],
    [tail, R * 0.8],
    [tail - 8, R * 0.95],
    // the skeg, raked aft
    [tail * 0.55, R],
    [tail * 0.72, R + 0.62 * R],
    [tail * 0.35, R + 0.66 * R],
    [nose * 0.2, R],
    ...arc(nose + 0.12 * R, 0, R * 0.95, R, 270, 90),
    [fore - 2, -R],
  ]
  const shapes: Shape[] = [
    { kind: 'hull', points: outline },
    ...retainers(tail - 24, tail - 1, shaftRadius(sheet) + ROUND.seal, R * 0.8),
  ]
  if (!upper)
    shapes.push({
      kind: 'flange',
      points: [
        [fore - 8, -top - 5],
        [aft + 8, -top - 5],
        [aft + 8, -top],
        [fore - 8, -top],
      ],
    })
  const twin = sheet.axes.some((a) => a.line === 'horizontal' && a.insideOf !== undefined)
  const hub = Math.max(16, R * 0.5)
  const first = tail + 8
  const room = Math.max(24, shaftEnd - 12 - first)
  const blades = (x: number, length: number): Shape[] => [
    {
      kind: 'blade',
      points: [
        [x, -hub],
        [x + length, -hub * 0.92],
        [x + length, hub * 0.92],
        [x, hub],
      ],
    },
    ...[1, -1].map((side): Shape => ({
      kind: 'blade',
      points: [
        [x + length * 0.12, side * hub],
        ...arc(
          x + length * 0.5,
          side * hub * 2,
          length * 0.42,
          hub * 0.9,
          side > 0 ? 180 : 180,
          side > 0 ? 360 : 0,
        ),
        [x + length * 0.86, side * hub * 0.95],
      ],
    })),
  ]
  if (twin) shapes.push(...blades(first, room * 0.44), ...blades(first + room * 0.52, room * 0.44))
  else shapes.push(...blades(first, room))
  return shapes
}

/** What closes the bore behind a shaft and holds its bearing and seals, cut: a ring round the shaft, with the lip by which it sits in the case. */
function retainers(x0: number, x1: number, inner: number, outer: number): Shape[] {
  if (outer - inner < 6) return []
  return [1, -1].map((side) => ({
    kind: 'flange',
    place: 'retainer',
    points: [
      [x0, side * (inner + (outer - inner) * 0.55)],
      [x1 - 5, side * (inner + (outer - inner) * 0.55)],
      [x1 - 5, side * inner],
      [x1, side * inner],
      [x1, side * outer],
      [x0, side * outer],
    ],
  }))
}

/** Radius of the outermost shaft on the horizontal axis through the apex. */
const shaftRadius = (sheet: DriveSheet) =>
  Math.max(
    0,
    ...sheet.axes.filter((a) => a.line === 'horizontal' && !(a.offsetMm ?? 0)).map((a) => a.radiusMm),
  )

/** An upper case or a right-angle box: walls round both shafts, a cover on top, a flange where it is joined. */
function box(sheet: DriveSheet, r: Reach): Shape[] {
  const half = r.beside + 2
  const [x0, x1] = [Math.min(r.fore - 4, -half), Math.max(r.aft + 4, half)]
  const [top, bottom] = [-(r.up + 6), Math.max(-r.down + 6, r.round + 6)]
  const neck = r.round
  const outline: Point[] = [
    [-half, top],
    [half, top],
    [half, -neck],
    [x1, -neck * 0.94],
    [x1, neck * 0.94],
    [half, neck],
    [half, bottom],
    [-half, bottom],
    [-half, neck],
    [x0, neck * 0.94],
    [x0, -neck * 0.94],
    [-half, -neck],
  ]
  const plate = (y: number, wide: number): Shape => ({
    kind: 'flange',
    points: [
      [-wide, y - 4],
      [wide, y - 4],
      [wide, y + 4],
      [-wide, y + 4],
    ],
  })
  const end = Math.abs(x0) > x1 ? -1 : 1
  const reach = Math.max(Math.abs(x0), x1)
  const closed = retainers(reach - 24, reach - 1, shaftRadius(sheet) + ROUND.seal, neck * 0.86)
  const turned = closed.map((c): Shape => ({ ...c, points: c.points.map(([x, y]): Point => [end * x, y]) }))
  return [{ kind: 'hull', points: outline }, ...turned, plate(top - 4, half + 9), plate(bottom + 4, half + 9)]
}

/** Splines, nut and washer at the ends of the shafts. */
export function shaftEnds(sheet: DriveSheet): Shape[] {
  return sheet.axes.flatMap((axis): Shape[] => {
    const place = onAxis(axis)
    const r = axis.radiusMm
    if (sheet.axes.some((a) => a.insideOf === axis.id)) return []
    const up = axis.line === 'vertical'
    const splineFrom = up ? axis.toMm - 22 : axis.fromMm + 2
    const splined = up || axis.fromMm < -20
    const lines = [-0.66, -0.33, 0, 0.33, 0.66].map((k): Shape => ({
      kind: 'spline',
      points: [place(splineFrom, k * r), place(splineFrom + 18, k * r)],
    }))
    if (up || !WITH_PROPELLER.has(sheet.family) || axis.offsetMm) return splined && up ? lines : []
    const nut = axis.toMm - 12
    return [
      {
        kind: 'nut',
        points: [
          place(nut, r * 1.5),
          place(nut + 9, r * 1.5),
          place(nut + 9, -r * 1.5),
          place(nut, -r * 1.5),
        ],
      },
      { kind: 'spline', points: [place(nut, r * 0.5), place(nut + 9, r * 0.5)] },
      { kind: 'spline', points: [place(nut, -r * 0.5), place(nut + 9, -r * 0.5)] },
    ]
  })
}
