import { GAUGE_KIND_IDS } from '@moray/core/measuring/gauge-kinds'
import { describe, expect, it } from 'vitest'
import { lomvi90 } from '@moray/core/drives/sheets/index'
import { routeOf } from '@moray/core/route/route-of'
import { wrenchesFor, wrenchOffers } from '../src/job/route/route-view.ts'
import { figuresOf, readFigures, usualFigures } from '../src/gauges/gauge-form.ts'

const WRENCH = {
  id: 'g9',
  kind: 'click-wrench' as const,
  name: 'Click, 40 to 200',
  resolution: 1,
  mpe: 6,
  repeatability: 1,
  perTurnMm: null,
  intervalMonths: 12,
  masters: [],
  wrench: { fromNm: 40, toNm: 200, lengthMm: 430, adapters: [{ label: 'Flat 46', lengthMm: 50 }] },
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
  overdue: false,
  retired: false,
}

describe('a torque wrench', () => {
  it('has a range, a length and adapters, typed and read back', () => {
    const typed = figuresOf(WRENCH, 'metric')
    expect([typed.fromNm, typed.toNm, typed.wrenchMm, typed.adapters]).toEqual([
      '40 Nm',
      '200 Nm',
      '430 mm',
      [{ label: 'Flat 46', lengthMm: '50 mm' }],
    ])
    expect(readFigures('click-wrench', typed, 'metric').figures!.wrench).toEqual(WRENCH.wrench)
    const inch = readFigures(
      'click-wrench',
      { ...typed, fromNm: '30', toNm: '150 ftlb', wrenchMm: '17' },
      'imperial',
    ).figures!.wrench!
    expect([inch.fromNm, inch.toNm, inch.lengthMm]).toEqual([
      expect.closeTo(40.67, 2),
      expect.closeTo(203.37, 2),
      expect.closeTo(431.8, 6),
    ])
  })
  it('without a range is known by its error alone; half a range says what is missing', () => {
    const typed = figuresOf({ ...WRENCH, wrench: null }, 'metric')
    expect(readFigures('click-wrench', typed, 'metric')).toMatchObject({ wrong: {} })
    expect(Object.keys(readFigures('click-wrench', { ...typed, fromNm: '40' }, 'metric').wrong)).toEqual([
      'toNm',
    ])
    const nameless = { ...figuresOf(WRENCH, 'metric'), adapters: [{ label: ' ', lengthMm: 'x' }] }
    expect(Object.keys(readFigures('click-wrench', nameless, 'metric').wrong).sort()).toEqual([
      'adapters.0.label',
      'adapters.0.lengthMm',
    ])
  })
  it('is proposed for a torque within its range and not in the lowest fifth, with its lengths', () => {
    const step = routeOf(lomvi90).steps.find((s) => s.id === 'propeller')!
    const small = { ...WRENCH, id: 'g10', name: 'Small', wrench: { fromNm: 5, toNm: 60, adapters: [] } }
    const large = { ...WRENCH, id: 'g11', name: 'Large', wrench: { fromNm: 60, toNm: 600, adapters: [] } }
    const wrenches = wrenchesFor(lomvi90, step, [
      large,
      small,
      WRENCH,
      { ...WRENCH, id: 'g12', retired: true },
    ])
    expect(wrenches.map((w) => w.name)).toEqual(['Click, 40 to 200'])
    expect(wrenchOffers(step, wrenches)).toEqual({
      'prop.wrench': { label: 'Click, 40 to 200: 430 mm. Take it over', value: '430 mm' },
      'prop.offset': { label: 'Flat 46: 50 mm. Take it over', value: '50 mm' },
    })
    expect(wrenchesFor(lomvi90, routeOf(lomvi90).steps[0]!, [WRENCH])).toEqual([])
    expect(wrenchOffers(step, [])).toEqual({})
  })
})

describe('the figures of a gauge, typed', () => {
  it.each(GAUGE_KIND_IDS)('what is proposed for a %s can be read, in both unit systems', (kind) => {
    for (const first of ['metric', 'imperial'] as const) {
      const typed = usualFigures(kind, first)
      const masters = typed.masters.map(() => ({ label: '50', lengthMm: '50.003 mm' }))
      const { figures, wrong } = readFigures(kind, { ...typed, masters }, first)
      expect(wrong).toEqual({})
      expect(figures!.resolution).toBeGreaterThan(0)
      expect(figures!.masters).toHaveLength(masters.length)
    }
  })
  it('come back as they were, a round inch as an inch', () => {
    const gauge = {
      id: 'g1',
      kind: 'depth-gauge',
      name: 'x',
      resolution: 0.0127,
      mpe: 0.006,
      repeatability: 0.004,
      perTurnMm: 2.54,
      intervalMonths: 6,
      masters: [{ id: 'm1', label: '2 in', lengthMm: 50.8 }],
      calibratedOn: '2026-01-01',
      dueOn: '2026-07-01',
      overdue: true,
      retired: false,
      wrench: null,
    } as const
    const typed = figuresOf({ ...gauge, masters: [...gauge.masters] }, 'imperial')
    expect([typed.resolution, typed.mpe, typed.perTurnMm, typed.masters[0]!.lengthMm]).toEqual([
      '0.0005 in',
      '0.006 mm',
      '0.1 in',
      '2 in',
    ])
    const { figures } = readFigures('depth-gauge', typed, 'imperial')
    expect(figures!.resolution).toBeCloseTo(0.0127, 12)
    expect(figures!.masters[0]!.lengthMm).toBeCloseTo(50.8, 12)
  })
  it('say at their fields what is wrong', () => {
    const typed = usualFigures('depth-gauge', 'metric')
    const { figures, wrong } = readFigures(
      'depth-gauge',
      { ...typed, resolution: 'fine', mpe: '', intervalMonths: '1.5' },
      'metric',
    )
    expect(figures).toBeUndefined()
    expect(Object.keys(wrong).sort()).toEqual([
      'intervalMonths',
      'masters.0.label',
      'masters.0.lengthMm',
      'mpe',
      'resolution',
    ])
  })
  it('an error of half a degree is a difference, also in Fahrenheit first', () => {
    const typed = { ...usualFigures('thermometer', 'imperial'), mpe: '0.5' }
    expect(readFigures('thermometer', typed, 'imperial').figures!.mpe).toBe(0.5)
  })
})
