import { describe, expect, it } from 'vitest'
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
    expect(Math.abs(r.pinionMm - p)).toBeLessThan(0.02)
    expect(Math.abs(r.gearMm - g)).toBeLessThan(0.03)
    expect(r).toMatchObject({ disagrees: false, atBound: false })
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
    expect(Math.abs(r.pinionMm - 0.06)).toBeLessThan(0.02)
  })
  it('says when no shim explains it: toe on one side, heel on the other', () => {
    const r = patternRead({
      mesh,
      ...crown,
      drive: { length: -0.5, profile: 0 },
      coast: { length: 0.5, profile: 0 },
    })
    expect(r.disagrees).toBe(true)
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
