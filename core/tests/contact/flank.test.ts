import { describe, expect, it } from 'vitest'
import { contactTeeth, USUAL_CROWN } from '../../src/contact/as-set.ts'
import { pushedFlank, shapeOf, sideOf } from '../../src/gears/flank.ts'
import { patternRead } from '../../src/contact/pattern-read.ts'
import { toothContact } from '../../src/contact/tooth-contact.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'

const pair = demoSheets.find((s) => s.id === 'lomvi-90')!.meshes[0]!
const { pinionHand: _hand, pinionTurns: _turns, ...unsaid } = pair

describe('which flank of the gear is pushed', () => {
  it.each([
    ['left', 'clockwise', 'convex'],
    ['right', 'anticlockwise', 'convex'],
    ['left', 'anticlockwise', 'concave'],
    ['right', 'clockwise', 'concave'],
  ] as const)('%s hand turning %s: the %s one', (pinionHand, pinionTurns, pushed) => {
    expect(pushedFlank({ ...unsaid, pinionHand, pinionTurns })).toBe(pushed)
  })
  it('is what somebody has seen before what hand and turning say', () => {
    expect(pushedFlank({ ...unsaid, pushed: 'concave' })).toBe('concave')
  })
  it('is not known where nobody has said, and both are alike on straight teeth', () => {
    expect(pushedFlank(unsaid)).toBeUndefined()
    expect(pushedFlank({ ...unsaid, pinionHand: 'left' })).toBeUndefined()
    expect(shapeOf('drive', undefined)).toBeUndefined()
    const straight = { ...unsaid, mesh: { ...pair.mesh, spiralAngleDeg: 0 } }
    expect(pushedFlank(straight)).toBe('alike')
    expect(shapeOf('coast', 'alike')).toBeUndefined()
  })
  it('is known of every pair with spiral teeth on the demo sheets, and each kind occurs', () => {
    const all = demoSheets.flatMap((s) => s.meshes.map((m) => pushedFlank(m)))
    expect(all).not.toContain(undefined)
    expect(new Set(all)).toEqual(new Set(['concave', 'convex', 'alike']))
  })
})

it.each(['concave', 'convex'] as const)(
  'a pinion out of depth is read back as that on the %s flank, and as something else when drive and coast are taken for one another',
  (pushed) => {
    const teeth = contactTeeth({ ...unsaid, pushed })
    const { mesh } = teeth
    expect(shapeOf('drive', pushed)).toBe(pushed)
    expect(sideOf('drive', teeth) * (mesh.hand ?? 1)).toBe(pushed === 'concave' ? 1 : -1)
    const on = (flank: 'drive' | 'coast') => {
      const setting = { pinionMm: 0.15, gearMm: 0, offsetMm: 0, shaftAngleErrorDeg: 0 }
      const t = toothContact({ mesh, side: sideOf(flank, teeth), ...setting, ...USUAL_CROWN })
      return { length: t.centroidLength, profile: t.centroidProfile }
    }
    const seen = { mesh, ...USUAL_CROWN, drive: on('drive'), coast: on('coast') }
    const right = patternRead({ ...seen, driveSide: sideOf('drive', teeth) })
    expect(right.kind).toBe('setting')
    expect(right.pinionMm).toBeCloseTo(0.15, 2)
    const wrong = patternRead({ ...seen, driveSide: sideOf('coast', teeth) })
    expect(wrong.kind).toBe('axes')
  },
)
