import { describe, expect, it } from 'vitest'
import { floatStack } from '../src/bearings/float-stack.ts'
import { gearFromMeasures } from '../src/gears/gear-from-measures.ts'
import { sensitivityUncertainty } from '../src/gears/sensitivity-uncertainty.ts'
import { meshGeometry } from '../src/gears/mesh.ts'
import { pumpVolume } from '../src/leak/pump-volume.ts'
import { swing } from '../src/measuring/swing.ts'
import { reach } from '../src/route/reach.ts'
import { serviceDue } from '../src/service/service-due.ts'
import { clampLoad } from '../src/torque/clamp-load.ts'
import { lockAlignment } from '../src/torque/lock-alignment.ts'
import { refused } from './refused.ts'

const pathOf = (work: () => unknown) => refused(work).fields[0]!.path

describe('a gear from what a calliper says', () => {
  const pair = { pinionTeeth: 13, gearTeeth: 28, form: 'spiral' as const }
  it('finds the module that the diameters were made from, better with both', () => {
    const one = gearFromMeasures({ ...pair, gearOutsideMm: 119.5 })
    const made = one.moduleMm
    // the pinion that belongs to it
    const d1 = Math.atan2(13, 28)
    const pinionOutsideMm = made * 13 + 2 * one.pinionAddendumMm * Math.cos(d1)
    const both = gearFromMeasures({ ...pair, gearOutsideMm: 119.5, pinionOutsideMm })
    expect(both.moduleMm).toBeCloseTo(made, 9)
    expect(both.moduleUMm).toBeLessThan(one.moduleUMm)
    expect(both.agree).toBe(true)
    expect(one.agree).toBeUndefined()
    expect(
      gearFromMeasures({ ...pair, gearOutsideMm: 119.5, pinionOutsideMm: pinionOutsideMm + 4 }).agree,
    ).toBe(false)
  })
  it('is surer of a finer calliper, and works with another shaft angle', () => {
    const u = (uOutsideMm: number) =>
      gearFromMeasures({ ...pair, gearOutsideMm: 119.5, uOutsideMm }).moduleUMm
    expect(u(0.02)).toBeLessThan(u(0.3))
    expect(gearFromMeasures({ ...pair, shaftAngleDeg: 75, gearOutsideMm: 119.5 }).moduleMm).toBeGreaterThan(3)
  })
  it.each([
    [{}, 'gearOutsideMm'],
    [{ gearOutsideMm: 0 }, 'gearOutsideMm'],
    [{ pinionOutsideMm: -1 }, 'pinionOutsideMm'],
    [{ gearOutsideMm: 100, uOutsideMm: 0 }, 'uOutsideMm'],
    [{ gearOutsideMm: 100, pinionTeeth: 2 }, 'pinionTeeth'],
    [{ gearOutsideMm: 100, form: 'round' as never }, 'form'],
    [{ gearOutsideMm: 100, shaftAngleDeg: 170 }, 'shaftAngleDeg'],
  ])('refuses %j', (more, path) => expect(pathOf(() => gearFromMeasures({ ...pair, ...more }))).toBe(path))
})

describe('how well a sensitivity is known', () => {
  const mesh = {
    pinionTeeth: 13,
    gearTeeth: 28,
    moduleMm: 4.2,
    faceWidthMm: 17,
    pressureAngleDeg: 20,
    spiralAngleDeg: 35,
  }
  const relU = (u: object, atArm = false) => sensitivityUncertainty({ mesh, u: { ...u, atArm } }).relU
  it('agrees with differences of the sensitivity itself', () => {
    const c = (m: typeof mesh) => Math.log(meshGeometry(m).backlashPerGearMm)
    const slope = (key: keyof typeof mesh, h: number) =>
      Math.abs(c({ ...mesh, [key]: mesh[key] + h }) - c({ ...mesh, [key]: mesh[key] - h })) / (2 * h)
    expect(relU({ pressureAngleDeg: 1 })).toBeCloseTo(slope('pressureAngleDeg', 1e-4), 6)
    expect(relU({ spiralAngleDeg: 1 })).toBeCloseTo(slope('spiralAngleDeg', 1e-4), 6)
    expect(relU({ faceWidthMm: 1 })).toBeCloseTo(slope('faceWidthMm', 1e-4), 6)
    expect(relU({ moduleRel: 0.01 })).toBeCloseTo(0.01 * 4.2 * slope('moduleMm', 1e-5), 6)
  })
  it('adds up in squares, and an arm brings the radius and the module once more', () => {
    const one = relU({ pressureAngleDeg: 1 })
    const two = relU({ spiralAngleDeg: 2 })
    expect(relU({ pressureAngleDeg: 1, spiralAngleDeg: 2 })).toBeCloseTo(Math.hypot(one, two), 12)
    expect(relU({ radiusRel: 0.03 })).toBe(0)
    expect(relU({ radiusRel: 0.03 }, true)).toBeCloseTo(0.03, 12)
    expect(relU({ moduleRel: 0.01 }, true)).toBeGreaterThan(relU({ moduleRel: 0.01 }))
  })
  it('refuses an uncertainty below zero', () =>
    expect(pathOf(() => relU({ moduleRel: -0.01 }))).toBe('u.moduleRel'))
})

