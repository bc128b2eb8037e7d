import { describe, expect, it } from 'vitest'
import { pairsTold } from '../../bench/pattern-pairs.ts'
import { USUAL_CROWN, contactTeeth } from '../../src/contact/as-set.ts'
import type { PatternReadInput } from '../../src/contact/pattern-question.ts'
import { patternRead } from '../../src/contact/pattern-read.ts'
import { toothContact } from '../../src/contact/tooth-contact.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { refused } from '../refused.ts'

const teethOf = (id: string) => contactTeeth(demoSheets.find((s) => s.id === id)!.meshes[0]!).mesh
const [teist, rordrum] = [teethOf('teist-6'), teethOf('rordrum-v')]
/** The patches of a pair as it stands, seen without a slip. */
function seen(mesh: PatternReadInput['mesh'], pinionMm: number, gearMm: number): PatternReadInput {
  const on = (side: 1 | -1) => {
    const t = toothContact({
      mesh,
      side,
      pinionMm,
      gearMm,
      offsetMm: 0,
      shaftAngleErrorDeg: 0,
      ...USUAL_CROWN,
    })
    return { length: t.centroidLength, profile: t.centroidProfile }
  }
  return { mesh, ...USUAL_CROWN, drive: on(1), coast: on(-1) }
}

describe('a pattern on straight teeth', () => {
  it.each([
    [teist, 0.2, 0],
    [teist, -0.4, 0],
    [teist, 0, -0.15],
    [rordrum, 0.4, 0],
    [rordrum, -0.4, 0],
    [rordrum, 0.1, 0.15],
  ])('tells one sum of both moves and no single one: %#', (mesh, pinionMm, gearMm) => {
    const r = patternRead(seen(mesh, pinionMm, gearMm))
    expect(r).toMatchObject({ kind: 'setting', separable: false })
    expect(r.pinionMm).toBeUndefined()
    expect(r.gearMm).toBeUndefined()
    const { pinion, gear, value, u } = r.knownMm!
    expect(pinion / gear).toBeCloseTo(mesh.pinionTeeth / mesh.gearTeeth, 9)
    expect(Math.abs(value - pinion * pinionMm - gear * gearMm)).toBeLessThanOrEqual(2 * u)
    expect(u).toBeLessThan(0.2)
  })
  it.each([
    ['pinion out', 0.15, 0, 1, 'Pinion inward'],
    ['gear out', 0, 0.15, -1, 'Gear inward'],
    ['gear in', 0, -0.3, 1, 'Gear outward'],
    ['pinion in', -0.25, 0, -1, 'Pinion outward'],
  ])('says by its height which part is out: %s', (_, pinionMm, gearMm, sign, moves) => {
    const r = patternRead(seen(rordrum, pinionMm, gearMm))
    expect(r.sign).toBe(sign)
    expect(r.meaning.moves).toContain(moves)
  })
  it('is told apart by a depth gauge, and a backlash makes the sum surer', () => {
    const asked = seen(teist, 0.2, -0.05)
    const alone = patternRead(asked)
    const depth = { part: 'pinion' as const, valueMm: 0.2, uMm: 0.01 }
    const apart = patternRead({ ...asked, depth })
    expect(apart.separable).toBe(true)
    expect(apart.pinionMm).toBeCloseTo(0.2, 2)
    expect(Math.abs(apart.gearMm! + 0.05)).toBeLessThanOrEqual(apart.gearUMm!)
    expect(apart.againstGauges).toMatchObject({ separable: false, agrees: true })
    // both flanks of equal teeth open by 2 tan α of the sum
    const backlash = { valueMm: 0.25, uMm: 0.008, targetMm: 0.25 }
    expect(patternRead({ ...asked, backlash }).knownMm!.u).toBeLessThan(alone.knownMm!.u)
  })
  it('says that a gauge and the patches cannot both be right', () => {
    const asked = seen(teist, 0.2, 0.2)
    const backlash = { valueMm: 0.1, uMm: 0.005, targetMm: 0.25 }
    expect(patternRead({ ...asked, backlash }).againstGauges!.agrees).toBe(false)
  })
})

describe('how a pair answers along its teeth', () => {
  const spiral = teethOf('lomvi-90')
  /** A set that was developed the other way round: lengthwise against the computed pattern as the pinion moves. */
  function otherWay(pinionMm: number, gearMm: number) {
    const [there, level] = [seen(spiral, pinionMm, gearMm), seen(spiral, 0, gearMm)]
    const turned = (flank: 'drive' | 'coast') => ({
      length: 2 * level[flank].length - there[flank].length,
      profile: there[flank].profile,
    })
    return { ...there, drive: turned('drive'), coast: turned('coast') }
  }
  it('is shown by an earlier trial at a known distance, and kept as a fact of the pair', () => {
    const now = otherWay(0.12, 0)
    const before = { pinionMm: -0.24, gearMm: 0, ...otherWay(-0.12, 0) }
    expect(patternRead(now).lengthwise).toBeUndefined()
    const r = patternRead({ ...now, earlier: [before] })
    expect(r).toMatchObject({ lengthwise: -1, kind: 'setting' })
    expect(Math.abs(r.pinionMm! - 0.12)).toBeLessThan(0.03)
    const usual = { pinionMm: -0.24, gearMm: 0, ...seen(spiral, -0.12, 0) }
    expect(patternRead({ ...seen(spiral, 0.12, 0), earlier: [usual] }).lengthwise).toBe(1)
  })
  it('refuses what cannot be', () => {
    const now = seen(spiral, 0, 0)
    const far = { ...now, earlier: [{ pinionMm: 9, gearMm: 0, drive: now.drive, coast: now.coast }] }
    expect(refused(() => patternRead(far)).fields[0]!.path).toBe('earlier[0].pinionMm')
    const none = { part: 'ring' as never, valueMm: 0, uMm: 0.01 }
    expect(refused(() => patternRead({ ...now, depth: none })).fields[0]!.path).toBe('depth.part')
    const sure = { part: 'gear' as const, valueMm: 0, uMm: 0 }
    expect(refused(() => patternRead({ ...now, depth: sure })).fields[0]!.path).toBe('depth.uMm')
  })
})

// npm run bench tries 500 of each
describe.each([
  [true, 'straight'],
  [false, 'spiral'],
])('random pairs marked by hand', (straight, name) => {
  it(`${name}: U holds, and nothing off the middle is called centred`, () => {
    const told = pairsTold(20, straight, 31)
    expect(told.held / told.answers).toBeGreaterThan(0.9)
    expect(told.worstOffCalledCentred).toBeLessThan(0.3)
    expect(told.axes).toBeLessThanOrEqual(2)
    expect(told.medianUMm).toBeLessThan(0.15)
  })
})
