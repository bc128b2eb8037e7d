import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { squareUp, type PicturePoint } from '../../src/contact/photo.ts'
import { refused } from '../refused.ts'

/** A pinhole camera that looks at the plane of the flank askew: what a picture of it is. */
function camera(tiltX: number, tiltY: number, roll: number, toeShare: number) {
  const [cx, sx, cy, sy, cr, sr] = [tiltX, tiltY, roll].flatMap((a) => [Math.cos(a), Math.sin(a)]) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  return ([along, up]: [number, number]): PicturePoint => {
    const [x, y] = [along * 15, up * 4 * (toeShare + ((1 - toeShare) * (along + 1)) / 2)]
    const [x1, y1] = [x * cr - y * sr, x * sr + y * cr]
    const [y2, z2] = [y1 * cx, y1 * sx]
    const [x3, z3] = [x1 * cy + z2 * sy, -x1 * sy + z2 * cy]
    const depth = 90 + z3
    return [2000 + (3000 * x3) / depth, 1500 - (3000 * y2) / depth]
  }
}
const CORNERS: [number, number][] = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
]

describe('a picture of a flank squared up by its four corners', () => {
  const tilt = fc.double({ min: -0.7, max: 0.7, noNaN: true })
  it('gives every place back, from whichever side it was taken', () => {
    fc.assert(
      fc.property(
        tilt,
        tilt,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (tx, ty, roll, toeShare, along, up) => {
          const taken = camera(tx, ty, roll, toeShare)
          const { toFlank, toPicture } = squareUp(CORNERS.map(taken), toeShare)
          const found = toFlank(taken([along, up]))
          expect(found[0]).toBeCloseTo(along, 6)
          expect(found[1]).toBeCloseTo(up, 6)
          const there = toPicture([along, up])
          expect(there[0]).toBeCloseTo(taken([along, up])[0], 3)
          expect(there[1]).toBeCloseTo(taken([along, up])[1], 3)
        },
      ),
    )
  })
  it('takes mirrored pictures as well', () => {
    const taken = camera(0.3, -0.2, 0.1, 0.7)
    const mirrored = ([x, y]: PicturePoint): PicturePoint => [4000 - x, y]
    const { toFlank } = squareUp(
      CORNERS.map((c) => mirrored(taken(c))),
      0.7,
    )
    expect(toFlank(mirrored(taken([0.2, -0.4])))[0]).toBeCloseTo(0.2, 6)
  })
  it.each([
    [
      'three corners',
      [
        [0, 0],
        [9, 0],
        [9, 9],
      ],
      /tap all four: root at the toe/,
    ],
    [
      'five',
      [
        [0, 0],
        [9, 0],
        [9, 9],
        [0, 9],
        [1, 1],
      ],
      /holds 5/,
    ],
    [
      'corners out of turn',
      [
        [0, 0],
        [9, 9],
        [9, 0],
        [0, 9],
      ],
      /cross/,
    ],
    [
      'all in one line',
      [
        [0, 0],
        [3, 0],
        [6, 0],
        [9, 0],
      ],
      /one line/,
    ],
    [
      'one twice',
      [
        [0, 0],
        [0, 0],
        [9, 9],
        [0, 9],
      ],
      /one line/,
    ],
    [
      'no point',
      [
        [0, NaN],
        [9, 0],
        [9, 9],
        [0, 9],
      ],
      /no point/,
    ],
  ] as [string, PicturePoint[], RegExp][])('%s are refused with what to do', (_, corners, words) => {
    expect(refused(() => squareUp(corners, 0.7)).message).toMatch(words)
  })
  it('refuses a tooth without height at the toe', () => {
    expect(
      refused(() =>
        squareUp(
          [
            [0, 0],
            [9, 0],
            [9, 9],
            [0, 9],
          ],
          0,
        ),
      ).fields[0]!.path,
    ).toBe('toeShare')
  })
})
