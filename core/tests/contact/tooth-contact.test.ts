import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { toothContact, type ToothContactInput } from '../../src/contact/tooth-contact.ts'
import { refused } from '../refused.ts'

interface Case {
  name: string
  input: ToothContactInput
  expect: {
    areaShare: number
    centroidLength: number
    centroidProfile: number
    extents: Record<string, number>
  }
}
const cases: Case[] = JSON.parse(
  readFileSync(new URL('../cases/tooth-contact.json', import.meta.url), 'utf8'),
)

describe('reference cases of tooth-contact', () => {
  it.each(cases.map((c) => [c.name, c] as const))('%s', (_, c) => {
    const r = toothContact(c.input)
    const near = (a: number, b: number, tolerance: number, what: string) =>
      expect(Math.abs(a - b), `${what}: ${a} for ${b}`).toBeLessThanOrEqual(tolerance)
    near(r.areaShare, c.expect.areaShare, 0.03, 'areaShare')
    near(r.centroidLength, c.expect.centroidLength, 0.04, 'centroidLength')
    near(r.centroidProfile, c.expect.centroidProfile, 0.04, 'centroidProfile')
    for (const [key, value] of Object.entries(c.expect.extents))
      near(r.extents[key as never], value, 0.08, key)
  })
})

const mesh = {
  pinionTeeth: 13,
  gearTeeth: 28,
  moduleMm: 4.2,
  faceWidthMm: 17,
  spiralAngleDeg: 35,
  cutterRadiusMm: 50.7,
  gearAddendumMm: 2.4,
  pinionAddendumMm: 4.7,
}
const straight = { ...mesh, spiralAngleDeg: 0 }
const still: ToothContactInput = {
  mesh,
  side: 1,
  pinionMm: 0,
  gearMm: 0,
  offsetMm: 0,
  shaftAngleErrorDeg: 0,
  crownLengthMm: 0.02,
  crownProfileMm: 0.015,
  centreLength: 0,
  centreProfile: 0,
  filmMm: 0.006,
}
const both = (change: Partial<ToothContactInput>) =>
  ([1, -1] as const).map((side) => toothContact({ ...still, ...change, side }))

describe('what a setting does to the patch', () => {
  it.each([
    ['spiral', mesh],
    ['straight', straight],
  ] as const)('centred within 0.08 without an error, %s teeth', (_, m) => {
    for (const r of both({ mesh: m })) {
      expect(Math.abs(r.centroidLength)).toBeLessThan(0.08)
      expect(Math.abs(r.centroidProfile)).toBeLessThan(0.08)
    }
  })
  it('pinion inward moves it toward the root on both flanks, outward toward the top', () => {
    const [zero, inward, outward] = [both({}), both({ pinionMm: -0.1 }), both({ pinionMm: 0.1 })]
    zero.forEach((z, i) => {
      expect(inward[i]!.centroidProfile).toBeLessThan(z.centroidProfile)
      expect(outward[i]!.centroidProfile).toBeGreaterThan(z.centroidProfile)
    })
  })
  it('gear inward moves it toward the toe on both flanks, outward toward the heel', () => {
    const [zero, inward, outward] = [both({}), both({ gearMm: -0.15 }), both({ gearMm: 0.15 })]
    const mean = (rs: { centroidLength: number }[]) => (rs[0]!.centroidLength + rs[1]!.centroidLength) / 2
    expect(mean(inward)).toBeLessThan(mean(zero))
    expect(mean(outward)).toBeGreaterThan(mean(zero))
  })
  it('an offset moves it to opposite ends on drive and coast', () => {
    const zero = both({})
    const [drive, coast] = both({ offsetMm: 0.05 }).map((r, i) => r.centroidLength - zero[i]!.centroidLength)
    expect(drive! * coast!).toBeLessThan(0)
  })
  it('straight teeth give both flanks alike', () => {
    const [drive, coast] = both({ mesh: straight, pinionMm: 0.05 })
    expect(drive!.centroidLength).toBeCloseTo(coast!.centroidLength, 9)
    expect(drive!.centroidProfile).toBeCloseTo(coast!.centroidProfile, 9)
    expect(drive!.areaShare).toBeCloseTo(coast!.areaShare, 9)
  })
  it('more crowning makes it smaller, more compound larger', () => {
    expect(toothContact({ ...still, crownLengthMm: 0.04 }).areaShare).toBeLessThan(
      toothContact(still).areaShare,
    )
    expect(toothContact({ ...still, filmMm: 0.012 }).areaShare).toBeGreaterThan(toothContact(still).areaShare)
  })
  it('the other hand on the other flank is the same tooth in a mirror', () => {
    const a = toothContact({ ...still, offsetMm: 0.03, gearMm: 0.05 })
    const b = toothContact({ ...still, mesh: { ...mesh, hand: -1 }, side: -1, offsetMm: -0.03, gearMm: 0.05 })
    expect(b.centroidLength).toBeCloseTo(a.centroidLength, 9)
    expect(b.centroidProfile).toBeCloseTo(a.centroidProfile, 9)
    expect(b.areaShare).toBeCloseTo(a.areaShare, 9)
  })
  it('has converged: a finer grid says the same', () => {
    const fine = toothContact({ ...still, gearMm: 0.05, samples: { rows: 401, columns: 201 } })
    const coarse = toothContact({ ...still, gearMm: 0.05 })
    expect(coarse.areaShare).toBeCloseTo(fine.areaShare, 1.7)
    expect(Math.abs(coarse.centroidLength - fine.centroidLength)).toBeLessThan(0.01)
    expect(Math.abs(coarse.centroidProfile - fine.centroidProfile)).toBeLessThan(0.01)
  })
})

describe('what can be drawn', () => {
  it('an outline and a raster within the extents', () => {
    const r = toothContact({ ...still, raster: true })
    expect(r.outline.length).toBeGreaterThan(20)
    for (const [x, y] of r.outline) {
      expect(x).toBeGreaterThanOrEqual(r.extents.lengthMin)
      expect(x).toBeLessThanOrEqual(r.extents.lengthMax)
      expect(Math.abs(y)).toBeLessThanOrEqual(1)
    }
    expect(r.raster![10]![20]).toBe(1)
    expect(r.raster![0]![0]).toBe(0)
    expect(r.motionErrorMicrorad).toBeGreaterThanOrEqual(0)
  })
})

describe('what is refused', () => {
  it.each([
    [{ mesh: { ...mesh, cutterRadiusMm: undefined } }, 'mesh.cutterRadiusMm'],
    [{ mesh: { ...mesh, cutterRadiusMm: -5 } }, 'mesh.cutterRadiusMm'],
    [{ mesh: { ...mesh, gearAddendumMm: undefined } }, 'mesh.gearAddendumMm'],
    [{ mesh: { ...mesh, pinionAddendumMm: 0 } }, 'mesh.pinionAddendumMm'],
    [{ side: 0 }, 'side'],
    [{ filmMm: 0 }, 'filmMm'],
    [{ crownLengthMm: -1 }, 'crownLengthMm'],
    [{ pinionMm: NaN }, 'pinionMm'],
    [{ gearMm: 12 }, 'gearMm'],
  ])('%j at %s', (wrong, path) => {
    expect(refused(() => toothContact({ ...still, ...wrong } as ToothContactInput)).fields[0]!.path).toBe(
      path,
    )
  })
})
