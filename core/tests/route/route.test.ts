import { caseTest, joinedTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { checkRoute } from '../../src/route/check-route.ts'
import { completeStep, type Answers } from '../../src/route/complete.ts'
import { factsIn, holds, type Condition, type Facts } from '../../src/route/facts.ts'
import { deriveFacts, OUTSIDE_FACTS } from '../../src/route/job-facts.ts'
import { firmly, gate, inOrder, number, pick } from '../../src/route/make.ts'
import { dependentsOf, progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import type { Route } from '../../src/route/route.ts'
import { chosenSchool, schools } from '../../src/route/schools.ts'
import { refused } from '../refused.ts'
import { rightOf, tick } from './test-asks.ts'

describe('conditions', () => {
  const facts: Facts = { gear: 'neutral', blocks: 3, off: 3, wet: false, zero: 0 }
  it.each<[Condition, boolean]>([
    [{ fact: 'gear', is: 'neutral' }, true],
    [{ fact: 'gear', is: 'forward' }, false],
    [{ fact: 'nothing', is: 'neutral' }, false],
    [{ fact: 'gear', oneOf: ['forward', 'neutral'] }, true],
    [{ fact: 'blocks', atLeast: 3 }, true],
    [{ fact: 'blocks', atMost: 2 }, false],
    [{ fact: 'zero', atMost: 0 }, true],
    [{ fact: 'gear', atLeast: 0 }, false],
    [{ fact: 'off', sameAs: 'blocks' }, true],
    [{ fact: 'nothing', sameAs: 'nowhere' }, false],
    [{ known: 'wet' }, true],
    [{ known: 'nothing' }, false],
    [{ all: [{ known: 'wet' }, { fact: 'wet', is: true }] }, false],
    [{ any: [{ known: 'nothing' }, { fact: 'wet', is: false }] }, true],
    [{ not: { known: 'nothing' } }, true],
  ])('%j holds: %s', (c, yes) => expect(holds(c, facts)).toBe(yes))
  it('names every fact it asks for', () =>
    expect(
      factsIn({
        all: [
          { not: { known: 'a' } },
          {
            any: [
              { fact: 'b', sameAs: 'c' },
              { fact: 'd', is: 1 },
            ],
          },
        ],
      }),
    ).toEqual(['a', 'b', 'c', 'd']))
})

const small = (): Route => ({
  family: 'test',
  stages: [{ id: 'one', label: 'One' }],
  steps: inOrder<string>('one', undefined, [
    { id: 'a', what: 'Do A', why: 'because', asks: [pick('wet', 'Wet', { yes: 'yes', no: 'no' })] },
    {
      id: 'dry',
      what: 'Dry it',
      why: 'rust',
      appliesWhen: { fact: 'wet', is: 'yes' },
      asks: [tick('dried', 'Dried')],
    },
    {
      id: 'b',
      what: 'Do B',
      why: 'because',
      gates: [gate({ fact: 'ready', is: true }, 'The bench is not ready.')],
      asks: [
        rightOf(
          'way',
          'Way round',
          { up: 'up', down: 'down' },
          'up',
          'Down is wrong: turn it.',
          'cage-turned',
        ),
        number('turns', 'Turns', '', { min: 1, max: 9, optional: true }),
      ],
    },
    {
      id: 'c',
      what: 'Do C',
      why: 'because',
      asks: [
        firmly(rightOf('limit', 'Limit', { kept: 'kept', over: 'over' }, 'kept', 'Over the limit.')),
        tick('stood', 'Stood aside'),
      ],
    },
  ]),
})
const ready: Facts = { ready: true, wet: 'no' }
const codeOf = (work: () => unknown) => refused(work).code
const wordsOf = (work: () => unknown) => refused(work).fields.map((f) => f.message)

describe('progress', () => {
  it('opens what can be done, leaves out what does not apply, and says why the rest is blocked', () => {
    const route = small()
    const at = (facts: Facts, done: string[]) =>
      Object.fromEntries(progressOf(route, facts, new Set(done)).steps.map((s) => [s.step.id, s.state]))
    expect(at({}, [])).toEqual({ a: 'open', dry: 'not-here', b: 'blocked', c: 'blocked' })
    expect(at({ wet: 'yes' }, ['a'])).toEqual({ a: 'done', dry: 'open', b: 'blocked', c: 'blocked' })
    expect(at(ready, ['a'])).toEqual({ a: 'done', dry: 'not-here', b: 'open', c: 'blocked' })
    const { due, done, total } = progressOf(route, { wet: 'no' }, new Set(['a']))
    expect(due).toMatchObject({ step: { id: 'b' }, state: 'blocked', why: ['The bench is not ready.'] })
    expect([done, total]).toEqual([1, 3])
    expect(progressOf(route, {}, new Set()).steps[2]!.why).toEqual([
      'First: Do A.',
      'The bench is not ready.',
    ])
    expect(progressOf(route, ready, new Set(['a', 'b', 'c'])).due).toBeUndefined()
  })
  it('closes a step that asks nothing by itself, and opens it again when its gate no longer holds', () => {
    const route = small()
    route.steps[2]!.asks = []
    route.steps[2]!.bySelf = true
    const state = (ready: boolean) =>
      progressOf(route, { wet: 'no', ready }, new Set(['a'])).steps.map((s) => s.state)
    expect(state(true)).toEqual(['done', 'not-here', 'done', 'open'])
    expect(state(false)).toEqual(['done', 'not-here', 'blocked', 'blocked'])
  })
  it('knows what falls with a step that is taken back', () => {
    expect(dependentsOf(small(), 'a')).toEqual(['dry', 'b', 'c'])
    expect(dependentsOf(small(), 'c')).toEqual([])
  })
})

describe('closing a step', () => {
  const close = (
    step: string,
    answers: Answers,
    more: Parameters<typeof completeStep>[5] = {},
    facts = ready,
  ) => completeStep(small(), facts, new Set(['a']), step, answers, more)
  it('takes right answers', () => {
    expect(close('b', { way: 'up', turns: 3 })).toEqual({
      answers: { way: 'up', turns: 3 },
      departedFrom: [],
      attempt: [],
    })
  })
  it('stops a slip with its words', () => {
    expect(codeOf(() => close('b', { way: 'down' }))).toBe('slip')
    expect(wordsOf(() => close('b', { way: 'down' }))).toEqual(['Down is wrong: turn it.'])
  })
  it('names what is missing, and what is shut', () => {
    expect(codeOf(() => close('b', {}))).toBe('answer-missing')
    expect(codeOf(() => close('b', { way: 'up' }, {}, { wet: 'no' }))).toBe('gate-closed')
    expect(codeOf(() => close('c', { stood: true, limit: 'kept' }))).toBe('gate-closed')
    expect(codeOf(() => close('a', {}))).toBe('already-done')
    expect(codeOf(() => close('dry', { dried: true }))).toBe('not-here')
  })
  it('departs with a reason, with the lead where the shop wants it, and never over a firm answer', () => {
    const reason = { reason: 'the old cage has no way round' }
    expect(close('b', { way: 'down' }, { departure: reason }).departedFrom).toEqual([
      'Down is wrong: turn it.',
    ])
    expect(codeOf(() => close('b', { way: 'down' }, { departure: { reason: ' ' } }))).toBe('reason-needed')
    const lead = { departuresNeedLead: true }
    expect(codeOf(() => close('b', { way: 'down' }, { departure: reason, ...lead }))).toBe('lead-needed')
    expect(
      close('b', { way: 'down' }, { departure: reason, ...lead, leadAgrees: true }).departedFrom,
    ).toHaveLength(1)
    const firm = () =>
      completeStep(
        small(),
        ready,
        new Set(['a', 'b']),
        'c',
        { limit: 'over', stood: true },
        { departure: reason },
      )
    expect(codeOf(firm)).toBe('firm')
  })
  it.each<[Answers, string]>([
    [{ way: 'sideways' }, 'answers.way'],
    [{ way: 'up', turns: 0 }, 'answers.turns'],
    [{ way: 'up', turns: NaN }, 'answers.turns'],
    [{ way: 'up', mood: 'good' }, 'answers.mood'],
  ])('refuses %j', (answers, path) => {
    const error = refused(() => close('b', answers))
    expect([error.code, error.fields[0]!.path]).toEqual(['invalid-input', path])
  })
})

describe('a route is checked when it is loaded', () => {
  const problems = (change: (r: Route) => void, outside = ['ready']) => {
    const route = structuredClone(small())
    change(route)
    return refused(() => checkRoute(route, outside))
      .fields.map((f) => `${f.path}: ${f.message}`)
      .join('\n')
  }
  it('passes one that hangs together', () => checkRoute(small(), ['ready']))
  it.each<[string, (r: Route) => void, RegExp]>([
    ['an id twice', (r) => (r.steps[1]!.id = 'a'), /a: is used twice/],
    ['a stage that is not', (r) => (r.steps[0]!.stage = 'two'), /stage "two"/],
    ['a need that is not', (r) => (r.steps[0]!.needs = ['ghost']), /needs "ghost"/],
    ['a cycle', (r) => (r.steps[0]!.needs = ['c']), /a: can never open/],
    [
      'a gate on a fact that nothing produces',
      (r) => (r.steps[2]!.gates[0]!.when = { known: 'mood' }),
      /"mood", which nothing produces/,
    ],
    [
      'a gate on a later answer',
      (r) => (r.steps[2]!.gates[0]!.when = { fact: 'stood', is: true }),
      /b: can never open/,
    ],
    [
      'an answer that cannot be given',
      (r) => (r.steps[2]!.gates[0]!.when = { fact: 'wet', is: 'maybe' }),
      /b: can never open/,
    ],
    [
      'a right answer that is not offered',
      (r) => (r.steps[2]!.asks[0]!.must = { fact: 'way', is: 'left' }),
      /b: can never open or close/,
    ],
    ['a wrong answer without words', (r) => delete r.steps[2]!.asks[0]!.wrong, /no words/],
    ['a question asked twice', (r) => (r.steps[3]!.asks[0]!.fact = 'wet'), /asked at "a" already/],
  ])('refuses %s', (_, change, words) => expect(problems(change)).toMatch(words))
  it('refuses an outside fact that the job does not know', () =>
    expect(problems(() => undefined, [])).toMatch(/"ready", which nothing produces/))
})

describe.each(demoSheets.map((s) => [s.id, s] as const))('the route of %s', (_, sheet) => {
  const route = routeOf(sheet)
  it('runs from receiving to handover and passes its check', () => {
    expect(route.steps[0]!.id).toBe('receive')
    expect(route.steps.at(-1)!.id).toBe('handover')
    expect(route.steps.length).toBeGreaterThan(30)
    checkRoute(route, OUTSIDE_FACTS)
  })
  it('says what and why at every step, and lights only places that the drawing has', () => {
    const places = new Set([
      ...sheet.gears.map((g) => `gear:${g.id}`),
      ...sheet.bearings.map((b) => `bearing:${b.id}`),
      ...sheet.seals.map((s) => `seal:${s.id}`),
      ...sheet.adjusters.map((a) => `stack:${a.id}`),
      ...sheet.measures.map((m) => `measure:${m.id}`),
      'end:aft',
    ])
    for (const s of route.steps) {
      expect(s.what.length, s.id).toBeGreaterThan(5)
      expect(s.why.length, s.id).toBeGreaterThan(10)
      if (s.place) expect(places.has(s.place), `${s.id}: ${s.place}`).toBe(true)
    }
  })
  it('carries the cautions where they belong, and lets nobody depart from the limit of a pressure test', () => {
    const leak = caseTest(sheet.graph)
    const plans = { 'leak-found': leak, 'leak-case': leak, 'leak-joined': joinedTest(sheet.graph) }
    for (const [id, plan] of Object.entries(plans)) {
      const step = route.steps.find((s) => s.id === id)
      expect(step === undefined).toBe(plan === null)
      if (!step || !plan) continue
      expect(step.asks.find((a) => a.firm)).toMatchObject({
        must: { fact: `${id}.start`, atMost: plan.maxKpa },
      })
      expect(step.cautions!.map((c) => c.say).join(' ')).toContain(`${plan.maxKpa} kPa`)
    }
  })
})

describe('what follows from answers', () => {
  const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
  it.each([
    [{ 'ratio.input-turns': 21.5, 'ratio.output-turns': 10 }, true],
    [{ 'ratio.input-turns': 20, 'ratio.output-turns': 10 }, false],
    [{ 'ratio.input-turns': 21.5, 'ratio.output-turns': 10, 'ratio.driver': 14 }, false],
    [{ 'ratio.input-turns': 21.5, 'ratio.output-turns': 0 }, false],
  ])('%j agrees with 13 : 28: %s', (facts, agrees) =>
    expect(deriveFacts(sheet, facts)['ratio.agrees']).toBe(agrees),
  )
  it('calls a fall that the cooling explains tight', () => {
    const facts = {
      'leak-case.start': 70,
      'leak-case.start-c': 24,
      'leak-case.end': 67,
      'leak-case.end-c': 18,
      'leak-case.minutes': 120,
      'leak-case.blocks-on': 'p1 p2',
      'leak-case.turned': 'yes',
    }
    expect(deriveFacts(sheet, facts)['leak-case.verdict']).toBe('tight')
    const { 'leak-case.end-c': _, 'leak-case.start-c': __, ...blind } = facts
    expect(deriveFacts(sheet, { ...blind, 'leak-case.end': 50 })['leak-case.verdict']).toBe('leaks')
  })
  it('carries a torque through a straight adapter', () => {
    const at = (setting: number, adapter: string) =>
      deriveFacts(sheet, {
        'close.setting': setting,
        'close.adapter': adapter,
        'close.wrench': 500,
        'close.offset': 100,
      })
    expect(at(210, 'straight')).toMatchObject({ 'close.applied': 252, 'close.torque-in': false })
    expect(at(175, 'straight')).toMatchObject({ 'close.applied': 210, 'close.torque-in': true })
    expect(at(210, 'square')['close.torque-in']).toBe(true)
    expect(deriveFacts(sheet, { 'close.setting': 175, 'close.adapter': 'straight' })['close.torque-in']).toBe(
      false,
    )
    // said before the wrench is set: the window divided by how much longer the arm is
    const before = deriveFacts(sheet, {
      'close.adapter': 'straight',
      'close.wrench': 500,
      'close.offset': 100,
    })
    expect(before['close.set-from']).toBeCloseTo(190 / 1.2, 9)
    expect(before['close.set-to']).toBeCloseTo(230 / 1.2, 9)
  })
  it.each([
    ['salt', 'zinc', true],
    ['salt', 'magnesium', false],
    ['brackish', 'zinc', false],
    ['fresh', 'magnesium', true],
    ['fresh', 'aluminium', true],
    ['fresh', 'zinc', false],
  ])('in %s water %s fits: %s', (water, alloy, fits) =>
    expect(deriveFacts(sheet, { 'job.water': water, 'anode.alloy': alloy })['anode.fits']).toBe(fits),
  )
})

describe('schools', () => {
  it('each have a usual choice among their options, and reasons', () => {
    expect(schools).toHaveLength(22)
    for (const s of schools) {
      expect(
        s.options.map((o) => o.value),
        s.id,
      ).toContain(s.usual)
      for (const o of s.options) expect(o.reason.length, s.id).toBeGreaterThan(5)
    }
  })
  it('let the job stand above the shop, and the shop above what is usual', () => {
    expect(chosenSchool('filling', {})).toMatchObject({ value: 'mounted', from: 'usual' })
    expect(chosenSchool('filling', { filling: 'stand' })).toMatchObject({ value: 'stand', from: 'shop' })
    expect(chosenSchool('filling', { filling: 'stand' }, { filling: 'mounted' })).toMatchObject({
      value: 'mounted',
      from: 'job',
    })
    expect(chosenSchool('filling', { filling: 'sideways' }).from).toBe('usual')
  })
})
