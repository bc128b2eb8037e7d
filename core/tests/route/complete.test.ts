import { describe, expect, it } from 'vitest'
import { completeStep, type Answers, type Departure } from '../../src/route/complete.ts'
import { holds, type FactValue, type Facts } from '../../src/route/facts.ts'
import { honest, honestOf, honestWords } from '../../src/route/honest.ts'
import { firmly, gate, inOrder, listOf, mustHold, number, pick, text } from '../../src/route/make.ts'
import type { Route } from '../../src/route/route.ts'
import { refused } from '../refused.ts'
import { optionalTick, rightOf, tick } from './test-asks.ts'

/** One step of every kind of question, with a gate, a firm question, and a condition under which it counts. */
const route: Route = {
  family: 'test',
  stages: [{ id: 'one', label: 'One' }],
  steps: inOrder<string>('one', undefined, [
    { id: 'first', what: 'Look', why: 'because', asks: [tick('looked', 'Looked')] },
    {
      id: 'all',
      what: 'Ask all',
      why: 'because',
      gates: [gate({ fact: 'ready', is: true }, 'The bench is not ready.')],
      counts: [{ when: { fact: 'minutes', atLeast: 10 }, say: 'It was held too short.' }],
      asks: [
        tick('held', 'Held', undefined, 'Hold it first.'),
        optionalTick('wiped', 'Wiped'),
        rightOf('way', 'Way round', { up: 'up', down: 'down', side: 'sideways' }, ['up', 'side'], 'Turn it.'),
        listOf('ports', 'Blocked', { top: 'top', low: 'low', vent: 'vent' }),
        number('minutes', 'Minutes', 'min', { min: 1, max: 60 }),
        number('bolts', 'Bolts', '', { whole: true, optional: true }),
        text('note', 'Note', { optional: true }),
        firmly(mustHold(number('kpa', 'Pressure', 'kPa'), { fact: 'kpa', atMost: 80 }, 'Too much.')),
      ],
    },
    { id: 'mute', what: 'Say nothing', why: 'because', asks: [] },
    {
      id: 'maybe',
      what: 'Where it is said',
      why: 'because',
      needs: ['first'],
      asks: [
        pick('side', 'Side', { port: 'port', starboard: 'starboard' }),
        listOf('more', 'More', { x: 'x' }, { optional: true }),
      ],
    },
  ]),
}
const ready: Facts = { ready: true }
const right: Answers = { held: true, way: 'up', ports: 'top vent', minutes: 10, kpa: 80 }
const departure: Departure = { reason: 'the owner waits' }
type Options = Parameters<typeof completeStep>[5]

const close = (answers: Answers, options: Options = {}, facts = ready, step = 'all', done = ['first']) =>
  completeStep(route, facts, new Set(done), step, answers, options)
/** Code and problems of what is refused. */
function problems(work: () => unknown) {
  const { code, fields } = refused(work)
  return { code, fields }
}
const one = (code: string, path: string, message: string) => ({ code, fields: [{ path, message }] })

describe('which step', () => {
  it('is one of the route', () =>
    expect(problems(() => close({}, {}, ready, 'ghost'))).toEqual(
      one('invalid-input', 'step', '"ghost" is no step of this route'),
    ))
  it('is not done already', () =>
    expect(problems(() => close({ looked: true }, {}, ready, 'first'))).toEqual(
      one('already-done', 'step', '"Look" is done already; take it back first'),
    ))
  it('is open, or says why it is not, at the step', () => {
    expect(problems(() => close(right, {}, {}))).toEqual(
      one('gate-closed', 'step', 'The bench is not ready.'),
    )
    expect(problems(() => close(right, {}, {}, 'all', []))).toEqual({
      code: 'gate-closed',
      fields: [
        { path: 'step', message: 'First: Look.' },
        { path: 'step', message: 'The bench is not ready.' },
      ],
    })
  })
  it('opens against a shut gate with a reason, which is said', () => {
    expect(close(right, { departure }, {})).toEqual({
      answers: right,
      departedFrom: ['The bench is not ready.'],
      attempt: [],
    })
  })
  it('needs no reason where nothing is departed from', () =>
    expect(close(right, { departure })).toEqual({ answers: right, departedFrom: [], attempt: [] }))
})

