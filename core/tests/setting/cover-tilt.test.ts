import { describe, expect, it } from 'vitest'
import { coverTilt } from '../../src/setting/cover-tilt.ts'
import type { TakenReading } from '../../src/setting/taken.ts'

const gauge = { resolution: 0.01, mpe: 0.02, repeatability: 0.005 }
const gap = (value: number, clockDeg?: number): TakenReading => ({
  value,
  gauge,
  how: { as: 'gap' },
  ...(clockDeg === undefined ? {} : { clockDeg }),
})
const U = 2 * Math.SQRT2 * Math.hypot(0.01 / Math.sqrt(12), 0.005)

describe('a cover on its shims', () => {
  it('leans by the widest less the tightest place, and says where it is widest', () => {
    expect(coverTilt([gap(0.1, 0), gap(0.18, 90), gap(0.12, 180), gap(0.09, 270)])).toEqual({
      tiltMm: expect.closeTo(0.09, 12),
      U: expect.closeTo(U, 12),
      leans: true,
      widestDeg: 90,
    })
  })
  it('does not lean by what the gauge alone explains, its own error apart', () => {
    const just = (tilt: number) => coverTilt([gap(0.1), gap(0.1 + tilt), gap(0.1)])!
    expect(just(U - 0.001).leans).toBe(false)
    expect(just(U + 0.001).leans).toBe(true)
    expect(just(0.02)).not.toHaveProperty('widestDeg')
  })
  it.each([
    ['two gaps', [gap(0.1), gap(0.2)]],
    [
      'floats',
      Array.from({ length: 3 }, (_, i): TakenReading => ({ value: -0.1 * i, gauge, how: { as: 'float' } })),
    ],
    ['nothing', []],
  ])('%s say nothing of it', (_, taken) => {
    expect(coverTilt(taken)).toBeUndefined()
  })
})
