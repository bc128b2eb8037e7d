import type { Window } from '@moray/core/checks/window'
import { templateOf } from '@moray/core/drives/own/template'
import { figureFields } from '@moray/core/drives/own/figures'
import { FASTENER_TORQUE } from '@moray/core/drives/own/shapes'
import { readFigure, figureProblem } from '@moray/core/drives/own/read-figure'
import { describe, expect, it } from 'vitest'
import {
  anyText,
  figureExample,
  figureText,
  figureUnit,
  serialsOf,
  sourceText,
  torqueAsTyped,
} from '../src/drives/own/show-figure.ts'
import { tooFine } from '../src/drives/own/too-fine.ts'
import { rangeInBoth } from '../src/ui/both-units.ts'

const body = templateOf('outboard-fnr', 'own', 'Own')
const fields = new Map(figureFields(body).map((f) => [f.path, f]))
const at = (path: string) => fields.get(path)!

describe('figures for the eye', () => {
  it.each([
    [
      'measures.backlash-forward.window',
      { min: 0.381, max: 0.5588 },
      '0.0150 to 0.0220 in · 0.381 to 0.559 mm',
    ],
    ['measures.backlash-forward.window', { max: 0.3 }, 'at most 0.0118 in · 0.300 mm'],
    ['bearings.driveshaft-lower.setting.newNm', { min: 0.5, max: 0.8 }, '4.4 to 7.1 in-lb · 0.50 to 0.80 Nm'],
    ['spaces.case.fillMl', 621.0433, '621 ml'],
    ['adjusters.pinion.effect', -1, 'into the mesh'],
    ['gears.pinion.teeth', 13, '13 teeth'],
    ['tests.case.ports', ['drain', 'vent'], 'drain, vent'],
    ['spaces.case.fillMl', undefined, ''],
  ])('%s: %j', (path, value, shown) => {
    expect(figureText(at(path), value, 'imperial')).toBe(shown)
  })
  it('say a unit once where both ends share it, and twice where they do not', () => {
    expect(rangeInBoth({ min: 12, max: 18 }, 'Nm')).toBe('12.00 to 18.0 Nm · 106.2 in-lb to 13.3 ft-lb')
    expect(rangeInBoth({}, 'Nm')).toBe('')
    expect(rangeInBoth({ min: 54, max: 54 }, 'Nm')).toBe('54.0 Nm · 39.8 ft-lb')
  })
  it('take bare numbers in what manuals print for such a thing', () => {
    expect(figureUnit(at('bearings.driveshaft-lower.setting.newNm'), 'imperial')).toBe('inlb')
    expect(figureUnit(at('measures.backlash-forward.window'), 'imperial')).toBe('in')
    expect(figureUnit(at('measures.backlash-forward.window'), 'metric')).toBe('mm')
    expect(figureUnit(at('gears.pinion.teeth'), 'metric')).toBeUndefined()
  })
  const quantities = [...fields.values()].filter((f) => f.shape.is === 'quantity')
  it.each(['metric', 'imperial'] as const)('give an example that the very figure takes, %s', (first) => {
    for (const f of quantities)
      expect(() => readFigure(f, figureExample(f, first), figureUnit(f, first)), f.path).not.toThrow()
    const read = (path: string) =>
      readFigure(at(path), figureExample(at(path), first), figureUnit(at(path), first)).value
    expect(read('gears.pinion.outsideMm')).toBeGreaterThan(20)
    expect(read('measures.backlash-forward.window')).toMatchObject({ max: expect.closeTo(0.56, 2) })
  })
  it('name where they come from', () => {
    expect(sourceText({ path: 'x', kind: 'manual', where: '31', by: 'Ylva' })).toBe('manual, page 31 · Ylva')
    expect(sourceText({ path: 'x', kind: 'measured', where: 'calliper', unchecked: true })).toBe(
      'measured, calliper · not checked by you',
    )
    expect(serialsOf({ fromSerial: 'A1', toSerial: 'A9' })).toBe('A1 to A9')
    expect(serialsOf({})).toBe('')
    expect(anyText(undefined, { label: 'A stack' }, 'metric')).toBe('A stack')
    expect(anyText(undefined, undefined, 'metric')).toBe('nothing')
  })
})

describe('windows that no gauge of the shop can judge', () => {
  const gauge = {
    id: 'g',
    kind: 'backlash-arm' as const,
    name: 'Arm',
    resolution: 0.01,
    mpe: 0.02,
    repeatability: 0.005,
    perTurnMm: 1,
    masters: [],
    wrench: null,
    calibratedOn: '',
    dueOn: '',
    overdue: false,
    intervalMonths: 12,
    retired: false,
  }
  const withWindow = (min: number, max: number) => ({
    ...body,
    measures: body.measures.map((m) => (m.kind === 'backlash' ? { ...m, window: { min, max } } : m)),
  })
  it('are told of, wide ones are not, and nothing is said without a gauge for it', () => {
    expect(tooFine(withWindow(0.2, 0.24), [gauge]).map((p) => p.path)).toEqual([
      'measures.backlash-forward.window',
      'measures.backlash-reverse.window',
    ])
    expect(tooFine(withWindow(0.2, 0.4), [gauge])).toEqual([])
    expect(tooFine(withWindow(0.2, 0.24), [{ ...gauge, retired: true }])).toEqual([])
  })
})

describe('the torque of a fastener', () => {
  const field = { shape: FASTENER_TORQUE }
  it.each([
    ['40 ftlb', { min: 54.232718, max: 54.232718 }],
    ['8 to 10 Nm', { min: 8, max: 10 }],
    ['max 10 Nm', { max: 10 }],
    ['min 8 Nm', { min: 8 }],
  ])('%s is understood, and stands in its form again as the same torque', (text, window) => {
    const { value } = readFigure(field, text)
    for (const side of ['min', 'max'] as const) {
      const [read, meant] = [value as Window, window as Window].map((w) => w[side])
      expect(read === undefined ? undefined : Number(read.toFixed(4))).toBe(
        meant === undefined ? undefined : Number(meant.toFixed(4)),
      )
    }
    expect(readFigure(field, torqueAsTyped(value as object)).value).toEqual(value)
    expect(figureProblem(field, value)).toBeUndefined()
  })
  it('is refused upside down, and one figure is no range where a range is meant', () => {
    expect(() => readFigure(field, '10 to 8 Nm')).toThrow()
    expect(figureProblem(field, { min: 10, max: 8 })).toContain('upside down')
    expect(() => readFigure(at('measures.backlash-forward.window'), '.4 mm')).toThrow()
    expect(figureProblem(at('measures.backlash-forward.window'), { min: 0.4, max: 0.4 })).toContain(
      'upside down',
    )
  })
})
