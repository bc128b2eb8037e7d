import { demoSheets } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { placeTags, type Box } from '../src/drawing/labels.ts'
import { holdMarks } from '../src/drawing/hold-marks.ts'
import { housing } from '../src/drawing/housing.ts'
import { gearProfile, layOut, TRAVEL_FACTOR, type Point } from '../src/drawing/section.ts'

const overlap = (a: Box, b: Box) =>
  Math.min(a.x + a.width, b.x + b.width) > Math.max(a.x, b.x) &&
  Math.min(a.y + a.height, b.y + b.height) > Math.max(a.y, b.y)

describe.each(demoSheets.map((s) => [s.id, s] as const))('section of %s', (_, sheet) => {
  const section = layOut(sheet)

  it('has a place for every stack and every measure', () => {
    const ids = section.places.map((p) => p.id)
    for (const a of sheet.adjusters) expect(ids).toContain(`stack:${a.id}`)
    for (const m of sheet.measures) expect(ids).toContain(`measure:${m.id}`)
  })

  it('draws both halves of every gear, bearing and stack, with finite coordinates inside its box', () => {
    const of = (place: string) => section.shapes.filter((s) => s.place === place).length
    for (const g of sheet.gears) expect(of(`gear:${g.id}`)).toBe(4)
    for (const b of sheet.bearings) expect(of(`bearing:${b.id}`)).toBeGreaterThanOrEqual(2)
    for (const a of sheet.adjusters) expect(of(`stack:${a.id}`)).toBe(2)
    const { x, y, width, height } = section.box
    for (const [px, py] of section.shapes.flatMap((s) => s.points)) {
      expect(px).toBeGreaterThanOrEqual(x - 1e-9)
      expect(px).toBeLessThanOrEqual(x + width + 1e-9)
      expect(py).toBeGreaterThanOrEqual(y - 1e-9)
      expect(py).toBeLessThanOrEqual(y + height + 1e-9)
    }
  })

  it('closes the bore behind the horizontal shaft with a ring that lies in the case and touches neither shaft nor lips', () => {
    const shapes = housing(sheet)
    const hull = shapes.find((s) => s.kind === 'hull')!
    const rings = shapes.filter((s) => s.place === 'retainer')
    expect(rings).toHaveLength(2)
    const shaft = Math.max(
      ...sheet.axes.filter((a) => a.line === 'horizontal' && !(a.offsetMm ?? 0)).map((a) => a.radiusMm),
    )
    const xs = hull.points.map(([x]) => x)
    const ys = hull.points.map(([, y]) => y)
    for (const [x, y] of rings.flatMap((r) => r.points)) {
      expect(Math.abs(y)).toBeGreaterThan(shaft + 10)
      expect(x > Math.min(...xs) && x < Math.max(...xs)).toBe(true)
      expect(y > Math.min(...ys) && y < Math.max(...ys)).toBe(true)
    }
  })

  it('lets meshing gears touch: their mesh points fall on one spot', () => {
    for (const m of sheet.meshes) {
      const pinion = sheet.gears.find((g) => g.id === m.pinion)!
      const gear = sheet.gears.find((g) => g.id === m.gear)!
      const radius = (g: typeof gear) => sheet.axes.find((a) => a.id === g.axis)!.radiusMm
      const [alongP, radialP] = gearProfile(m.mesh, 'pinion', radius(pinion)).meshPoint
      const [alongG, radialG] = gearProfile(m.mesh, 'gear', radius(gear)).meshPoint
      expect(alongP).toBeCloseTo(radialG, 9)
      expect(alongG).toBeCloseTo(radialP, 9)
    }
  })
})

