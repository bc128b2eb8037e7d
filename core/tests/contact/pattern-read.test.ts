import { describe, expect, it } from 'vitest'
import { patternMeaning } from '../../src/contact/pattern-meaning.ts'
import { patternRead } from '../../src/contact/pattern-read.ts'
import { toothContact } from '../../src/contact/tooth-contact.ts'
import { refused } from '../refused.ts'

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
const crown = { crownLengthMm: 0.02, crownProfileMm: 0.015, centreLength: 0, centreProfile: 0, filmMm: 0.006 }
const patch = (side: 1 | -1, p: number, g: number, offsetMm = 0) => {
  const r = toothContact({ mesh, side, pinionMm: p, gearMm: g, offsetMm, shaftAngleErrorDeg: 0, ...crown })
  return { length: r.centroidLength, profile: r.centroidProfile }
}

describe('reading a patch back', () => {
  it.each([
    [0, 0],
    [0.08, 0],
    [-0.08, 0],
    [0, 0.1],
    [0.06, -0.08],
    [-0.05, 0.09],
  ])('finds pinion %s and gear %s', (p, g) => {
    const r = patternRead({ mesh, ...crown, drive: patch(1, p, g), coast: patch(-1, p, g) })
    expect(Math.abs(r.pinionMm! - p)).toBeLessThan(0.02)
    expect(Math.abs(r.gearMm! - g)).toBeLessThan(0.03)
    expect(r).toMatchObject({ separable: true, atBound: false })
    expect(r.kind).not.toBe('axes')
  })
  it('counts from a reference that is not the computed one', () => {
    const reference = { drive: { length: 0.2, profile: -0.1 }, coast: { length: 0.15, profile: -0.1 } }
    const shift = (side: 1 | -1, base: { length: number; profile: number }) => {
      const [zero, there] = [patch(side, 0, 0), patch(side, 0.06, 0)]
      return {
        length: base.length + there.length - zero.length,
        profile: base.profile + there.profile - zero.profile,
      }
    }
    const r = patternRead({
      mesh,
      ...crown,
      reference,
      drive: shift(1, reference.drive),
      coast: shift(-1, reference.coast),
    })
    expect(Math.abs(r.pinionMm! - 0.06)).toBeLessThan(0.02)
  })
  it('says when no shim explains it: toe on one side, heel on the other', () => {
    const r = patternRead({
      mesh,
      ...crown,
      drive: { length: -0.5, profile: 0 },
      coast: { length: 0.5, profile: 0 },
    })
    expect(r.kind).toBe('axes')
  })
  it('refuses a patch off the flank', () => {
    const at = { length: 0, profile: 0 }
    expect(
      refused(() => patternRead({ mesh, ...crown, drive: { length: 1.4, profile: 0 }, coast: at })).fields[0]!
        .path,
    ).toBe('drive.length')
    refused(() => patternRead({ mesh, ...crown, drive: at, coast: at, driveSide: 0 as never }))
  })
})

