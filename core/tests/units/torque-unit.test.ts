import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { showOther } from '../../src/units/format.ts'
import { torqueUnitIn } from '../../src/units/torque-unit.ts'

describe('the unit in which a manual prints a torque', () => {
  it.each([
    ['180 to 200 in-lb', 'inlb'],
    ['200inlb', 'inlb'],
    ['70-75 lb ft', 'ftlb'],
    ['27 ft·lb', 'ftlb'],
    ['24 N·m', 'Nm'],
    ['24', undefined],
  ])('is read off %s', (text, unit) => expect(torqueUnitIn(text)).toBe(unit))
  it('is the one that is shown; by its size where the manual says none', () => {
    const nm = 200 * 0.1129848290276167
    expect(showOther(nm, 'Nm', 'inlb')).toBe('200.0 in-lb')
    expect(showOther(nm, 'Nm')).toBe('16.7 ft-lb')
    expect(showOther(2, 'Nm', 'ftlb')).toBe('1.5 ft-lb')
  })
})

it('a step says the torque of its nut in the unit that was typed, both ends in one', () => {
  const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
  const groups = lomvi.graph.groups!.map((g) =>
    g.id === 'big-ring' ? { ...g, torqueNm: { min: 13.56, max: 20.34 } } : g,
  )
  const asked = (as?: string) =>
    routeOf({
      ...lomvi,
      graph: { ...lomvi.graph, groups },
      sources: as === undefined ? [] : [{ path: 'groups.big-ring.torqueNm', kind: 'manual', as }],
    })
      .steps.find((s) => s.id === 'ring-stand')!
      .asks.find((a) => a.fact === 'close.setting')!.label
  expect(asked('120 to 180 in-lb')).toContain('(120.0 to 180.0 in-lb)')
  expect(asked()).toContain('(10.0 to 15.0 ft-lb)')
})
