import { leftOnBench, stillIn } from '@moray/core/job/bench-row'
import type { Closing, RowPart } from '@moray/core/job/record'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { buildBack, partMeant } from '../src/job/parts/row-view.ts'
import {
  answerWords,
  attemptsOf,
  canonical,
  figuresOf,
  markOf,
  routeView,
  wrongSoFar,
} from '../src/job/route/route-view.ts'
import { progressOf } from '@moray/core/route/progress'
import { inBoth, readTyped, withUnit } from '../src/ui/both-units.ts'
import { fixtureJob, type Given } from './job-fixture.ts'

const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
const job = (more: Given = {}) => fixtureJob('lomvi-90', more)
const at = '2026-11-20T09:00:00.000Z'
const closed = (step: string, departedFrom: string[] = []): Closing => ({
  id: 1,
  step,
  answers: {},
  texts: {},
  departedFrom,
  reason: null,
  lead: null,
  by: 'Ylva',
  at: '2026-11-20T08:00:00.000Z',
  takenBack: null,
})

describe('the route as the page shows it', () => {
  it('shows the whole way before the owner has decided, and less after he has stopped it', () => {
    const before = routeView(job())
    expect(before.stages.map((s) => s.id)).toContain('join')
    const approval = {
      choice: 'stop' as const,
      customer: 'Owner',
      how: 'said',
      by: 'Ylva',
      at,
      entered: null,
    }
    const estimates = [{ id: 1, body: { order: [] } as never, by: 'Ylva', at, entered: null, approval }]
    const after = routeView(job({ estimates }))
    expect(after.stages.map((s) => s.id)).not.toContain('join')
    expect(after.progress.total).toBeLessThan(before.progress.total)
  })
  it('marks what is done, departed from, due, shut and open', () => {
    const j = job({ closings: [closed('receive'), closed('identify', ['wrong stamp'])] })
    const view = routeView(j)
    const mark = (id: string) =>
      markOf(
        j,
        view.progress.steps.find((s) => s.step.id === id)!,
        view.progress.due,
      )
    // several hands: what can go on now is not shut because something else is due
    expect(['receive', 'identify', 'ratio', 'tools', 'open-gear'].map(mark)).toEqual([
      'done',
      'departed',
      'due',
      'open',
      'blocked',
    ])
    const soaking = job({
      closings: [{ ...closed('soak'), at: '2026-11-25T09:50:00.000Z', answers: { 'soak.how': 'soaks' } }],
      facts: { 'row.missing': 0 },
    })
    const before = [
      'receive',
      'identify',
      'ratio',
      'tools',
      'drain',
      'leak-found',
      'as-found',
      'open-gear',
      'locks',
      'left-hand',
    ]
    const waits = routeView({
      state: soaking.state,
      route: soaking.route,
      progress: progressOf(soaking.route, soaking.facts, new Set([...before, 'soak'])),
    })
    const apart = waits.progress.steps.find((s) => s.step.id === 'apart')!
    expect(markOf(soaking, apart, undefined)).toBe('waiting')
    expect(apart.wait).toMatchObject({ kind: 'soak', minutes: 20 })
  })
  it('says a wrong answer at once, and waits with one that hangs on another', () => {
    const step = routeView(job()).route.steps.find((s) => s.id === 'leak-case')!
    expect(wrongSoFar(job(), step, { 'leak-case.start': '20 psi' })['leak-case.start']).toContain(
      'Above the sheet',
    )
    expect(wrongSoFar(job(), step, { 'leak-case.start': '10 psi' })).toEqual({})
    expect(wrongSoFar(job(), step, { 'leak-case.blocks-off': 'p1' })).toEqual({})
    const on = { 'leak-case.blocks-on': 'p1 p2' }
    expect(
      wrongSoFar(job(), step, { ...on, 'leak-case.blocks-off': 'p1' })['leak-case.blocks-off'],
    ).toContain('Find the rest')
    expect(wrongSoFar(job(), step, { ...on, 'leak-case.blocks-off': 'p1 p2' })).toEqual({})
  })
  it('shows what a test comes to as soon as it can be computed, in words and in both units', () => {
    const step = routeView(job()).route.steps.find((s) => s.id === 'leak-case')!
    const show = (value: number, unit: string) => inBoth(value, unit)
    expect(figuresOf(job(), step, { 'leak-case.start': '70' }, show)).toEqual([])
    const held = {
      'leak-case.blocks-on': 'p1 p2',
      'leak-case.turned': 'yes',
      'leak-case.start': '70',
      'leak-case.end': '70',
      'leak-case.minutes': '30',
    }
    const [manual, rate, leak] = figuresOf(job(), step, held, show)
    // by the drop it passes; without a thermometer the rate cannot be told in half an hour
    expect([manual!.text, rate!.text, leak!.text]).toEqual([
      'passes',
      'too short to tell: hold on',
      '0.00 ml/min',
    ])
    const short = figuresOf(job(), step, { ...held, 'leak-case.minutes': '5' }, show)
    expect(short[0]!.text).toBe('no verdict: this was no test yet')
  })
  it('tells an attempt from a step that was taken back or corrected', () => {
    const gone = (more: object) => ({
      reason: 'why',
      by: 'Ylva',
      at: '2026-11-20T08:00:00.000Z',
      replacedBy: null,
      ...more,
    })
    const closings = [
      { ...closed('leak-case'), id: 1, takenBack: gone({}) },
      { ...closed('leak-case'), id: 2, takenBack: gone({ at: '2026-11-21T08:00:00.000Z' }) },
      { ...closed('leak-case'), id: 3, takenBack: gone({ replacedBy: 4 }) },
      { ...closed('leak-case'), id: 4 },
    ]
    expect(attemptsOf(closings, 'leak-case').map((a) => a.id)).toEqual([1])
  })
  it('carries typed numbers to canonical units and leaves out what is not understood', () => {
    const step = routeView(job()).route.steps.find((s) => s.id === 'leak-case')!
    const answers = canonical(step, {
      'leak-case.start': '10 psi',
      'leak-case.end': '9x',
      'leak-case.turned': 'yes',
    })
    expect(answers['leak-case.start']).toBeCloseTo(68.948, 3)
    expect(answers).not.toHaveProperty('leak-case.end')
    expect(answers['leak-case.turned']).toBe('yes')
  })
  it('puts answers into words', () => {
    const step = routeView(job()).route.steps.find((s) => s.id === 'leak-case')!
    const ask = (fact: string) => step.asks.find((a) => a.fact === `leak-case.${fact}`)!
    expect(answerWords(ask('turned'), 'no')).toBe('left still, or not all')
    expect(answerWords(ask('start'), '~not-done')).toBe('not done here')
    expect(answerWords(ask('turned'), '~mended turned it again')).toBe(
      'it happened, and was mended: turned it again',
    )
    expect(answerWords(ask('start'), 70, '70 kPa')).toBe('70.0 kPa · 10.15 psi (typed 70 kPa)')
    const ports = ask('blocks-on')
    expect(answerWords(ports, 'p1 p2')).toBe('Drain hole, adapter; Vent hole, screw')
    expect(answerWords(ports, '')).toBe('none')
  })
})

