import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { backlashTransfer } from '../../src/gears/backlash.ts'
import { meshGeometry, type Mesh } from '../../src/gears/mesh.ts'
import { refused } from '../refused.ts'

const mesh: Mesh = { pinionTeeth: 13, gearTeeth: 28, moduleMm: 4.2, faceWidthMm: 17, spiralAngleDeg: 35 }

const anyMesh = fc.record({
  pinionTeeth: fc.integer({ min: 8, max: 30 }),
  gearTeeth: fc.integer({ min: 8, max: 45 }),
  shaftAngleDeg: fc.integer({ min: 60, max: 100 }),
  moduleMm: fc.double({ min: 1, max: 8, noNaN: true }),
  faceWidthMm: fc.double({ min: 2, max: 6, noNaN: true }),
  pressureAngleDeg: fc.integer({ min: 14, max: 25 }),
  spiralAngleDeg: fc.integer({ min: 0, max: 40 }),
})

describe('pitch cones', () => {
  it('add up to the shaft angle and share the outer cone distance', () => {
    fc.assert(
      fc.property(anyMesh, (m) => {
        const g = meshGeometry(m)
        expect(g.pinionPitchAngleDeg + g.gearPitchAngleDeg).toBeCloseTo(m.shaftAngleDeg, 9)
        const sin = Math.sin((g.pinionPitchAngleDeg * Math.PI) / 180)
        expect(g.pinionPitchRadiusMm / sin).toBeCloseTo(g.outerConeDistanceMm, 8)
        expect(g.outerConeDistanceMm - g.innerConeDistanceMm).toBeCloseTo(m.faceWidthMm, 9)
      }),
      { seed: 5 },
    )
  })
  it('are 45° each at ratio 1', () => {
    const g = meshGeometry({ ...mesh, gearTeeth: 13, faceWidthMm: 10 })
    expect(g.pinionPitchAngleDeg).toBeCloseTo(45, 12)
    expect(g.backlashPerPinionMm).toBeCloseTo(g.backlashPerGearMm, 12)
  })
})

describe('backlash', () => {
  it('agrees with the wedge of two planes: a straight tooth that moves out by d opens 2 d tan α sin δ at mid face', () => {
    const straight: Mesh = { ...mesh, spiralAngleDeg: 0 }
    const g = meshGeometry(straight)
    const delta = (g.gearPitchAngleDeg * Math.PI) / 180
    const atMidFace = 2 * Math.tan((20 * Math.PI) / 180) * Math.sin(delta)
    expect(g.backlashPerGearMm).toBeCloseTo((atMidFace * g.outerConeDistanceMm) / g.meanConeDistanceMm, 12)
  })
  it('follows from the flanks: the gap along both normals, closed by turning, by finite differences', () => {
    // Pitch plane: x along the common pitch line, y circumferential, z toward the pinion. Both flanks' unit
    // normals at mid face are (±cos α sin β…, sin α); the axis of the gear stands at δ₂ to the plane.
    const [alpha, beta] = [(20 * Math.PI) / 180, (35 * Math.PI) / 180]
    const g = meshGeometry(mesh)
    const delta = (g.gearPitchAngleDeg * Math.PI) / 180
    const n = [-Math.sin(beta), Math.cos(beta), 0]
    const flank = (s: number) => [s * Math.cos(alpha) * n[0]!, s * Math.cos(alpha) * n[1]!, Math.sin(alpha)]
    const k2 = [Math.cos(delta), 0, -Math.sin(delta)]
    const dot = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)
    const h = 1e-6
    const gap = (d: number) => [1, -1].map((s) => -dot(flank(s), k2) * d)
    const opened = gap(h)[0]! + gap(h)[1]!
    const turned = opened / (Math.cos(alpha) * Math.cos(beta)) / h
    expect((turned * g.outerConeDistanceMm) / g.meanConeDistanceMm).toBeCloseTo(g.backlashPerGearMm, 8)
  })
  it('reads at the pitch radius what it is, and grows with the arm', () => {
    const at = (radiusMm: number) =>
      backlashTransfer({ mesh, readingMm: 0.4, radiusMm, member: 'gear' }).backlashMm
    expect(at(meshGeometry(mesh).gearPitchRadiusMm)).toBeCloseTo(0.4, 12)
    expect(at(100)).toBeLessThan(0.4)
  })
  it('refuses what no indicator shows', () => {
    refused(() => backlashTransfer({ mesh, readingMm: -0.1, radiusMm: 38, member: 'gear' }))
    refused(() => backlashTransfer({ mesh, readingMm: 0.1, radiusMm: 0, member: 'gear' }))
    refused(() =>
      backlashTransfer({ mesh, readingMm: 0.1, radiusMm: 38, member: 'gear', indicatorAngleDeg: 90 }),
    )
    refused(() => backlashTransfer({ mesh, readingMm: 0.1, radiusMm: 38, member: 'both' as never }))
  })
})

describe('geometry that cannot be cut', () => {
  it.each([
    [{ pinionTeeth: 2 }, 'mesh.pinionTeeth'],
    [{ pinionTeeth: 12.5 }, 'mesh.pinionTeeth'],
    [{ gearTeeth: NaN }, 'mesh.gearTeeth'],
    [{ moduleMm: 0 }, 'mesh.moduleMm'],
    [{ moduleMm: Infinity }, 'mesh.moduleMm'],
    [{ faceWidthMm: -1 }, 'mesh.faceWidthMm'],
    [{ faceWidthMm: 65 }, 'mesh.faceWidthMm'],
    [{ shaftAngleDeg: 180 }, 'mesh.shaftAngleDeg'],
    [{ shaftAngleDeg: 0 }, 'mesh.shaftAngleDeg'],
    [{ shaftAngleDeg: 150 }, 'mesh.shaftAngleDeg'],
    [{ pressureAngleDeg: 0 }, 'mesh.pressureAngleDeg'],
    [{ spiralAngleDeg: 75 }, 'mesh.spiralAngleDeg'],
  ])('%j is refused at %s', (wrong, path) => {
    expect(refused(() => meshGeometry({ ...mesh, ...wrong })).fields[0]?.path).toBe(path)
  })
})