describe('answers that are missing', () => {
  it('are named each, a tick in its own words', () =>
    expect(problems(() => close({ ports: 'top', minutes: 10 }))).toEqual({
      code: 'answer-missing',
      fields: [
        { path: 'answers.held', message: 'Hold it first.' },
        { path: 'answers.way', message: 'Way round: not answered yet' },
        { path: 'answers.kpa', message: 'Pressure: not answered yet' },
      ],
    }))
  it('a tick that is off is one of them', () =>
    expect(problems(() => close({ ...right, held: false }))).toEqual(
      one('answer-missing', 'answers.held', 'Hold it first.'),
    ))
  it('a list of which nothing is ticked is answered: none', () => {
    const { ports: _, ...rest } = right
    expect(close(rest).answers['ports']).toBe('')
  })
  it('a list that may be left out stays out', () =>
    expect(close({ side: 'port' }, {}, ready, 'maybe').answers).toEqual({ side: 'port' }))
  it('are left out with a reason, and said', () => {
    const { answers, departedFrom } = close({ ports: 'low', minutes: 30, kpa: 1 }, { departure })
    expect(answers).toEqual({ ports: 'low', minutes: 30, kpa: 1 })
    expect(departedFrom).toEqual(['Held: left out', 'Way round: left out'])
  })
})

describe('answers that cannot be', () => {
  it.each<[string, FactValue, string]>([
    ['held', 'yes', 'is ticked or not'],
    ['way', 'round', 'is "round"; one of up, down, side'],
    ['ports', 3, 'must be text: the values chosen, in order, with blanks between'],
    ['ports', 'vent top', 'is "vent top"; some of top, low, vent, each once and in this order'],
    ['ports', 'top top', 'is "top top"; some of top, low, vent, each once and in this order'],
    ['ports', 'top bow', 'is "top bow"; some of top, low, vent, each once and in this order'],
    ['minutes', '10', 'must be a finite number'],
    ['minutes', Infinity, 'must be a finite number'],
    ['minutes', 0.5, 'is 0.5 min; at least 1 min can be: read it again, or look at the unit'],
    ['minutes', 61, 'is 61 min; at most 60 min can be: read it again, or look at the unit'],
    ['bolts', 2.5, 'is 2.5; count again, it is a whole number'],
    ['bolts', -1, 'is -1; at least 0 can be: read it again, or look at the unit'],
    ['note', 5, 'must be text of at most 600 characters'],
    ['note', 'x'.repeat(601), 'must be text of at most 600 characters'],
  ])('%s: %j', (fact, value, message) =>
    expect(problems(() => close({ ...right, [fact]: value }))).toEqual(
      one('invalid-input', `answers.${fact}`, message),
    ),
  )
  it.each<[string, FactValue]>([
    ['wiped', false],
    ['way', 'side'],
    ['ports', ''],
    ['ports', ' top  vent '],
    ['minutes', 60],
    ['bolts', 0],
    ['bolts', 900],
    ['note', 'x'.repeat(600)],
  ])('%s: %j can', (fact, value) => {
    expect(close({ ...right, [fact]: value }).answers[fact]).toBe(value)
  })
  it('the smallest can', () => expect(close({ ...right, minutes: 1 }).answers['minutes']).toBe(1))
  it('a note that is empty is none', () => expect(close({ ...right, note: '' }).answers).toEqual(right))
  it('questions that nobody asked are named, with those that are', () => {
    expect(problems(() => close({ ...right, mood: 'good' }))).toEqual(
      one(
        'invalid-input',
        'answers.mood',
        'is not asked here; asked are held, wiped, way, ports, minutes, bolts, note, kpa',
      ),
    )
    expect(problems(() => close({ mood: 'good' }, {}, ready, 'mute', ['first']))).toEqual(
      one('gate-closed', 'step', 'First: Ask all.'),
    )
    const gone = { departure }
    expect(problems(() => close({ mood: 'good' }, gone, ready, 'mute', ['first']))).toEqual(
      one('invalid-input', 'answers.mood', 'is not asked here; asked are no questions'),
    )
  })
})

describe('slips, attempts and departures', () => {
  it('a slip stops with its words; with a reason it is said', () => {
    expect(problems(() => close({ ...right, way: 'down' }))).toEqual(one('slip', 'answers.way', 'Turn it.'))
    expect(close({ ...right, way: 'down' }, { departure }).departedFrom).toEqual(['Turn it.'])
  })
  it('what was too short is an attempt; departed from as well, it is said with the rest', () => {
    expect(close({ ...right, minutes: 9 })).toEqual({
      answers: { ...right, minutes: 9 },
      departedFrom: [],
      attempt: ['It was held too short.'],
    })
    expect(close({ ...right, minutes: 9, way: 'down' }, { departure })).toMatchObject({
      departedFrom: ['Turn it.', 'It was held too short.'],
      attempt: [],
    })
  })
  it('nobody goes on over a firm answer', () => {
    expect(problems(() => close({ ...right, kpa: 81 }, { departure, leadAgrees: true }))).toEqual({
      code: 'firm',
      fields: [
        { path: 'departure', message: 'is refused: nobody goes on over this, it could hurt somebody' },
        { path: 'answers.kpa', message: 'Too much.' },
      ],
    })
  })
  it.each([
    ['', false],
    ['  a  ', false],
    ['so', false],
    ['why', true],
  ])('the reason %j is one: %s', (reason, enough) => {
    const go = () => close({ ...right, way: 'down' }, { departure: { reason } })
    if (enough) expect(go().departedFrom).toHaveLength(1)
    else
      expect(problems(go)).toEqual(
        one('reason-needed', 'departure.reason', 'is missing; say why you go on all the same'),
      )
  })
  it('the lead agrees where the shop wants it', () => {
    const go = (leadAgrees: boolean) =>
      close({ ...right, way: 'down' }, { departure, departuresNeedLead: true, leadAgrees })
    expect(problems(() => go(false))).toEqual(
      one('lead-needed', 'departure', 'needs the lead of this shop, who has not agreed to it yet'),
    )
    expect(go(true).departedFrom).toEqual(['Turn it.'])
  })
  it('judges by what follows from the answers', () => {
    const derive = (f: Facts): Facts => ({ ...f, minutes: Number(f['minutes']) / 2 })
    expect(close({ ...right, minutes: 18 }, { derive }).attempt).toEqual(['It was held too short.'])
    expect(close({ ...right, minutes: 20 }, { derive }).attempt).toEqual([])
  })
})

