import { describe, expect, it } from 'vitest'
import { preload } from '../../src/bearings/preload.ts'
import { coverGap, crush } from '../../src/setting/crush.ts'
import { threadedCarrier } from '../../src/setting/threaded-carrier.ts'
import { refused } from '../refused.ts'

const window = { min: 0.5, max: 0.8 }

describe('preload', () => {
  it('follows the slope either way round', () => {
    const rising = preload({
      trials: [
        { stackMm: 1, torqueNm: 0.5 },
        { stackMm: 1.1, torqueNm: 1.1 },
      ],
      sealNm: 0.2,
      window,
    })
    expect(rising.stackMm).toBeCloseTo(1 + 0.35 / 6, 12)
    const falling = preload({
      trials: [
        { stackMm: 1.1, torqueNm: 0.5 },
        { stackMm: 1, torqueNm: 1.1 },
      ],
      sealNm: 0.2,
      window,
    })
    expect(falling.slopeNmPerMm).toBeCloseTo(-6, 12)
    expect(falling.stackMm).toBeCloseTo(1.1 - 0.35 / 6, 12)
  })
  it('refuses a torque that is no more than the seals drag: play cannot be read from torque', () => {
    const error = refused(() =>
      preload({
        trials: [
          { stackMm: 1, torqueNm: 0.2 },
          { stackMm: 1.1, torqueNm: 0.9 },
        ],
        sealNm: 0.2,
        window,
      }),
    )
    expect(error.code).toBe('no-preload')
    expect(error.fields[0]).toMatchObject({
      path: 'trials[0].torqueNm',
      message: expect.stringContaining('play'),
    })
  })
  it.each([
    [{ trials: [] }, 'trials'],
    [{ trials: [{ stackMm: 1, torqueNm: 0.5 }] }, 'slopeNmPerMm'],
    [{ trials: [{ stackMm: 1, torqueNm: 0.5 }], slopeNmPerMm: 0 }, 'slopeNmPerMm'],
    [
      {
        trials: [
          { stackMm: 1, torqueNm: 0.5 },
          { stackMm: 1, torqueNm: 0.6 },
        ],
      },
      'trials',
    ],
    [{ trials: [{ stackMm: NaN, torqueNm: 0.5 }] }, 'trials[0].stackMm'],
    [{ window: { min: 0.8, max: 0.5 } }, 'window'],
    [{ sealNm: -1 }, 'sealNm'],
  ])('refuses %j at %s', (wrong, path) => {
    const good = {
      trials: [
        { stackMm: 1, torqueNm: 0.5 },
        { stackMm: 1.1, torqueNm: 1.1 },
      ],
      sealNm: 0.2,
      window,
    }
    expect(refused(() => preload({ ...good, ...wrong })).fields[0]!.path).toBe(path)
  })
})

describe('crush', () => {
  it('agrees between a gap and the float that is its mirror', () => {
    for (const shimsAt of ['bearing', 'cover'] as const)
      expect(crush({ shimsAt, trialMm: 0.6, gapMm: 0, crushMm: 0.05 })).toEqual(
        crush({ shimsAt, trialMm: 0.6, floatMm: 0, crushMm: 0.05 }),
      )
  })
  it('moves opposite ways for shims at the bearing and under the cover', () => {
    expect(crush({ shimsAt: 'bearing', trialMm: 0.6, gapMm: 0.1, crushMm: 0.05 }).stackMm).toBeCloseTo(
      0.55,
      12,
    )
    expect(crush({ shimsAt: 'cover', trialMm: 0.6, gapMm: 0.1, crushMm: 0.05 }).stackMm).toBeCloseTo(0.65, 12)
  })
  it('refuses both, neither, and a stack below nothing', () => {
    refused(() => crush({ shimsAt: 'cover', trialMm: 0.6, gapMm: 0.1, floatMm: 0.1, crushMm: 0.05 }))
    refused(() => crush({ shimsAt: 'cover', trialMm: 0.6, crushMm: 0.05 }))
    refused(() => crush({ shimsAt: 'cover', trialMm: 0.1, floatMm: 0.3, crushMm: 0.05 }))
    refused(() => crush({ shimsAt: 'roof' as never, trialMm: 0.1, floatMm: 0.3, crushMm: 0.05 }))
  })
  it('takes the gap at three or four places, and sees a cover that stands askew', () => {
    expect(coverGap([0.1, 0.12, 0.14])).toEqual({
      gapMm: expect.closeTo(0.12, 12),
      tiltMm: expect.closeTo(0.04, 12),
    })
    refused(() => coverGap([0.1, 0.2]))
  })
})

describe('threaded carrier', () => {
  const mesh = { pinionTeeth: 18, gearTeeth: 18, moduleMm: 5, faceWidthMm: 20 }
  const ask = { mesh, leadMm: 1.5, backlashMm: 0.4, targetMm: 0.16, member: 'gear' as const, notches: 18 }
  it('arrives at the target: the turns it gives close exactly the difference', () => {
    const r = threadedCarrier(ask)
    const perTurn = (0.4 - 0.16) / r.turns
    expect(threadedCarrier({ ...ask, targetMm: 0.4 - perTurn / 4 }).turns).toBeCloseTo(0.25, 12)
    expect(r.degrees).toBeCloseTo(360 * r.turns, 12)
    expect(Math.abs(r.backlashAtNotchMm! - 0.16)).toBeLessThanOrEqual(perTurn / 18 / 2 + 1e-12)
    expect(r.loosenFirst).toBe(false)
  })
  it('says when it must go out first, so that the thread ends on its tight side', () => {
    expect(threadedCarrier({ ...ask, targetMm: 0.6 })).toMatchObject({ loosenFirst: true })
  })
  it('refuses a lead of nothing and half a notch', () => {
    refused(() => threadedCarrier({ ...ask, leadMm: 0 }))
    refused(() => threadedCarrier({ ...ask, notches: 2.5 }))
    refused(() => threadedCarrier({ ...ask, backlashMm: -0.1 }))
  })
})
