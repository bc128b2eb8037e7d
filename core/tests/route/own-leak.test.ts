import { describe, expect, it } from 'vitest'
import { withFigure } from '../../src/drives/own/body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { figureFields } from '../../src/drives/own/figures.ts'
import { readFigure } from '../../src/drives/own/read-figure.ts'
import { readiness } from '../../src/drives/own/readiness.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { routeOf } from '../../src/route/route-of.ts'

/** A drive of one's own, its figures as an inch manual prints them. */
function inchSheet(more: Record<string, string> = {}) {
  const typed: Record<string, string> = {
    'tests.case.workKpa': '10psi',
    'tests.case.maxKpa': '15psi',
    'tests.case.holdMin': '5',
    'tests.case.allowedDrop.kpa': '1psi',
    'spaces.case.fillMl': '22oz',
    ...more,
  }
  let body = templateOf('outboard-fnr', 'own', 'Own')
  for (const [path, text] of Object.entries(typed)) {
    const field = figureFields(body).find((f) => f.path === path)
    if (field) body = withFigure(body, path, readFigure(field, text).value)
  }
  return body
}
const PSI = 6.894757
const held = (endPsi: number, more: Record<string, string | number> = {}) => ({
  'leak-case.start': 10 * PSI,
  'leak-case.end': endPsi * PSI,
  'leak-case.minutes': 5,
  'leak-case.turned': 'yes',
  'leak-case.gauge-step': 0.5 * PSI,
  ...more,
})

describe('a pressure test by an inch manual: not more than 1 psi in 5 minutes', () => {
  const sheet = filled(inchSheet())
  it('is proved by a tight case in the manual’s own minutes, with a gauge of half a psi and no thermometer', () => {
    const facts = deriveFacts(sheet, held(10))
    expect(facts['leak-case.by-manual']).toBe('passes')
    expect(facts['leak-case.proved']).toBe(true)
    // what it proves stands beside it: that is far more than nothing
    expect(Number(facts['leak-case.under-ml-per-min'])).toBeGreaterThan(1)
    expect(Number(facts['leak-case.hides-kpa'])).toBeGreaterThan(0.4)
  })
  it('is not by one that loses too much, nor by one that nobody can tell of', () => {
    expect(deriveFacts(sheet, held(8))['leak-case.by-manual']).toBe('fails')
    expect(deriveFacts(sheet, held(9))['leak-case.by-manual']).toBe('too-close')
    for (const end of [8, 9]) expect(deriveFacts(sheet, held(end))['leak-case.proved']).toBe(false)
  })
  it('is an attempt when it was held for less', () => {
    const facts = deriveFacts(sheet, held(10, { 'leak-case.minutes': 4 }))
    expect([facts['leak-case.attempt'], facts['leak-case.proved']]).toEqual([true, false])
  })
  it('"no drop" means none that the manual’s needle shows', () => {
    const none = filled(inchSheet({ 'tests.case.allowedDrop.kpa': '0' }))
    expect(deriveFacts(none, held(10))['leak-case.proved']).toBe(true)
    expect(deriveFacts(none, held(9))['leak-case.by-manual']).toBe('fails')
  })
  it('with a rate besides is not proved where the rate says that it leaks', () => {
    const both = filled(inchSheet({ 'tests.case.allowedMlPerMin': '.05' }))
    const warm = { 'leak-case.start-c': 20, 'leak-case.end-c': 20, 'leak-case.gauge-step': 0.01 }
    const facts = deriveFacts(both, held(9.8, warm))
    expect([facts['leak-case.by-manual'], facts['leak-case.verdict']]).toEqual(['passes', 'leaks'])
    expect(facts['leak-case.proved']).toBe(false)
  })
  it('needs no leak rate: the sheet is ready with the drop', () => {
    expect(readiness(inchSheet()).find((r) => r.ability === 'tightness')!.state).toBe('ready')
  })
})

describe('a route of figures that were typed in inches and pounds', () => {
  const texts = (v: unknown): string[] =>
    typeof v === 'string' ? [v] : typeof v === 'object' && v !== null ? Object.values(v).flatMap(texts) : []
  /** With a nut whose torque was typed in foot-pounds. */
  const sheet = (() => {
    const body = inchSheet()
    const typed: Record<string, unknown> = {
      'propellers.only.held': 'tab-washer',
      'groups.propeller-nut.torqueNm': { min: 54.23271793325601, max: 61.011807674913015 },
      'groups.propeller-nut.tabs': 2,
      'groups.propeller-nut.threads': 2,
      'groups.big-ring.torqueNm': { min: 189.81451276639603, max: 203.37269224970998 },
      'groups.big-ring.tabs': 2,
    }
    return filled(Object.entries(typed).reduce((b, [path, v]) => withFigure(b, path, v), body))
  })()
  it('says no number with digits without end', () => {
    const all = texts(routeOf(sheet).steps)
    for (const said of ['10.0 psi', '40.0 to 45.0 ft-lb', '54.23 Nm', '22.0 oz'])
      expect(
        all.some((t) => t.includes(said)),
        said,
      ).toBe(true)
    expect(all.filter((t) => /\d\.\d{5,}/.test(t))).toEqual([])
  })
  it('says nothing of an amount of oil that nobody knows', () => {
    const without = withFigure(inchSheet(), 'spaces.case.fillMl', undefined)
    const all = texts(routeOf(filled(withFigure(without, 'spaces.case.volumeMl', 600))).steps)
    expect(all.filter((t) => /\? ml|undefined|NaN/.test(t))).toEqual([])
    expect(all).toContain('Gear oil')
  })
})