describe('honest answers', () => {
  const words = (how: string) => honest('mended', how)
  it('are taken in place of any other, kept, and say nothing about what was asked', () => {
    const answers = { ...right, way: honest('cannot-tell'), minutes: honest('not-done') }
    const closed = close(answers)
    expect(closed).toEqual({ answers, departedFrom: [], attempt: [] })
    expect(holds({ known: 'way' }, closed.answers)).toBe(false)
    expect(holds({ fact: 'minutes', atLeast: 1 }, closed.answers)).toBe(false)
    expect(holds({ not: { fact: 'way', is: 'up' } }, closed.answers)).toBe(true)
  })
  it('"mended" says how', () => {
    expect(close({ ...right, way: words('turned round, seen again') }).departedFrom).toEqual([])
    expect(problems(() => close({ ...right, way: words('') })).fields[0]!.message).toMatch(
      /how it was mended/,
    )
  })
  it('over a firm limit there is only "not done"', () => {
    expect(close({ ...right, kpa: honest('not-done') }).answers['kpa']).toBe('~not-done')
    expect(problems(() => close({ ...right, kpa: honest('cannot-tell') })).fields[0]!.message).toMatch(
      /could hurt somebody/,
    )
  })
  it('a step of which nothing was done is closed as that, and is no attempt', () => {
    const none = Object.fromEntries(
      ['held', 'way', 'ports', 'minutes', 'kpa'].map((f) => [f, honest('not-done')]),
    )
    expect(close(none).attempt).toEqual([])
    expect(close({ ...right, minutes: 9 }).attempt).toHaveLength(1)
  })
  it('are words, read back', () => {
    expect(honestOf(words('new ring'))).toEqual({ kind: 'mended', how: 'new ring' })
    expect(honestWords(words('new ring'))).toBe('it happened, and was mended: new ring')
    expect(honestOf(honest('elsewhere', 'the yard, on paper'))).toEqual({
      kind: 'elsewhere',
      how: 'the yard, on paper',
    })
    expect(honestOf('up')).toBeUndefined()
    expect(honestOf('~constructor')).toBeUndefined()
  })
})

describe('questions that depend', () => {
  const asked: Route = {
    family: 'test',
    stages: [{ id: 'one', label: 'One' }],
    steps: inOrder<string>('one', undefined, [
      {
        id: 'eye',
        what: 'Look into it',
        why: 'because',
        gates: [{ when: { not: { fact: 'shut', is: true } }, say: 'Not while it runs.', firm: true }],
        asks: [
          pick('how', 'It came', { free: 'freely', broke: 'broken' }),
          text('broke', 'What broke', { when: { fact: 'how', is: 'broke' } }),
          text('seen', 'What you see', { unless: { fact: 'picture.eye', is: true } }),
        ],
      },
    ]),
  }
  const run = (answers: Answers, facts: Facts = {}, options: Options = {}) =>
    completeStep(asked, facts, new Set(), 'eye', answers, options)
  it('are only wanted where they belong', () => {
    expect(problems(() => run({ how: 'free' })).fields.map((f) => f.path)).toEqual(['answers.seen'])
    expect(run({ how: 'free', seen: 'clean' }).attempt).toEqual([])
    expect(problems(() => run({ how: 'broke', seen: 'clean' })).fields.map((f) => f.path)).toEqual([
      'answers.broke',
    ])
    expect(run({ how: 'free' }, { 'picture.eye': true }).answers).toEqual({ how: 'free' })
  })
  it('nobody departs from a firm gate', () =>
    expect(problems(() => run({ how: 'free', seen: 'clean' }, { shut: true }, { departure })).code).toBe(
      'firm',
    ))
})