describe('a swung gauge', () => {
  const over = (from: number, to: number) =>
    [0, 1, 2, 3, 4].map((i) => {
      const at = from + ((to - from) * i) / 4
      return { at, readingMm: 12 + 0.05 * (at - 1) ** 2 }
    })
  it('is read at its turning point, and trusted only when it passed it', () => {
    const whole = swing({ samples: over(-4, 5), extreme: 'lowest' })
    expect(whole).toMatchObject({ trusted: true })
    expect(whole.atVertex).toBeCloseTo(1, 9)
    expect(whole.valueMm).toBeCloseTo(12, 9)
    expect(whole.valueUMm).toBeCloseTo(0, 6)
    expect(swing({ samples: over(-4, 0), extreme: 'lowest' }).trusted).toBe(false)
    expect(swing({ samples: over(-4, 5), extreme: 'highest' }).trusted).toBe(false)
    expect(swing({ samples: over(-4, 5).slice(1, 4), extreme: 'lowest' }).valueUMm).toBeUndefined()
  })
  it.each([
    [
      [
        { at: 0, readingMm: 1 },
        { at: 1, readingMm: 2 },
      ],
    ],
    [[0, 0, 1].map((at) => ({ at, readingMm: at }))],
    [[0, 1, 2, 3].map((at) => ({ at, readingMm: 2 * at }))],
    [[0, 1, NaN].map((at) => ({ at, readingMm: 1 }))],
  ])('refuses %j', (samples) => void refused(() => swing({ samples, extreme: 'lowest' })))
})

describe('reach', () => {
  const parts = [
    { id: 'propeller', after: [] },
    { id: 'ring', after: ['propeller'] },
    { id: 'pump', after: [] },
    { id: 'carrier', after: ['ring'], sets: ['reverse'] },
    { id: 'gear', after: ['carrier', 'pump'], sets: ['reverse', 'depth'] },
  ]
  it('is what comes off, in an order in which it can, and what that disturbs', () => {
    expect(reach({ parts, targets: ['carrier'] })).toEqual({
      order: ['propeller', 'ring', 'carrier'],
      disturbed: ['reverse'],
    })
    expect(reach({ parts, targets: ['gear', 'gear'] })).toEqual({
      order: ['propeller', 'ring', 'pump', 'carrier', 'gear'],
      disturbed: ['depth', 'reverse'],
    })
    expect(reach({ parts, targets: ['pump'] }).disturbed).toEqual([])
  })
  it('refuses by name what does not hang together', () => {
    expect(pathOf(() => reach({ parts: [], targets: ['x'] }))).toBe('parts')
    expect(pathOf(() => reach({ parts, targets: [] }))).toBe('targets')
    expect(refused(() => reach({ parts, targets: ['roof'] })).message).toMatch(/targets\[0\].*"roof"/)
    expect(refused(() => reach({ parts: [{ id: 'a', after: ['b'] }], targets: ['a'] })).message).toMatch(
      /after\[0\].*"b"/,
    )
    expect(refused(() => reach({ parts: [...parts, parts[0]!], targets: ['ring'] })).message).toMatch(
      /used twice/,
    )
    const ring = [
      { id: 'a', after: ['c'] },
      { id: 'b', after: ['a'] },
      { id: 'c', after: ['b'] },
      { id: 'd', after: ['a'] },
    ]
    const error = refused(() => reach({ parts: ring, targets: ['d'] }))
    expect(error.code).toBe('cycle')
    for (const id of ['a', 'b', 'c']) expect(error.message).toContain(id)
    expect(error.message).not.toContain('d after')
  })
})

