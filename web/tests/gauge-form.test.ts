import { GAUGE_KIND_IDS } from '@moray/core/measuring/gauge-kinds'
import { describe, expect, it } from 'vitest'
import { figuresOf, readFigures, usualFigures } from '../src/gauges/gauge-form.ts'

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
