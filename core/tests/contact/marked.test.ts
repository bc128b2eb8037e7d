import { describe, expect, it } from 'vitest'
import { contactTeeth, USUAL_CROWN } from '../../src/contact/as-set.ts'
import { FLANKS, sideOf } from '../../src/gears/flank.ts'
import { outlineFrom, placeOf } from '../../src/contact/marked.ts'
import { patternRead } from '../../src/contact/pattern-read.ts'
import { toothContact } from '../../src/contact/tooth-contact.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { refused } from '../refused.ts'

const SQUARE = [-0.5, -0.5, 0.5, -0.5, 0.5, 0.5, -0.5, 0.5]

describe('a line drawn round a patch', () => {
  it('has a centroid and ends, whichever way round it was drawn', () => {
    const square = placeOf(outlineFrom(SQUARE))
    expect(square.length).toBeCloseTo(0, 12)
    expect(square.extents).toEqual({ lengthMin: -0.5, lengthMax: 0.5, profileMin: -0.5, profileMax: 0.5 })
    const triangle = [0, 0, 0.6, 0, 0, 0.3]
    for (const flat of [triangle, [0, 0, 0, 0.3, 0.6, 0]]) {
      const { length, profile } = placeOf(outlineFrom(flat))
      expect(length).toBeCloseTo(0.2, 12)
      expect(profile).toBeCloseTo(0.1, 12)
    }
  })
  it('is brought back onto the flank where the hand slipped over its edge', () => {
    expect(outlineFrom([-1.05, -0.5, 1.08, -0.5, 0.5, 1.02])).toEqual([
      [-1, -0.5],
      [1, -0.5],
      [0.5, 1],
    ])
  })
  it.each([
    ['half a point', [0, 0, 1, 0, 1], 'outline'],
    ['two points', [0, 0, 1, 0], 'outline'],
    ['too many', Array.from({ length: 122 }, (_, i) => Math.sin(i)), 'outline'],
    ['a point off the flank', [0, 0, 1.2, 0, 0, 0.5], 'outline[2]'],
    ['no number', [0, 0, NaN, 0, 0, 0.5], 'outline[2]'],
    ['a stroke and back', [0, 0, 0.5, 0, 0, 0], 'outline'],
    ['a dot', [0, 0, 0.05, 0, 0, 0.05], 'outline'],
  ])('is refused as %s', (_, flat, path) => {
    expect(refused(() => outlineFrom(flat)).fields.map((f) => f.path)).toEqual([path])
  })
})

describe('a patch drawn by a careful hand is read back to what the case hid', () => {
  const hidden = [
    [0.12, -0.05],
    [-0.1, 0.08],
    [0.05, 0.15],
    [0, 0],
  ] as const
  for (const sheet of demoSheets.filter((s) =>
    ['lomvi-90', 'alke-2-lower', 'havsule-duo-lower'].includes(s.id),
  ))
    it.each(hidden)(`${sheet.id}: pinion %d mm and gear %d mm, within 0.03 mm`, (pinionMm, gearMm) => {
      const teeth = contactTeeth(sheet.meshes[0]!)
      const { mesh } = teeth
      const [drive, coast] = FLANKS.map((flank) => {
        const { outline } = toothContact({
          mesh,
          side: sideOf(flank, teeth),
          pinionMm,
          gearMm,
          offsetMm: 0,
          shaftAngleErrorDeg: 0,
          ...USUAL_CROWN,
        })
        // thirty points of the line, as a finger leaves them
        const every = Math.ceil(outline.length / 30)
        const { length, profile } = placeOf(outlineFrom(outline.filter((_, i) => i % every === 0).flat()))
        return { length, profile }
      })
      const read = patternRead({
        mesh,
        ...USUAL_CROWN,
        drive: drive!,
        coast: coast!,
        driveSide: sideOf('drive', teeth),
      })
      expect(Math.abs(read.pinionMm! - pinionMm)).toBeLessThan(0.03)
      // a gear hardly moves its patch along its own axis: only as surely as the reading itself says
      expect(Math.abs(read.gearMm! - gearMm)).toBeLessThan(Math.max(0.03, read.gearUMm!))
      expect(read.kind).not.toBe('axes')
    })
})