describe('stacks that change', () => {
  const lomvi = demoSheets[0]!
  const stacks = { pinion: 0.6, forward: 0.7, reverse: 0.8 }

  it('move their gear by the factor that is written on the drawing, and leave its old outline', () => {
    const still = layOut(lomvi, { stacks, from: stacks })
    const moved = layOut(lomvi, { stacks: { ...stacks, pinion: 0.7 }, from: stacks })
    const top = (s: typeof still) => s.shapes.find((x) => x.place === 'gear:pinion')!.points[0]![1]
    // effect +1: a thicker stack raises the pinion, up is negative
    expect(top(moved) - top(still)).toBeCloseTo(-0.1 * TRAVEL_FACTOR, 9)
    expect(still.shapes.some((s) => s.kind === 'ghost')).toBe(false)
    expect(moved.shapes.filter((s) => s.kind === 'ghost')).toHaveLength(2)
  })

  it('are drawn thicker', () => {
    const height = (mm: number) => {
      const plate = layOut(lomvi, { stacks: { ...stacks, pinion: mm } }).shapes.find(
        (s) => s.place === 'stack:pinion',
      )!
      const ys = plate.points.map((p) => p[1])
      return Math.max(...ys) - Math.min(...ys)
    }
    expect(height(1)).toBeCloseTo(2 * height(0.5), 9)
  })
})

describe('number tags', () => {
  const sheet = { width: 620, height: 390 }
  const tag = (id: string, at: Point, out: Point = [1, 0]) => ({ id, at, out, width: 110, height: 52 })

  it('do not cover one another, and stay on the sheet', () => {
    const tags = Array.from({ length: 7 }, (_, i) => tag(`t${i}`, [300 + 8 * i, 180 + 5 * i]))
    const placed = placeTags(tags, sheet)
    placed.forEach((a, i) => {
      expect(a.x).toBeGreaterThanOrEqual(0)
      expect(a.x + a.width).toBeLessThanOrEqual(sheet.width)
      expect(a.y).toBeGreaterThanOrEqual(0)
      expect(a.y + a.height).toBeLessThanOrEqual(sheet.height)
      for (const b of placed.slice(i + 1)) expect(overlap(a, b), `${a.id} and ${b.id}`).toBe(false)
    })
  })
  it('keep off what is drawn when there is room beside it', () => {
    const drawn = { x: 300, y: 100, width: 200, height: 200 }
    const [placed] = placeTags([tag('a', [310, 200])], sheet, [drawn])
    expect(overlap(placed!, drawn)).toBe(false)
  })
  it('are kept even where no spot is free', () => {
    expect(placeTags([tag('a', [20, 20])], { width: 80, height: 40 })).toHaveLength(1)
    expect(placeTags([], sheet)).toEqual([])
  })
})

describe('what is held while backlash is read', () => {
  it.each(
    demoSheets.flatMap((sheet) =>
      sheet.measures.flatMap((m) =>
        m.kind === 'backlash' ? [[`${sheet.name}, ${m.label}`, sheet, m] as const] : [],
      ),
    ),
  )(
    '%s: the other gear is held, the shaft of this one rocked, the indicator at its radius',
    (_, sheet, m) => {
      const marks = holdMarks(sheet, m)
      const mesh = sheet.meshes.find((x) => x.id === m.mesh)!
      const rocked = sheet.gears.find((g) => g.id === (m.member === 'pinion' ? mesh.pinion : mesh.gear))!
      const axis = sheet.axes.find((a) => a.id === rocked.axis)!
      expect(marks.filter((k) => k.kind === 'held')).toHaveLength(1)
      const dial = marks.find((k) => k.kind === 'dial')!
      // across the rocked shaft, as far from its middle as the sheet says
      const across = axis.line === 'vertical' ? 0 : 1
      expect(Math.abs(dial.at[across] - dial.axis[across])).toBeCloseTo(m.radiusMm, 9)
      expect(dial.at[1 - across]).toBeCloseTo(dial.axis[1 - across]!, 9)
      const load = marks.find((k) => k.kind === 'load')
      expect(load !== undefined).toBe(m.load === 'outward')
      // pushed away from where the axes cross
      if (load) expect(Math.hypot(...load.to)).toBeGreaterThan(Math.hypot(...load.from))
    },
  )
})