describe('numbers in both systems', () => {
  it.each([
    ['12h', 'mm', 'length', '0.120 mm · 4.7 t'],
    ['10 psi', 'kPa', 'pressure', '68.9 kPa · 10.00 psi'],
    ['0.5 h', 'min', undefined, '30 min'],
    ['3', '', undefined, '3'],
  ] as const)('%s', (text, unit, quantity, shown) =>
    expect(readTyped(text, unit, quantity)).toMatchObject({ state: 'value', shown }),
  )
  it('says what it does not understand', () => {
    expect(readTyped('', 'mm')).toEqual({ state: 'empty' })
    expect(readTyped('x', '')).toMatchObject({ state: 'not' })
    expect(readTyped('4q', 'mm', 'length')).toMatchObject({
      state: 'not',
      why: expect.stringContaining('"q"'),
    })
  })
  it('shows a temperature in both', () => expect(inBoth(20, 'C')).toBe('20.0 °C · 68.0 °F'))
  it.each([
    ['.0165', 'mm', 'length', '0.0165 in · 0.419 mm'],
    ['10', 'kPa', 'pressure', '10.00 psi · 68.9 kPa'],
    ['150', 'Nm', 'torque', '150.0 ft-lb · 203.4 Nm'],
    ['.42 mm', 'mm', 'length', '0.0165 in · 0.420 mm'],
  ] as const)('%s of somebody who reads inches first', (text, unit, quantity, shown) => {
    expect(readTyped(text, unit, quantity, 'imperial')).toMatchObject({ state: 'value', shown })
    // what is sent says its unit, so that it means the same to everybody
    expect(readTyped(withUnit(text, quantity, 'imperial'), unit, quantity)).toMatchObject({ state: 'value' })
  })
})

describe('the row', () => {
  const lying = (id: number, part: string | null, fitted = false, leftOut: string | null = null) =>
    ({
      id,
      part,
      name: part ?? 'line',
      fitted: fitted ? { by: 'x', at: 'y' } : null,
      leftOut,
    }) as RowPart
  it('offers first what nothing holds any more', () => {
    const first = stillIn(sheet.parts, [])
    expect(first.slice(0, 3).every((w) => w.held.length === 0)).toBe(true)
    const pinion = first.find((w) => w.part.id === 'pinion')!
    expect(pinion.held.map((p) => p.id)).toEqual(['driveshaft'])
    expect(first.some((w) => w.part.id === 'housing')).toBe(false)
  })
  it('understands a scanned id, a whole name and a clear beginning, and nothing else', () => {
    const named = (text: string) => partMeant(sheet.parts, text)?.id
    expect(named('prop-shaft')).toBe('prop-shaft')
    expect(named('Propeller shaft')).toBe('prop-shaft')
    expect(named('clutch')).toBe('clutch-dog')
    expect(named('shims')).toBeUndefined()
    expect(named('')).toBeUndefined()
  })
  it('is built back from its end, and shouts what belongs inside and still lies there', () => {
    const row = [
      lying(1, 'anode'),
      lying(2, 'forward-shims'),
      lying(3, 'pinion', true),
      lying(4, 'clutch-dog', false, 'scrap'),
    ]
    expect(buildBack(row).map((t) => t.id)).toEqual([4, 3, 2, 1])
    expect(leftOnBench(sheet.parts, row).map((t) => t.part)).toEqual(['forward-shims'])
  })
})