describe('more than pinion and gear', () => {
  const whole = (side: 1 | -1, p: number, g: number, offsetMm = 0, shaftAngleErrorDeg = 0) => {
    const r = toothContact({ mesh, side, pinionMm: p, gearMm: g, offsetMm, shaftAngleErrorDeg, ...crown })
    return { length: r.centroidLength, profile: r.centroidProfile, extents: r.extents }
  }
  const pair = (...s: [number, number, number?, number?]) => ({
    drive: whole(1, ...s),
    coast: whole(-1, ...s),
  })

  it('finds an offset of the axes from the centroids', () => {
    const { drive, coast } = pair(0.04, -0.05, 0.03)
    const bare = (p: typeof drive) => ({ length: p.length, profile: p.profile })
    const r = patternRead({ mesh, ...crown, drive: bare(drive), coast: bare(coast), also: ['offset'] })
    expect(r.offsetMm).toBeCloseTo(0.03, 2)
    expect(Math.abs(r.pinionMm! - 0.04)).toBeLessThan(0.03)
  })
  it('explains with offset and shaft angle what pinion and gear alone cannot, given the extents', () => {
    const seen = pair(0.03, 0.02, 0.04, 0.05)
    const plain = patternRead({ mesh, ...crown, ...seen })
    const full = patternRead({ mesh, ...crown, ...seen, also: ['offset', 'shaft-angle'] })
    expect(plain.residual).toBeGreaterThan(0.05)
    expect(full.residual).toBeLessThan(0.01)
    expect(Math.abs(full.offsetMm! - 0.04)).toBeLessThan(0.01)
    expect(Math.abs(full.shaftAngleErrorDeg! - 0.05)).toBeLessThan(0.01)
    expect(Math.abs(full.pinionMm! - 0.03)).toBeLessThan(0.02)
  })
  it('does not ask more of four numbers than they hold', () => {
    const seen = { drive: { length: 0, profile: 0 }, coast: { length: 0, profile: 0 } }
    const error = refused(() => patternRead({ mesh, ...crown, ...seen, also: ['offset', 'shaft-angle'] }))
    expect(error.fields[0]!.path).toBe('also')
  })
  it('takes the mean of places round the gear for the setting, and their movement for runout', () => {
    const [a, b, c] = [pair(0.02, 0.04), pair(0.02, 0), pair(0.02, -0.04)]
    const r = patternRead({ mesh, ...crown, ...a, otherPlaces: [b, c] })
    expect(Math.abs(r.gearMm!)).toBeLessThan(0.02)
    expect(r.movement).toBeGreaterThan(0.05)
    expect(patternRead({ mesh, ...crown, ...b }).movement).toBeUndefined()
  })
  it('gives the answer in shims, toward right', () => {
    const r = patternRead({ mesh, ...crown, ...pair(0.06, -0.05), pinionEffect: 1, gearEffect: -1 })
    expect(r.pinionShimMm).toBeCloseTo(-r.pinionMm!, 12)
    expect(r.gearShimMm).toBeCloseTo(r.gearMm!, 12)
    expect(r.pinionShimMm).toBeLessThan(-0.03)
  })
  it.each([
    [0.06, true],
    [-0.3, false],
  ])('is held against the gauges: pinion %s there', (pinionMm, agrees) => {
    const seen = pair(0.06, 0)
    const depth = { part: 'pinion' as const, valueMm: pinionMm, uMm: 0.01 }
    const r = patternRead({ mesh, ...crown, ...seen, depth })
    expect(r.againstGauges!.agrees).toBe(agrees)
    // what the patches say by themselves stands beside it, and a gauge that is finer than a hand makes the answer finer
    const alone = patternRead({ mesh, ...crown, ...seen })
    expect(r.againstGauges!.pinionMm).toBeCloseTo(alone.pinionMm!, 9)
    expect(alone.againstGauges).toBeUndefined()
    expect(alone.pinionUMm).toBeLessThan(0.15)
    expect(r.pinionUMm).toBeLessThan(0.021)
  })
  it('refuses extents that do not hold their centre', () => {
    const seen = pair(0, 0)
    const wrong = { ...seen.drive, extents: { ...seen.drive.extents, lengthMin: 0.9, lengthMax: 0.95 } }
    expect(refused(() => patternRead({ mesh, ...crown, ...seen, drive: wrong })).fields[0]!.path).toBe(
      'drive.extents',
    )
  })
})

describe('what a pattern means', () => {
  const both = (length: number, profile: number) => ({
    drive: { length, profile },
    coast: { length, profile },
  })
  it.each([
    [both(0.1, -0.1), 'centred'],
    [both(-0.5, 0.1), 'toe'],
    [both(0.5, 0.1), 'heel'],
    [both(0.1, 0.5), 'top'],
    [both(0.1, -0.5), 'root'],
    // apart lengthwise with a common shift up is a pinion out of depth, not a crossed case
    [{ drive: { length: 0.41, profile: 0.67 }, coast: { length: -0.33, profile: 0.69 } }, 'top'],
    [both(0.9, 0), 'edge'],
  ] as const)('%j is %s', (pair, kind) => {
    const meaning = patternMeaning(pair)
    expect(meaning.kind).toBe(kind)
    expect(meaning.means.length).toBeGreaterThan(10)
    expect(meaning.effect.length).toBeGreaterThan(10)
  })
  it('calls a pinion out of depth a setting, however far the patches cross, and an offset of the axes not', () => {
    const deep = patternRead({ mesh, ...crown, drive: patch(1, 0.4, 0), coast: patch(-1, 0.4, 0) })
    expect(Math.sign(patch(1, 0.4, 0).length)).not.toBe(Math.sign(patch(-1, 0.4, 0).length))
    expect(deep).toMatchObject({ kind: 'setting', meaning: { kind: 'top' } })
    const offset = patternRead({ mesh, ...crown, drive: patch(1, 0, 0, 0.15), coast: patch(-1, 0, 0, 0.15) })
    expect(offset).toMatchObject({ kind: 'axes', meaning: { kind: 'crossed', moves: '' } })
    const right = patternRead({ mesh, ...crown, drive: patch(1, 0, 0), coast: patch(-1, 0, 0) })
    expect(right).toMatchObject({ kind: 'centred', meaning: { kind: 'centred' } })
  })
  it('moves the part that the model says: the displacement it names brings the patch back', () => {
    // pinion outward puts the patch toward the top, so the words for "top" send the pinion inward
    const up = patternRead({ mesh, ...crown, drive: patch(1, 0.12, 0), coast: patch(-1, 0.12, 0) })
    expect(up.meaning).toMatchObject({ kind: 'top', moves: expect.stringContaining('Pinion inward') })
    // gear outward puts it toward the heel
    expect(patch(1, 0, 0.1).length).toBeGreaterThan(patch(1, 0, 0).length)
    expect(patternMeaning(both(0.5, 0)).moves).toContain('Gear inward')
  })
})