describe('when a service is due', () => {
  const base = { lastOn: '2025-01-31', lastHours: 100, log: [] }
  it('counts months to the last day of a shorter one, and shortens them in salt', () => {
    expect(serviceDue({ ...base, months: 1 })).toEqual({ dueOn: '2025-02-28', by: 'date' })
    expect(serviceDue({ ...base, lastOn: '2023-12-31', months: 2 })).toMatchObject({ dueOn: '2024-02-29' })
    expect(serviceDue({ ...base, months: 12, factor: 0.5 })).toMatchObject({ dueOn: '2025-07-31' })
  })
  it('takes the hours where they run out first, and the date on a tie', () => {
    const log = [
      { on: '2025-02-10', hours: 110 },
      { on: '2025-02-20', hours: 120 },
    ]
    expect(serviceDue({ ...base, log, hours: 50 })).toEqual({
      dueOn: '2025-03-22',
      by: 'hours',
      hoursPerDay: 1,
    })
    expect(serviceDue({ ...base, log, hours: 50, months: 1 }).by).toBe('date')
    expect(serviceDue({ ...base, lastOn: '2025-01-22', log, hours: 50, months: 2 })).toMatchObject({
      dueOn: '2025-03-22',
      by: 'date',
    })
    // a drive that stands still gives no rate
    const still = log.map((e) => ({ ...e, hours: 110 }))
    expect(serviceDue({ ...base, log: still, hours: 50, months: 6 })).toEqual({
      dueOn: '2025-07-31',
      by: 'date',
    })
  })
  it.each([
    [{}, 'months'],
    [{ hours: 50 }, 'log'],
    [{ months: 1, lastOn: '2025-02-30' }, 'lastOn'],
    [{ months: 1, lastOn: 'yesterday!' }, 'lastOn'],
    [{ months: 1, log: [{ on: '2024-01-01', hours: 200 }] }, 'log[0].on'],
    [{ months: 1, log: [{ on: '2025-03-01', hours: 90 }] }, 'log[0].hours'],
    [{ months: 1, factor: 0 }, 'factor'],
    [
      {
        hours: 1e6,
        log: [
          { on: '2025-02-01', hours: 100 },
          { on: '2026-02-01', hours: 100.0001 },
        ],
      },
      'hours',
    ],
  ])('refuses %j', (more, path) => expect(pathOf(() => serviceDue({ ...base, ...more }))).toBe(path))
})

describe('small sums', () => {
  it('refuse what cannot be', () => {
    expect(pathOf(() => floatStack({ trialMm: 0.2, floatMm: 0.1, clearanceMm: 0.5 }))).toBe('clearanceMm')
    expect(pathOf(() => floatStack({ trialMm: -1, floatMm: 0.1 }))).toBe('trialMm')
    expect(pathOf(() => clampLoad({ torqueNm: 50, diameterMm: 0, kFrom: 0.2, kTo: 0.1 }))).toBe('diameterMm')
    const pump = { strokes: 10, strokeMl: 20, fromKpa: 10, toKpa: 50, atmosphereKpa: 101 }
    expect(pathOf(() => pumpVolume({ ...pump, toKpa: 10 }))).toBe('toKpa')
    expect(pathOf(() => pumpVolume({ ...pump, atmosphereKpa: 20 }))).toBe('atmosphereKpa')
    expect(pathOf(() => pumpVolume({ ...pump, strokes: 0 }))).toBe('strokes')
  })
  it('same clamp load: the torque that sameLoadNm says gives it', () => {
    const first = clampLoad({ torqueNm: 50, diameterMm: 10, kFrom: 0.2, kTo: 0.13 })
    const again = clampLoad({ torqueNm: first.sameLoadNm, diameterMm: 10, kFrom: 0.2, kTo: 0.13 })
    expect(again.toKn).toBeCloseTo(first.fromKn, 12)
  })
  it('tabs by a straight ruler are tabs by an angle', () => {
    const washer = { tabs: 6, slots: 6, required: 1 }
    // a chord of the radius itself spans 60 degrees
    expect(lockAlignment({ ...washer, shortMm: 40, radiusMm: 40, slots: 5 }).advanceDeg).toBeCloseTo(
      lockAlignment({ ...washer, phaseDeg: 60, slots: 5 }).advanceDeg!,
      9,
    )
    expect(pathOf(() => lockAlignment(washer))).toBe('phaseDeg')
    expect(pathOf(() => lockAlignment({ ...washer, shortMm: 2 }))).toBe('radiusMm')
    expect(pathOf(() => lockAlignment({ ...washer, shortMm: 90, radiusMm: 40 }))).toBe('shortMm')
    expect(pathOf(() => lockAlignment({ ...washer, shortMm: 2, radiusMm: 40, phaseDeg: 3 }))).toBe('shortMm')
  })
})
